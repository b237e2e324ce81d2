import type { Bytes } from '../midi';
import type { Micros, Ticks } from '../time';
import { CLOCK_TICKS, CLOCKS_PER_QUARTER, clockMessage } from './clockMessages';

/** A clock from outside that is followed. Plain data; `hearClock` makes the next. */
export interface FollowedClock {
  readonly running: boolean;
  /** Number of the clock that came last, from the start of the song; of one that stands, one before that which comes next. */
  readonly count: number;
  /** When the last clocks came, the newest last: as many as are of one tempo, a beat at most. */
  readonly times: readonly Micros[];
  /** How far the last clocks were from where they were expected. */
  readonly off: readonly Micros[];
  /** Lengths of the last beats, and when the last of them began. */
  readonly beats: readonly Micros[];
  readonly beatAt: Micros | null;
  /** When anything of it came last. */
  readonly heard: Micros;
}

export const NO_CLOCK: FollowedClock = {
  running: false,
  count: -1,
  times: [],
  off: [],
  beats: [],
  beatAt: null,
  heard: Number.NEGATIVE_INFINITY,
};

/** A beat of clocks: more would follow a tempo that changes too slowly, fewer would shake. */
const WINDOW = CLOCKS_PER_QUARTER;
/** So many in a row on the same side are no jitter but another tempo. */
const RUN = 6;
/** What cables, ports and browsers shake a clock by. */
const SHAKE: Micros = 1200;
const BEAT = CLOCKS_PER_QUARTER;
const BEATS = 8;
/** Tempos that are followed lie between 20 and 400 quarters a minute: clocks come this far apart. */
const LONGEST: Micros = 125_000;
const SHORTEST: Micros = 6250;

/** The clock after a message that arrived at a time; null for any message that is none of a clock's. */
export function hearClock(was: FollowedClock, at: Micros, bytes: Bytes): FollowedClock | null {
  const message = clockMessage(bytes);
  switch (message?.kind) {
    case 'position':
      return { ...was, heard: at, count: message.tick / CLOCK_TICKS - 1 };
    case 'start':
      return { ...fresh(was, at), running: true, count: -1 };
    case 'continue':
      return { ...fresh(was, at), running: true };
    case 'stop':
      return { ...was, heard: at, running: false };
    case 'clock':
      return ticked(was, at);
    case undefined:
      return null;
  }
}

/** Where it goes on is new; how fast it goes stays known. */
const fresh = (was: FollowedClock, at: Micros): FollowedClock => ({ ...was, heard: at, beats: [], beatAt: null });

function ticked(was: FollowedClock, at: Micros): FollowedClock {
  const count = was.running ? was.count + 1 : was.count;
  const last = was.times.at(-1);
  // After a silence, or out of order, what was known of its tempo is nothing any more.
  if (last === undefined || at - last > LONGEST || at <= last) {
    return { ...was, count, heard: at, times: [at], off: [], beats: [], beatAt: null };
  }
  const expected = was.times.length > 1 ? lineOf(was.times).next : at;
  const off = [...was.off, at - expected].slice(-RUN);
  const all = [...was.times, at].slice(-WINDOW);
  const other = off.length === RUN && (off.every((e) => e > 0) || off.every((e) => e < 0)) && mean(off) > SHAKE;
  const beat = was.running && count % BEAT === 0;
  return {
    ...was,
    count,
    heard: at,
    times: other ? all.slice(-RUN) : all,
    off: other ? [] : off,
    beats: beat && was.beatAt !== null ? [...was.beats, at - was.beatAt].slice(-BEATS) : was.beats,
    beatAt: beat ? at : was.beatAt,
  };
}

const mean = (of: readonly number[]): number => Math.abs(of.reduce((a, b) => a + b, 0)) / of.length;

/** The straight line through times that should be evenly apart: where it is at the last, its slope, and where the next would be. */
function lineOf(times: readonly Micros[]): { readonly last: Micros; readonly period: Micros; readonly next: Micros } {
  const n = times.length;
  const first = times[0]!;
  let sum = 0;
  let weighted = 0;
  for (const [i, t] of times.entries()) {
    sum += t - first;
    weighted += (t - first) * i;
  }
  const middle = (n - 1) / 2;
  const period = (weighted - middle * sum) / ((n * (n * n - 1)) / 12);
  const last = first + sum / n + middle * period;
  return { last, period, next: last + period };
}

/** Where a followed clock is: at a tick at a clock time. */
export interface ClockPlace {
  readonly tick: Ticks;
  readonly at: Micros;
  /** Quarter notes a minute, smoothed over the last beat; null until two clocks have come. */
  readonly bpm: number | null;
}

/** Where a clock is, along its smoothed tempo where it has one; null before anything of it came. */
export function placeOf({ times, count, heard }: FollowedClock): ClockPlace | null {
  if (heard === Number.NEGATIVE_INFINITY) return null;
  const tick = count * CLOCK_TICKS;
  if (times.length < 2) return { tick, at: times[0] ?? heard, bpm: null };
  const { last, period } = lineOf(times);
  return { tick, at: last, bpm: periodToBpm(Math.min(LONGEST, Math.max(SHORTEST, period))) };
}

const periodToBpm = (period: Micros): number => 60e6 / (period * CLOCKS_PER_QUARTER);

/** Microseconds from one clock to the next at so many quarter notes a minute. */
export const periodAt = (bpm: number): Micros => 60e6 / (bpm * CLOCKS_PER_QUARTER);

/**
 * How much it wobbles: the share by which its beats lie to and fro about the beats around them. A tempo
 * that changes one way, at once or by and by, is no wobble.
 */
export function wobble({ beats }: FollowedClock): number {
  let turns = 0;
  let widest = 0;
  for (let i = 1; i < beats.length - 1; i++) {
    const [before, here, behind] = [beats[i - 1]!, beats[i]!, beats[i + 1]!];
    const to = (here - before) / before;
    const fro = (behind - here) / here;
    if (to * fro >= 0) continue;
    const share = Math.min(Math.abs(to), Math.abs(fro));
    if (share > WOBBLE) turns += 1;
    widest = Math.max(widest, share);
  }
  return turns >= 2 ? widest : 0;
}

/** From here on it is said that a clock wobbles. */
export const WOBBLE = 0.01;

/** A clock that has not been heard for so long while it ran has stopped without a word. */
export const SILENT: Micros = 500_000;

/** Whether a clock that ran has fallen silent by a time. */
export const silent = ({ running, heard }: FollowedClock, now: Micros): boolean => running && now - heard > SILENT;
