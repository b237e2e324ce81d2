import { useState, type ReactNode } from 'react';
import { Form } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { acceptedReason, findingKey, findingPrint, type Finding, type FindingPlace } from '../../core/checks';
import { acceptFinding } from '../../core/show';
import { findingSentence, findingSentenceInSong, fixWords } from '../../wording';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { groupsOf, mendKey, placePath } from './findingGroups';
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
  /** Whether the song is known where the list stands. */
  readonly inSong?: boolean;
}

/** What the checks have to say: each leads to its place, is mended here where it can be, or let be with a reason. */
export function FindingList({ findings, well, renderWay, inSong = false }: Props) {
  const show = useShow();
  const open = groupsOf(findings.filter((f) => acceptedReason(show, f) === undefined));
  // What mends several at one place stands once.
  const mends = new Map(open.toReversed().flatMap(([f]) => (f.fix ? [[mendKey(f), f]] : [])));
  const shows = (f: Finding): boolean => f.fix !== null && mends.get(mendKey(f)) === f;
  const say = inSong ? findingSentenceInSong : findingSentence;
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
        {open.map(([f, ...others]) => (
          <li key={findingKey(f) + findingPrint(f)}>
            <LanternMark mark={f.severity === 'note' ? 'hollow' : 'cracked'} size={22} silent />
            <span>
              {say(f)} {renderWay?.(f) ?? <Link to={placePath(show, f.place)}>{placeWord(f.place)}</Link>}
              {others.length > 0 && <Also findings={others} />}
            </span>
            {(shows(f) || f.severity !== 'error') && (
              <Acts>
                {shows(f) && <Button onPress={() => perform(f.fix, fixWords(f).toLowerCase())}>{fixWords(f)}</Button>}
                {f.severity !== 'error' && <LetBe finding={f} />}
              </Acts>
            )}
          </li>
        ))}
      </List>
      {accepted.length > 0 && (
        <details>
          <summary>
            <Soft>{accepted.length} ignored</Soft>
          </summary>
          <List aria-label="Ignored findings" style={{ marginTop: 6 }}>
            {accepted.map((f) => (
              <li key={findingKey(f)}>
                <LanternMark mark="hollow" size={22} silent />
                <span>
                  {findingSentence(f)} <Soft>Ignored: {acceptedReason(show, f)}</Soft>
                </span>
                <Acts>
                  <Button
                    onPress={() =>
                      perform(acceptFinding(show, findingKey(f), findingPrint(f), ''), 'show a finding again')
                    }
                  >
                    Show again
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

/** Places that are named one by one where the same is found in many. */
const NAMED_PLACES = 24;

/** The same thing found elsewhere: only its places. */
function Also({ findings }: { readonly findings: readonly Finding[] }) {
  const show = useShow();
  const rest = findings.length - NAMED_PLACES;
  return (
    <>
      , and at{' '}
      {findings.slice(0, NAMED_PLACES).map((f, i) => (
        <span key={findingKey(f)}>
          {i > 0 && ', '}
          <Link to={placePath(show, f.place)}>{'at' in f.data ? f.data.at : placeWord(f.place)}</Link>
        </span>
      ))}
      {rest > 0 && ` and ${rest} more places`}
    </>
  );
}

const placeWord = (place: FindingPlace): string =>
  place.in === 'song'
    ? 'Go to it'
    : place.in === 'tone'
      ? 'Go to the tone'
      : place.in === 'port'
        ? 'Go to the port'
        : 'Go to the unit';

/** A quiet finding that somebody has looked at: the reason is kept with the show, and it comes back when it changes. */
function LetBe({ finding }: { readonly finding: Finding }) {
  const show = useShow();
  const [reason, setReason] = useState('');
  return (
    <DialogButton face="Ignore …" title="Ignore a finding">
      {(close) => (
        <Form
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim() === '') return;
            perform(
              acceptFinding(show, findingKey(finding), findingPrint(finding), reason.trim().slice(0, 400)),
              'ignore a finding',
            );
            close();
          }}
        >
          <Rows>
            <p>{findingSentence(finding)}</p>
            <Field value={reason} onChange={setReason} isRequired>
              <Label>Reason</Label>
              <Input autoFocus />
            </Field>
            <Soft>It stays away until what it says changes.</Soft>
            <Last>
              <Button onPress={close}>Cancel</Button>
              <MainButton type="submit">Ignore</MainButton>
            </Last>
          </Rows>
        </Form>
      )}
    </DialogButton>
  );
}
