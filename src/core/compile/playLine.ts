import type { RigState } from '../addressing';
import type { TimedBytes } from '../midi';
import { moments, microsAt, songTime, type Show, type Song } from '../show';
import { millisToMicros, type Micros, type Ticks } from '../time';
import { catchUp, stateAt } from './catchUp';
import { compileSong, type CompiledSong } from './compileSong';

/** What to send to play a song from a place on, in the order of time. */
export interface PlayLine {
  readonly events: readonly TimedBytes[];
  /** Song time at which playing begins: before the place where something has to leave before it. */
  readonly start: Micros;
  /** The place itself. */
  readonly place: Micros;
  readonly end: Micros;
}

/** Longest silence in front of a song's first message when it is played from its start. */
const MIN_START: Micros = -100_000;

/**
 * A song from a place on: first what brings the rig there from the state that it is known
 * to be in, then all that belongs to later cues, each at its own time.
 */
export function playLine(
  show: Show,
  song: Song,
  at: Ticks,
  known: RigState,
  compiled: CompiledSong = compileSong(show, song),
): PlayLine {
  const time = songTime(song);
  const place = microsAt(time, at);
  // What is past at the place: cues as a whole, of sweeps and taps the part that has gone by.
  const passed = new Set<string>();
  const begun = new Set<string>();
  if (at > 0) {
    for (const moment of moments(show, song)) {
      if (microsAt(time, moment.at) + millisToMicros(moment.shift) <= place + 1) {
        passed.add(moment.id);
        begun.add(moment.id);
      } else passed.delete(moment.id);
    }
  }
  const rest = compiled.events.filter((e) => !passed.has(e.cueId) && !(begun.has(e.cueId) && e.at < place));
  const first = Math.min(place, rest[0]?.at ?? place);
  if (at <= 0) return { events: rest, start: Math.min(first, MIN_START), place, end: compiled.end };
  const { events, length } = catchUp(show, known, stateAt(show, song, at));
  const start = first - length;
  const before = events.map((e) => ({ ...e, at: e.at + start }));
  return { events: [...before, ...rest], start, place, end: compiled.end };
}
