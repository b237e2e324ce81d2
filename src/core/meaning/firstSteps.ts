import type { Show } from '../show';
import { routeTo } from './rigOf';

/** The way from wiring to the first lit lantern, in the order of the work. */
export const FIRST_STEPS = ['wire', 'preset', 'tone', 'song', 'lantern'] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

/**
 * Which of the first steps are done: a unit that a port reaches, a preset with a name, a tone that says something of a
 * unit, a song, and a cue that is proven. `lit` says of a song whether one of its cues is.
 */
export function firstSteps(show: Show, lit: (songId: string) => boolean): ReadonlySet<FirstStep> {
  const done = new Set<FirstStep>();
  if (show.units.some((u) => routeTo(show, u) !== undefined)) done.add('wire');
  if (show.units.some((u) => u.slots.some((s) => s.name !== ''))) done.add('preset');
  if (show.tones.some((t) => t.parts.length > 0)) done.add('tone');
  if (show.songs.length > 0) done.add('song');
  if (show.songs.some((s) => s.cues.length > 0 && lit(s.id))) done.add('lantern');
  return done;
}
