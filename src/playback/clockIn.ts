import type { Bytes } from '../core/midi';
import type { Micros } from '../core/time';

/** MIDI 1.0, system real-time and song position. */
const CLOCK = 0xf8;
const START = 0xfa;
const CONTINUE = 0xfb;
const STOP = 0xfc;
const POSITION = 0xf2;
/** A unit of song position is a sixteenth: six clocks. */
const CLOCKS_A_POSITION = 6;
/** Ticks between clocks, 24 a quarter. */
export const CLOCK_TICKS = 40;

/** A clock that comes from outside. Plain data; `hearClock` makes the next. */
export interface ClockIn {
  readonly running: boolean;
  /** Number of the clock that came last, from the start of the song; of one that stands, one before that which comes next. */
  readonly clock: number;
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

export const NO_CLOCK: ClockIn = {
  running: false,
  clock: -1,
  times: [],
  off: [],
  beats: [],
  beatAt: null,
  heard: Number.NEGATIVE_INFINITY,
};

/** What a message of it asks for. */
export type ClockWord = 'start' | 'continue' | 'stop' | 'clock';

/** A beat of clocks: more would follow a tempo that changes too slowly, fewer would shake. */
const WINDOW = 24;
/** So many in a row on the same side are no jitter but another tempo. */
const RUN = 6;
/** What cables, ports and browsers shake a clock by. */
const SHAKE: Micros = 1200;
const BEAT = 24;
const BEATS = 8;
/** Tempos that are followed lie between 20 and 400 quarters a minute: clocks come this far apart. */
const LONGEST: Micros = 125_000;
const SHORTEST: Micros = 6250;

/** Whether a message is one of a clock, and the clock when it has been heard. Null for any other message. */
export function hearClock(
  was: ClockIn,
  at: Micros,
  bytes: Bytes,
): { readonly clock: ClockIn; readonly word: ClockWord | null } | null {
  const [status, low = 0, high = 0] = bytes;
  switch (status) {
    case POSITION:
      return { clock: { ...was, heard: at, clock: (low + high * 128) * CLOCKS_A_POSITION - 1 }, word: null };
    case START:
      return { clock: { ...fresh(was, at), running: true, clock: -1 }, word: 'start' };
    case CONTINUE:
      return { clock: { ...fresh(was, at), running: true }, word: 'continue' };
    case STOP:
      return { clock: { ...was, heard: at, running: false }, word: 'stop' };
    case CLOCK:
      return { clock: ticked(was, at), word: 'clock' };
    default:
      return null;
  }
}

/** Where it goes on is new; how fast it goes stays known. */
const fresh = (was: ClockIn, at: Micros): ClockIn => ({ ...was, heard: at, beats: [], beatAt: null });

function ticked(was: ClockIn, at: Micros): ClockIn {
  const clock = was.running ? was.clock + 1 : was.clock;
  const last = was.times.at(-1);
  // After a silence, or out of order, what was known of its tempo is nothing any more.
  if (last === undefined || at - last > LONGEST || at <= last) {
    return { ...was, clock, heard: at, times: [at], off: [], beats: [], beatAt: null };
  }
  const expected = was.times.length > 1 ? lineOf(was.times).next : at;
  const off = [...was.off, at - expected].slice(-RUN);
  const all = [...was.times, at].slice(-WINDOW);
  const other = off.length === RUN && (off.every((e) => e > 0) || off.every((e) => e < 0)) && mean(off) > SHAKE;
  const beat = was.running && clock % BEAT === 0;
  return {
    ...was,
    clock,
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

/** Where the clock is along its smoothed tempo: clock time of a clock number, and from one to the next. */
export interface Smoothed {
  readonly clock: number;
  readonly at: Micros;
  readonly period: Micros;
}

/** Null until its tempo can be told. */
export function smoothed({ times, clock }: ClockIn): Smoothed | null {
  if (times.length < 2) return null;
  const { last, period } = lineOf(times);
  return { clock, at: last, period: Math.min(LONGEST, Math.max(SHORTEST, period)) };
}

/** Quarter notes a minute. */
export const tempoOf = ({ period }: Pick<Smoothed, 'period'>): number => 60e6 / (period * BEAT);

/**
 * How much it wobbles: the share by which its beats lie to and fro about the beats around them. A tempo
 * that changes one way, at once or by and by, is no wobble.
 */
export function wobble({ beats }: ClockIn): number {
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

export const silent = ({ running, heard }: ClockIn, now: Micros): boolean => running && now - heard > SILENT;
