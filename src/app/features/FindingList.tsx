import { useState, type ReactNode } from 'react';
import { Form } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import {
  acceptedReason,
  canAccept,
  findingKey,
  findingSays,
  mendAll,
  type Finding,
  type FindingPlace,
} from '../../core/checks';
import { acceptFinding, applyEdit, type Edit } from '../../core/show';
import { findingSentence, findingSentenceInSong, fixWords } from '../../wording';
import { perform } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { groupsOf, mendKey, placePath, songOfGroup, type Group } from './findingGroups';
import { Button, Field, Input, Label, MainButton, Soft } from '../widgets/controls';
import { DialogButton } from '../widgets/DialogButton';
import { Last, Rows } from '../widgets/dialogParts';
import { Fold } from '../widgets/Fold';
import { LanternMark } from '../widgets/LanternMark';
import { useShown } from '../widgets/useShown';

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
  /** Told when somebody goes to the place of a finding. */
  readonly onWay?: () => void;
}

/** More of a kind than this stand together, with the first of them in full. */
const APART = 2;

/** So many stand at once. */
const AT_ONCE = 60;

/** Kinds that only a dry run makes: mended one by one, because each changes how the others land. */
const BY_DRY_RUN = new Set<Finding['code']>(['song.late', 'song.early', 'song.never', 'song.tempo-missed']);

/** What the checks found: each leads to its place, is mended here where it can be, or ignored with a reason; many of a kind together. */
export function FindingList({ findings, well, renderWay, inSong = false, onWay }: Props) {
  const show = useShow();
  const open = groupsOf(findings.filter((f) => acceptedReason(show, f) === undefined));
  const lines = open.flatMap((g) => (g.length > APART ? [g] : g.map((f): Group => [f])));
  // What mends several at one place stands once.
  const mends = new Map(lines.toReversed().flatMap(([f]) => (f.fix ? [[mendKey(f), f]] : [])));
  const shows = (f: Finding): boolean => f.fix !== null && mends.get(mendKey(f)) === f;
  const accepted = findings.filter((f) => acceptedReason(show, f) !== undefined);
  const [shown, rest] = useShown(lines.length, AT_ONCE);
  const line = (f: Finding, fixed: boolean, more?: ReactNode) => (
    <li key={findingKey(f) + findingSays(f)}>
      <LanternMark mark={f.severity === 'note' ? 'hollow' : 'cracked'} size={22} silent />
      <span>
        {(inSong ? findingSentenceInSong : findingSentence)(f)}{' '}
        {renderWay?.(f) ?? (
          <Link to={placePath(show, f.place, f.code)} onClick={onWay}>
            {placeWord(f.place)}
          </Link>
        )}
      </span>
      {(fixed || canAccept(f)) && (
        <Acts>
          {fixed && <Button onPress={() => perform(f.fix, fixWords(f).toLowerCase())}>{fixWords(f)}</Button>}
          {canAccept(f) && <Ignore findings={[f]} />}
        </Acts>
      )}
      {more}
    </li>
  );
  return (
    <>
      <List aria-label="Findings">
        {open.length === 0 && (
          <li>
            <LanternMark mark="lit" size={22} silent />
            <span>{well}</span>
          </li>
        )}
        {lines.slice(0, shown).map((group) => {
          const [f, ...others] = group;
          if (others.length === 0) return line(f, shows(f));
          return line(f, shows(f), <Others group={group} line={(other) => line(other, other.fix !== null)} />);
        })}
      </List>
      {rest}
      {accepted.length > 0 && <Ignored accepted={accepted} />}
    </>
  );
}

/** Findings that somebody let be, with why. */
function Ignored({ accepted }: { readonly accepted: Finding[] }) {
  const show = useShow();
  return (
    <Fold summary={<Soft>{accepted.length} ignored</Soft>}>
      {() => (
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
                    perform(acceptFinding(show, findingKey(f), findingSays(f), ''), 'show a finding again')
                  }
                >
                  Show again
                </Button>
              </Acts>
            </li>
          ))}
        </List>
      )}
    </Fold>
  );
}

/** The rest of a kind: mended or ignored in one go, and one by one below. */
function Others({ group, line }: { readonly group: Group; readonly line: (f: Finding) => ReactNode }) {
  const show = useShow();
  const [first, ...others] = group;
  const mendable = !BY_DRY_RUN.has(first.code) && group.some((f) => f.fix !== null);
  return (
    <div style={{ gridColumn: 2, display: 'grid', gap: 6 }}>
      <Acts style={{ gridColumn: 'auto' }}>
        {mendable && (
          <Button
            onPress={() =>
              perform(mendAll(show, songOfGroup(group), first.code), `${fixWords(first).toLowerCase()}, all of them`)
            }
          >
            Mend all {group.length}
          </Button>
        )}
        {canAccept(first) && <Ignore findings={group} />}
      </Acts>
      <Fold summary={`${others.length} more like this`}>{() => <More findings={others} line={line} />}</Fold>
    </div>
  );
}

function More({ findings, line }: { readonly findings: readonly Finding[]; readonly line: (f: Finding) => ReactNode }) {
  const [shown, more] = useShown(findings.length, AT_ONCE);
  return (
    <>
      <List aria-label="More like this" style={{ marginTop: 6 }}>
        {findings.slice(0, shown).map(line)}
      </List>
      {more}
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
        : place.in === 'entry'
          ? 'Go to the song of the set'
          : place.in === 'reaction'
            ? 'Go to the reaction'
            : place.in === 'feet'
              ? 'Go to the page'
              : 'Go to the unit';

/** Quiet findings that somebody has looked at: the reason is kept with the show, and they come back when they change. */
function Ignore({ findings }: { readonly findings: readonly Finding[] }) {
  const show = useShow();
  const [reason, setReason] = useState('');
  const all = findings.length > 1;
  const ignore = (): void => {
    const edits: Edit[] = [];
    let state = show;
    for (const f of findings) {
      const edit = acceptFinding(state, findingKey(f), findingSays(f), reason.trim().slice(0, 400));
      if (!edit) continue;
      edits.push(edit);
      state = applyEdit(state, edit);
    }
    perform({ kind: 'group', edits }, all ? 'ignore findings' : 'ignore a finding');
  };
  return (
    <DialogButton
      face={all ? `Ignore all ${findings.length} …` : 'Ignore …'}
      title={all ? 'Ignore findings' : 'Ignore a finding'}
    >
      {(close) => (
        <Form
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim() === '') return;
            ignore();
            close();
          }}
        >
          <Rows>
            <p>{findingSentence(findings[0]!)}</p>
            {all && <p>And {findings.length - 1} more like this.</p>}
            <Field value={reason} onChange={setReason} isRequired>
              <Label>Reason</Label>
              <Input autoFocus />
            </Field>
            <Soft>{all ? 'They stay' : 'It stays'} away until what is said changes.</Soft>
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
