import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { RoomFix } from '../../core/checks';
import { indexShow, type Show, type Song } from '../../core/show';
import { roomOf, type Verdict } from '../../core/simulate';
import { millisToMicros } from '../../core/time';
import { marginMillis, remedyEffect, remedyWords } from '../../wording';
import { Button, Soft } from '../widgets/controls';
import { findRoom } from '../state/asks';
import { perform } from '../state/desk';
import { useShow } from '../state/store';

const Offers = styled.ul`
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    font-size: 13.5px;
  }
  & button {
    min-height: 30px;
    white-space: normal;
    text-align: left;
  }
`;

interface Props {
  readonly song: Song;
  readonly verdict: Verdict;
}

/** What came of a search, and of which show and change it was. */
interface Sought {
  readonly show: Show;
  readonly of: string;
  readonly fixes: readonly RoomFix[];
  readonly trouble: string | null;
}

/** What a search for room comes to, once it is wanted; null while it is worked out. */
function useSearch(show: Show, song: Song, { cueId, unitId }: Verdict, wanted: boolean): Sought | null {
  const [sought, setSought] = useState<Sought | null>(null);
  const songId = song.id;
  const of = `${songId}\n${cueId}\n${unitId}`;
  useEffect(() => {
    if (!wanted) return undefined;
    let stands = true;
    const done = (found: Pick<Sought, 'fixes' | 'trouble'>): void => {
      if (stands) setSought({ show, of, ...found });
    };
    findRoom(songId, cueId, unitId).then(
      (fixes) => done({ fixes, trouble: null }),
      (error: unknown) => done({ fixes: [], trouble: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      stands = false;
    };
  }, [wanted, show, of, songId, cueId, unitId]);
  return sought?.show === show && sought.of === of ? sought : null;
}

/**
 * Looks for edits that give a change more room, tries each, and offers those that help: at once where it misses or has
 * less room than it was planned with.
 */
export function RoomPart({ song, verdict }: Props) {
  const show = useShow();
  const unit = indexShow(show).units.get(verdict.unitId);
  const name = unit?.name ?? '';
  const key = `${verdict.cueId}\n${verdict.unitId}`;
  const [pressed, setPressed] = useState<string | null>(null);
  const misses = verdict.outcome !== 'on-time';
  const wanted = misses || pressed === key || roomOf(verdict) < millisToMicros(unit?.margin ?? show.margin);
  const sought = useSearch(show, song, verdict, wanted);
  if (!wanted) {
    return (
      <div>
        <Button onPress={() => setPressed(key)}>Find more room for {name}</Button>
      </div>
    );
  }
  const { fixes, trouble } = sought ?? { fixes: null, trouble: null };
  return (
    <section aria-label={misses ? `Ways for ${name}` : `More room for ${name}`} style={{ display: 'grid', gap: 6 }}>
      <Soft role="status">
        {trouble !== null
          ? `The search broke off: ${trouble}`
          : fixes === null
            ? 'Each way is tried on the simulated rig …'
            : fixes.length === 0
              ? `None of the ways that were tried ${misses ? 'makes it land' : 'gives it more room'}.`
              : `${misses ? 'Ways' : 'More room'} for ${name}, each tried on the simulated rig, the gentlest first.`}
      </Soft>
      {fixes !== null && fixes.length > 0 && (
        <Offers>
          {fixes.map(({ remedy, edit, room }) => (
            <li key={remedy.how}>
              <Button onPress={() => perform(edit, remedyWords(remedy).toLowerCase())}>{remedyWords(remedy)}</Button>
              <span>
                {remedyEffect(remedy)}
                {remedy.how !== 'leave' && `; ${roomAfter(room, misses)}`}
              </span>
            </li>
          ))}
        </Offers>
      )}
    </section>
  );
}

/** From so much on, nothing near makes a change miss. */
const ENDLESS = 1_000_000;

const roomAfter = (room: number, misses: boolean): string =>
  room > ENDLESS
    ? 'then nothing near makes it miss'
    : `then it ${misses ? 'lands, and ' : ''}bears ${marginMillis(room)}`;
