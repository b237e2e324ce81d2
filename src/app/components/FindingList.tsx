import { useState, type ReactNode } from 'react';
import { Form } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { acceptedReason, findingKey, findingPrint, type Finding, type FindingPlace } from '../../core/checks';
import { acceptFinding, type Show } from '../../core/show';
import { findingSentence, fixWords } from '../../wording';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { Button, Field, Input, Label, MainButton, Soft } from './controls';
import { DialogButton } from './DialogButton';
import { Last, Rows } from './dialogParts';
import { LanternMark } from './LanternMark';

const List = styled.ul`
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr);
    gap: 5px 8px;
    align-items: start;
    font-size: 13.5px;
  }
  & a {
    color: ${desk.ink};
    font-weight: 600;
  }
`;

const Acts = styled.div`
  grid-column: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  & > button {
    min-height: 30px;
    font-size: 13px;
    white-space: normal;
    text-align: left;
  }
`;

interface Props {
  readonly findings: readonly Finding[];
  /** What is said when there are none. */
  readonly well: string;
  /** The way to a place, where the view has a better one than a link. */
  readonly renderWay?: (finding: Finding) => ReactNode;
  /** What else to do when a finding was mended. */
  readonly onMended?: (finding: Finding) => void;
}

/** What the checks have to say: each leads to its place, is mended here where it can be, or let be with a reason. */
export function FindingList({ findings, well, renderWay, onMended }: Props) {
  const show = useShow();
  const open = findings.filter((f) => acceptedReason(show, f) === undefined);
  const accepted = findings.filter((f) => acceptedReason(show, f) !== undefined);
  return (
    <>
      <List aria-label="Findings">
        {open.length === 0 && (
          <li>
            <LanternMark mark="lit" size={22} silent />
            <span>{well}</span>
          </li>
        )}
        {open.map((f) => (
          <li key={findingKey(f) + findingPrint(f)}>
            <LanternMark mark={f.severity === 'note' ? 'hollow' : 'cracked'} size={22} silent />
            <span>
              {findingSentence(f)} {renderWay?.(f) ?? <Link to={placePath(show, f.place)}>{placeWord(f.place)}</Link>}
            </span>
            {(f.fix || f.severity !== 'error') && (
              <Acts>
                {f.fix && (
                  <Button
                    onPress={() => {
                      if (perform(f.fix, fixWords(f).toLowerCase())) onMended?.(f);
                    }}
                  >
                    {fixWords(f)}
                  </Button>
                )}
                {f.severity !== 'error' && <LetBe finding={f} />}
              </Acts>
            )}
          </li>
        ))}
      </List>
      {accepted.length > 0 && (
        <details>
          <summary>
            <Soft>{accepted.length} let be</Soft>
          </summary>
          <List aria-label="Findings let be" style={{ marginTop: 6 }}>
            {accepted.map((f) => (
              <li key={findingKey(f)}>
                <LanternMark mark="hollow" size={22} silent />
                <span>
                  {findingSentence(f)} <Soft>Let be: {acceptedReason(show, f)}</Soft>
                </span>
                <Acts>
                  <Button
                    onPress={() =>
                      perform(acceptFinding(show, findingKey(f), findingPrint(f), ''), 'look at a finding again')
                    }
                  >
                    Look at it again
                  </Button>
                </Acts>
              </li>
            ))}
          </List>
        </details>
      )}
    </>
  );
}

/** The address that a finding is mended at. */
export function placePath({ id }: Show, place: FindingPlace): string {
  switch (place.in) {
    case 'song': {
      const chosen = place.cueId ? `&cue=${place.cueId}` : place.sweepId ? `&sweep=${place.sweepId}` : '';
      return `/show/${id}/chart/${place.songId}?at=${place.at}${chosen}`;
    }
    case 'tone':
      return `/show/${id}/tones/${place.toneId}`;
    case 'port':
      return `/show/${id}/rig?port=${place.portId}`;
    case 'unit':
      if (place.controlId !== undefined) return `/show/${id}/map/${place.unitId}/controls`;
      if (place.slotId !== undefined) return `/show/${id}/map/${place.unitId}`;
      return `/show/${id}/rig?unit=${place.unitId}`;
  }
}

const placeWord = (place: FindingPlace): string =>
  place.in === 'song'
    ? 'to its place'
    : place.in === 'tone'
      ? 'to the tone'
      : place.in === 'port'
        ? 'to the port'
        : 'to the unit';

/** A quiet finding that somebody has looked at: the reason is kept with the show, and it comes back when it changes. */
function LetBe({ finding }: { readonly finding: Finding }) {
  const show = useShow();
  const [reason, setReason] = useState('');
  return (
    <DialogButton face="Let it be …" title="Let it be">
      {(close) => (
        <Form
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim() === '') return;
            perform(
              acceptFinding(show, findingKey(finding), findingPrint(finding), reason.trim().slice(0, 400)),
              'let a finding be',
            );
            close();
          }}
        >
          <Rows>
            <p>{findingSentence(finding)}</p>
            <Field value={reason} onChange={setReason} isRequired>
              <Label>Why it may stay</Label>
              <Input autoFocus />
            </Field>
            <Soft>It stays quiet until what it says changes.</Soft>
            <Last>
              <Button onPress={close}>Cancel</Button>
              <MainButton type="submit">Let it be</MainButton>
            </Last>
          </Rows>
        </Form>
      )}
    </DialogButton>
  );
}
