import type { Bytes } from '../midi';
import { moments } from '../meaning';
import type { Show, Song } from '../show';
import type { Ticks } from '../time';
import { contextOf, expandCue } from './compileSong';
import { StateFold } from './expand';

export interface WrittenMessage {
  readonly at: Ticks;
  readonly unitId: string;
  readonly bytes: Bytes;
}

/** Everything that a song says, on its beat, also what changes nothing; in the order of the cues. */
export function writtenSong(show: Show, song: Song): WrittenMessage[] {
  const context = contextOf(show);
  const fold = new StateFold(context.units);
  const messages: WrittenMessage[] = [];
  for (const cue of moments(show, song)) {
    for (const { unit, steps } of expandCue(show, context, fold, cue, 'everything')) {
      if (!context.paths.has(unit.id)) continue;
      for (const { bytes } of steps) messages.push({ at: cue.at, unitId: unit.id, bytes });
    }
  }
  return messages;
}
