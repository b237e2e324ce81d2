import { useState } from 'react';
import styled from 'styled-components';
import type { RoomFix } from '../../core/checks';
import { indexShow, type Show, type Song } from '../../core/show';
import type { Verdict } from '../../core/simulate';
import { marginMillis, remedyWords } from '../../wording';
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

/** What was asked, of which show, and what came of it; null while it is worked out. */
interface Asked {
  readonly show: Show;
  readonly of: string;
  readonly fixes: readonly RoomFix[] | null;
  readonly trouble: string | null;
}

/** Looks for edits that give a change more room, tries each, and offers those that help. */
export function RoomPart({ song, verdict }: Props) {
  const show = useShow();
  const [asked, setAsked] = useState<Asked | null>(null);
  const { cueId, unitId } = verdict;
  const name = indexShow(show).units.get(unitId)?.name ?? '';
  const of = `${song.id}\n${cueId}\n${unitId}`;
  const current = asked?.show === show && asked.of === of ? asked : null;
  const misses = verdict.outcome !== 'on-time';
  const look = async (): Promise<void> => {
    const about = { show, of, fixes: null, trouble: null };
    setAsked(about);
    const done = (found: Partial<Asked>): void =>
      setAsked((now) => (now === about ? { ...about, fixes: [], ...found } : now));
    try {
      done({ fixes: await findRoom(song.id, cueId, unitId) });
    } catch (error) {
      done({ trouble: error instanceof Error ? error.message : String(error) });
    }
  };
  if (!current) {
    return (
      <div>
        <Button onPress={() => void look()}>{misses ? `Find room for ${name}` : `Find more room for ${name}`}</Button>
      </div>
    );
  }
  const { fixes, trouble } = current;
  return (
    <section aria-label={`More room for ${name}`} style={{ display: 'grid', gap: 6 }}>
      <Soft role="status">
        {trouble !== null
          ? `The search broke off: ${trouble}`
          : fixes === null
            ? 'Each way is tried on the simulated rig …'
            : fixes.length === 0
              ? 'None of the ways that were tried gives it more room.'
              : 'Each was tried on the simulated rig; the gentlest stands first.'}
      </Soft>
      {fixes !== null && fixes.length > 0 && (
        <Offers>
          {fixes.map(({ remedy, edit, room }) => (
            <li key={remedy.how}>
              <Button onPress={() => perform(edit, remedyWords(remedy).toLowerCase())}>{remedyWords(remedy)}</Button>
              <span>{roomAfter(room, misses)}</span>
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
