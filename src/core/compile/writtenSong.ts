import { contextOf, moments, StateFold } from '../meaning';
import type { Bytes } from '../midi';
import type { Show, Song } from '../show';
import type { Ticks } from '../time';
import { expandMoment } from './expand';

export interface WrittenMessage {
  readonly at: Ticks;
  readonly unitId: string;
  readonly bytes: Bytes;
}

/** Everything that a song says, on its beat and without shifts, also what changes nothing; in the order of the places. */
export function writtenSong(show: Show, song: Song): WrittenMessage[] {
  const context = contextOf(show);
  const fold = new StateFold(context.units);
  const messages: WrittenMessage[] = [];
  for (const cue of moments(show, song).toSorted((a, b) => a.at - b.at)) {
    for (const { unit, sends } of expandMoment(show, context, fold, cue, 'everything')) {
      if (!context.paths.has(unit.id)) continue;
      for (const { bytes } of sends) messages.push({ at: cue.at, unitId: unit.id, bytes });
    }
  }
  return messages;
}
