import { useMemo } from 'react';
import styled from 'styled-components';
import type { Show, Song } from '../../../core/show';
import { compareRuns, worstFirst, type Verdict } from '../../../core/simulate';
import { useShown } from '../../widgets/useShown';
import { LanternMark } from '../../widgets/LanternMark';
import { UnitBadge } from '../../widgets/UnitBadge';
import type { Run } from '../../state/proofs';
import { desk } from '../../theme/tokens';
import { offsetText, roomText } from '../../features/runSum';
import { cueName, placeOf } from './runFacts';

const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  & button {
    display: grid;
    grid-template-columns: 22px 58px 34px minmax(0, 1fr) auto;
    gap: 8px;
    align-items: center;
    width: 100%;
    padding: 5px 8px 5px 4px;
    border: 0;
    border-left: 4px solid transparent;
    border-top: 1px solid ${desk.line};
    background: none;
    color: ${desk.ink};
    font-size: 13.5px;
    text-align: left;
    cursor: pointer;
  }
  & button:hover {
    background: ${desk.tideWash};
  }
  & button[aria-pressed='true'] {
    border-left-color: ${desk.lamp};
    background: ${desk.lampWash};
  }
  & b {
    font-variant-numeric: tabular-nums;
  }
  & span:nth-of-type(1) {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Lands = styled.span<{ $bad: boolean }>`
  font-weight: 700;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
  color: ${({ $bad }) => ($bad ? desk.rust : desk.inkSoft)};
`;

/** The list shows so many at once; what does not land comes first. */
const SHOWN = 60;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly run: Run;
  readonly chosen: Verdict | undefined;
  readonly onChoose: (verdict: Verdict) => void;
}

/** Every change of a song: what misses first, then what has the least room. */
export function ChangeList({ show, song, run, chosen, onChoose }: Props) {
  const sorted = useMemo(() => worstFirst(run.picture.landings), [run]);
  const [shown, more] = useShown(sorted.length, SHOWN);
  return (
    <>
      <List aria-label="Changes, the worst first">
        {sorted.slice(0, shown).map((v) => (
          <li key={v.cueId + v.unitId}>
            <Change show={show} song={song} verdict={v} chosen={chosen === v} onChoose={onChoose}>
              <Lands $bad={v.outcome !== 'on-time'}>
                {v.outcome === 'on-time' ? `room ${roomText(v)}` : offsetText(v)}
              </Lands>
            </Change>
          </li>
        ))}
      </List>
      {more}
    </>
  );
}

interface ChangeProps {
  readonly show: Show;
  readonly song: Song;
  readonly verdict: Verdict;
  readonly chosen: boolean;
  readonly onChoose: (verdict: Verdict) => void;
  readonly children: React.ReactNode;
}

function Change({ show, song, verdict, chosen, onChoose, children }: ChangeProps) {
  const index = show.units.findIndex((u) => u.id === verdict.unitId);
  const unit = show.units[index];
  return (
    <button type="button" aria-pressed={chosen} onClick={() => onChoose(verdict)}>
      <LanternMark mark={verdict.outcome === 'on-time' ? 'lit' : 'cracked'} size={20} />
      <b>{placeOf(song, verdict.due)}</b>
      <UnitBadge monogram={unit?.monogram ?? ''} index={index} size={20} />
      <span title={unit?.name}>{cueName(show, song, verdict.cueId)}</span>
      {children}
    </button>
  );
}

/** What lands otherwise than in the state that is compared with. */
export function DifferenceList({
  show,
  song,
  before,
  run,
  chosen,
  onChoose,
  isThere,
}: Props & { readonly before: Run | undefined; readonly isThere: boolean }) {
  const found = useMemo(
    () => (before ? compareRuns(before.picture.landings, run.picture.landings) : []),
    [before, run],
  );
  const [shown, more] = useShown(found.length, SHOWN);
  if (!isThere) return <p>The song was not there then.</p>;
  if (!before) return <p>That state is being played to the simulated rig …</p>;
  if (found.length === 0) return <p>Every change lands as it did then.</p>;
  return (
    <>
      <List aria-label="Changes that land otherwise">
        {found.slice(0, shown).map((d) => {
          const verdict = (d.after ?? d.before)!;
          return (
            <li key={d.cueId + d.unitId}>
              <Change
                show={show}
                song={song}
                verdict={verdict}
                chosen={chosen === verdict}
                onChoose={(v) => d.after && onChoose(v)}
              >
                <Lands $bad={verdict.outcome !== 'on-time'}>
                  {d.before ? offsetText(d.before) : 'new'} → {d.after ? offsetText(d.after) : 'gone'}
                </Lands>
              </Change>
            </li>
          );
        })}
      </List>
      {more}
    </>
  );
}
