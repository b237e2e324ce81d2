import { STOP } from '../clock';
import type { RigState } from '../rig';
import type { Bytes, TimedBytes } from '../midi';
import { microsAt, songTime, type Show, type Song } from '../show';
import { moments } from '../meaning';
import type { Micros, Ticks } from '../time';
import { catchUp, stateAt } from './catchUp';
import { continueClock, runningClocks } from './clock';
import { compileSong, type CompiledSong } from './compileSong';

/** What comes round in a loop. Times are those of the song. */
export interface Round {
  /** All of a round in the order of time. What brings the rig back to where the stretch begins leaves before `from`: at the end of the round before. */
  readonly events: readonly TimedBytes[];
  readonly from: Micros;
  readonly to: Micros;
  /** Units that are not back when a round begins, however early they are sent for: the latest first. */
  readonly seam: readonly SeamLate[];
}

/** A unit that a loop's seam cannot bring back in time. */
export interface SeamLate {
  readonly unitId: string;
  /** From the start of the round until it is as the song has it there. */
  readonly late: Micros;
}

/** What to send to play a song from a place on, in the order of time. */
export interface PlayLine {
  readonly events: readonly TimedBytes[];
  /** Song time at which playing begins: before the place where something has to leave before it. */
  readonly start: Micros;
  /** The place itself. */
  readonly place: Micros;
  readonly end: Micros;
  /** What has to leave when playing is broken off. */
  readonly atStop: readonly { readonly portId: string; readonly bytes: Bytes }[];
  /** What comes round, without end, once its end is reached; absent where the song goes on to its own. */
  readonly round?: Round;
}

/** What makes units that follow a song's clocks go on from a place. */
export const clocksGoOn = (show: Show, song: Song, at: Ticks): TimedBytes[] =>
  runningClocks(show, song).flatMap(({ id, port }) => continueClock(song, id, port.id, port.cable, at));

/** What has to leave when a song is broken off. */
export const stopsOf = (show: Show, song: Song): PlayLine['atStop'] =>
  runningClocks(show, song).map(({ port }) => ({ portId: port.id, bytes: STOP }));

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
  /** What has to be heard before the place: a count-in, an announcement. */
  lead: Micros = 0,
): PlayLine {
  const time = songTime(song);
  const place = microsAt(time, at);
  // What is past at the place: cues as a whole, of sweeps and taps the part that has gone by.
  const passed = new Set<string>();
  const begun = new Set<string>();
  if (at > 0) {
    for (const moment of moments(show, song)) {
      if (moment.due <= place + 1) {
        passed.add(moment.id);
        begun.add(moment.id);
      } else passed.delete(moment.id);
    }
  }
  const goOn = at > 0 ? clocksGoOn(show, song, at) : [];
  // A clock goes on with its "continue"; what of it leaves before is the past.
  const goesOn = new Map(goOn.map((e) => [e.cueId, e.at]));
  const isPast = ({ cueId, at: leaves }: TimedBytes): boolean =>
    passed.has(cueId) || (begun.has(cueId) && leaves < place) || leaves < (goesOn.get(cueId) ?? leaves);
  const ahead = compiled.events.filter((e) => !isPast(e));
  const rest = goOn.length === 0 ? ahead : [...goOn, ...ahead].sort((a, b) => a.at - b.at);
  const atStop = stopsOf(show, song);
  const first = Math.min(place, rest[0]?.at ?? place);
  if (at <= 0) return { events: rest, start: Math.min(first, MIN_START, -lead), place, end: compiled.end, atStop };
  const { events, length } = catchUp(show, known, stateAt(show, song, at));
  const start = Math.min(first - length, place - lead);
  const before = events.map((e) => ({ ...e, at: e.at + start }));
  return { events: [...before, ...rest], start, place, end: compiled.end, atStop };
}
