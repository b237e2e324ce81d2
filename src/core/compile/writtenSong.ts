import { contextOf, moments, StateFold, type Moment } from '../meaning';
import type { Bytes } from '../midi';
import { microsAt, songTime, ticksAt, type Show, type Song } from '../show';
import type { Ticks } from '../time';
import { expandMoment } from './expand';

export interface WrittenMessage {
  readonly at: Ticks;
  readonly unitId: string;
  readonly bytes: Bytes;
}

/**
 * Everything that a song says, on its beat, also what changes nothing; in the order of the places. Shifts are left out but
 * for bytes as they stand: those are what another program wrote, at its time.
 */
export function writtenSong(show: Show, song: Song): WrittenMessage[] {
  const context = contextOf(show);
  const fold = new StateFold(context.units);
  const time = songTime(song);
  const placeOf = ({ at, shift, action }: Moment): Ticks =>
    action.kind === 'message' && shift !== 0 ? Math.round(ticksAt(time, microsAt(time, at) + shift * 1000)) : at;
  const messages: WrittenMessage[] = [];
  for (const cue of moments(show, song).toSorted((a, b) => a.at - b.at)) {
    for (const { unit, sends } of expandMoment(show, context, fold, cue, 'everything')) {
      if (!context.paths.has(unit.id)) continue;
      for (const { bytes } of sends) messages.push({ at: placeOf(cue), unitId: unit.id, bytes });
    }
  }
  return messages.sort((a, b) => a.at - b.at);
}
