import type { Bytes } from '../midi';
import type { Micros, Ticks } from '../time';
import { CLOCK_TICKS, CLOCKS_PER_QUARTER, clockMessage } from './clockMessages';

/** A clock that arrived: its number since some start, and when. Numbers of clocks that were lost are missing. */
export interface ClockMark {
  readonly n: number;
  readonly at: Micros;
}

/** A clock from outside that is followed. Plain data; `hearClock` makes the next. */
export interface FollowedClock {
  readonly running: boolean;
  /** Number of the clock that came last, from the start of the song; of one that stands, one before that which comes next. */
  readonly count: number;
  /** The last clocks, the newest last: as many as are of one tempo, four beats at most. */
  readonly marks: readonly ClockMark[];
  /** How many clocks were taken for lost behind each of the last gaps, all as long: three in a row are another tempo. */
  readonly lost: readonly number[];
  /** The last message was taken for a clock too many. What comes next tells whether it was one. */
  readonly isDoubled: boolean;
  /** Lengths of the last beats, and when the last of them began. */
  readonly beats: readonly Micros[];
  readonly beatAt: Micros | null;
  /** When anything of it came last. */
  readonly heard: Micros;
}

export const NO_CLOCK: FollowedClock = {
  running: false,
  count: -1,
  marks: [],
  lost: [],
  isDoubled: false,
  beats: [],
  beatAt: null,
  heard: Number.NEGATIVE_INFINITY,
};

/** A beat of clocks: follows a tempo that changes. */
const SHORT = CLOCKS_PER_QUARTER;
/** Four beats of clocks: shakes less where the tempo stays, half as much. */
const LONG = 4 * CLOCKS_PER_QUARTER;
/** So many in a row on the same side are no jitter but another tempo. */
const RUN = 6;
/** So many clocks ahead of them tell what is jitter. */
const KNOWN = 12;
/** What cables, ports and browsers shake a clock by. */
const SHAKE: Micros = 1200;
/** How far off a run of clocks has to be to mean another tempo, in deviations of what was before. */
const SURE = 2.4;
/** Where both windows differ by no more than so many deviations, the tempo has stayed: the long one counts. */
const ALIKE = 4.5;
/** The deviation is no less than this: a clock that shakes by nothing is followed at once. */
const FINE: Micros = 100;
/** Nearer than this share of a period behind the last, a clock is one too many. */
const TOO_MANY = 0.15;
/** Gaps of up to so many periods, each as near as this to a whole number, have lost clocks in them. */
const LOST_GAP = 4;
const NEAR_WHOLE = 0.4;
/** What is within so many deviations may be jitter: then nothing is taken for lost or doubled. */
const JITTER = 4.5;
/** A jump is that near to a whole number of periods, and grows by less than this share of one along its run. */
const SURE_JUMP = 0.25;
const NO_TREND = 0.4;
/** So many gaps of one length in a row are a tempo, and no lost clocks. */
const TEMPO_GAPS = 3;
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
  const last = was.marks.at(-1);
  // After a silence, or out of order, what was known of its tempo is nothing any more.
  if (last === undefined || at - last.at > LONGEST || at <= last.at) {
    return {
      ...was,
      count: further(was, 1),
      heard: at,
      marks: [{ n: 0, at }],
      lost: [],
      isDoubled: false,
      beats: [],
      beatAt: null,
    };
  }
  const steps = stepsTo(was, at);
  // One too many: it moves nothing.
  if (steps === 0) return { ...was, heard: at, isDoubled: true };
  const lost = steps === 1 ? [] : [...was.lost.filter((l) => l === steps - 1), steps - 1];
  if (lost.length === TEMPO_GAPS) {
    // None of them was lost: the tempo is slower.
    const taken = was.marks.slice(1 - TEMPO_GAPS).map((m) => m.at);
    const marks = [...taken, at].map((when, n) => ({ n, at: when }));
    const behind = (TEMPO_GAPS - 1) * (steps - 1);
    return arrivedAt({ ...was, count: further(was, -behind) }, marks, 1, []);
  }
  const all = [...was.marks, { n: last.n + steps, at }].slice(-LONG);
  // A few clocks may not be sure yet; twice as many are, before the line has gone along with them.
  for (const run of [RUN, 2 * RUN]) {
    const jump = jumpOf(all, run);
    if (jump === 0) continue;
    const moved = all.map((m, i) => (i < all.length - run ? m : { n: m.n + jump, at: m.at }));
    return arrivedAt(was, moved, steps + jump, []);
  }
  return arrivedAt(was, isOtherTempo(all) ? all.slice(-RUN) : all, steps, lost);
}

const further = ({ running, count }: FollowedClock, by: number): number => (running ? count + by : count);

/** A clock that counts, `steps` further than the one before. */
function arrivedAt(
  was: FollowedClock,
  marks: readonly ClockMark[],
  steps: number,
  lost: FollowedClock['lost'],
): FollowedClock {
  const count = further(was, steps);
  const { at } = marks.at(-1)!;
  const beat = was.running && Math.floor(count / BEAT) > Math.floor(was.count / BEAT);
  // A beat whose clock was lost begins that much earlier.
  const beatAt = beat ? at - ((count % BEAT) * (at - marks.at(-2)!.at)) / steps : null;
  return {
    ...was,
    count,
    heard: at,
    marks,
    lost,
    isDoubled: false,
    beats: beatAt !== null && was.beatAt !== null ? [...was.beats, beatAt - was.beatAt].slice(-BEATS) : was.beats,
    beatAt: beatAt ?? was.beatAt,
  };
}

/**
 * By how many a clock at a time counts, by the tempo of those before it: 0 for one too many, more than 1 behind lost
 * ones. What may be jitter counts 1; where that was wrong, `jumpOf` finds it a few clocks later.
 */
function stepsTo({ marks, isDoubled }: FollowedClock, at: Micros): number {
  if (marks.length < KNOWN) return 1;
  const { last, period } = lineOf(marks.slice(-SHORT));
  const jitter = JITTER * lineOf(marks).deviation;
  const behind = at - marks.at(-1)!.at;
  if (behind < TOO_MANY * period && period - behind > jitter) return 0;
  const gap = at - last;
  const whole = Math.round(gap / period);
  const isLost =
    (isDoubled || gap - period > jitter) && Math.abs(gap / period - whole) < NEAR_WHOLE && whole <= LOST_GAP;
  return isLost ? Math.max(1, whole) : 1;
}

/**
 * By how many clocks the last `run` lie beside the line of those before them, at the same tempo: a lost or doubled
 * clock that was not known at once. 0 where they do not.
 */
function jumpOf(marks: readonly ClockMark[], run: number): number {
  if (marks.length < SHORT + run) return 0;
  const line = lineOf(marks.slice(0, -run));
  const off = marks.slice(-run).map(({ n, at }) => (at - line.at(n)) / line.period);
  const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
  const mean = meanOf(off);
  const jump = Math.round(mean);
  const trend = meanOf(off.slice(run / 2)) - meanOf(off.slice(0, run / 2));
  const isSure = Math.abs(mean - jump) < SURE_JUMP && Math.abs(trend) < NO_TREND;
  return Math.abs(jump) < LOST_GAP && isSure ? jump : 0;
}

/** Whether the last clocks are of another tempo than those before them. */
function isOtherTempo(marks: readonly ClockMark[]): boolean {
  if (marks.length < KNOWN + RUN) return false;
  const known = marks.slice(0, -RUN).slice(-2 * SHORT);
  const line = lineOf(known);
  const off = marks.slice(-RUN).map(({ n, at }) => at - line.at(n));
  const mean = off.reduce((a, b) => a + b, 0) / RUN;
  const isRun = off.every((e) => e * mean > 0);
  return isRun && Math.abs(mean) > Math.max(SHAKE, SURE * line.deviation);
}

interface ClockLine {
  /** When the last clock was, along the line. */
  readonly last: Micros;
  readonly period: Micros;
  /** How far clocks lie from the line, as a standard deviation. */
  readonly deviation: Micros;
  readonly at: (n: number) => Micros;
}

/** The straight line through at least two clocks that should be evenly apart: least squares. */
function lineOf(marks: readonly ClockMark[]): ClockLine {
  const count = marks.length;
  const first = marks[0]!;
  let sumN = 0;
  let sumT = 0;
  for (const { n, at } of marks) {
    sumN += n - first.n;
    sumT += at - first.at;
  }
  const [middleN, middleT] = [sumN / count, sumT / count];
  let across = 0;
  let along = 0;
  for (const { n, at } of marks) {
    const d = n - first.n - middleN;
    across += d * (at - first.at);
    along += d * d;
  }
  const period = across / along;
  const at = (n: number): Micros => first.at + middleT + (n - first.n - middleN) * period;
  const squares = marks.reduce((sum, m) => sum + (m.at - at(m.n)) ** 2, 0);
  return { last: at(marks.at(-1)!.n), period, deviation: Math.sqrt(squares / Math.max(1, count - 2)), at };
}

/** The line that a clock is followed by: through four beats where its tempo has stayed, else through the last one. */
function followedLine(marks: readonly ClockMark[]): ClockLine {
  const short = lineOf(marks.slice(-SHORT));
  if (marks.length <= SHORT) return short;
  const long = lineOf(marks);
  const doubt = Math.max(FINE, short.deviation) * Math.sqrt(4 / SHORT);
  return Math.abs(long.last - short.last) <= ALIKE * doubt ? long : short;
}

/** Where a followed clock is: at a tick at a clock time. */
export interface ClockPlace {
  readonly tick: Ticks;
  readonly at: Micros;
  /** Quarter notes a minute, smoothed; null until two clocks have come. */
  readonly bpm: number | null;
}

/** Where a clock is, along its smoothed tempo where it has one; null before anything of it came. */
export function placeOf({ marks, count, heard }: FollowedClock): ClockPlace | null {
  if (heard === Number.NEGATIVE_INFINITY) return null;
  const tick = count * CLOCK_TICKS;
  if (marks.length < 2) return { tick, at: marks[0]?.at ?? heard, bpm: null };
  const { last, period } = followedLine(marks);
  return { tick, at: last, bpm: periodToBpm(Math.min(LONGEST, Math.max(SHORTEST, period))) };
}

const periodToBpm = (period: Micros): number => 60e6 / (period * CLOCKS_PER_QUARTER);

/** Microseconds from one clock to the next at so many quarter notes a minute. */
export const periodAt = (bpm: number): Micros => 60e6 / (bpm * CLOCKS_PER_QUARTER);

/**
 * By how much it wobbles, in microseconds: how far its beats lie to and fro about the beats around them; 0 where none
 * lies off by more than `least`. A tempo that changes one way, at once or by and by, is no wobble.
 */
export function wobble({ beats }: FollowedClock, least: Micros): Micros {
  let turns = 0;
  let widest = 0;
  for (let i = 1; i < beats.length - 1; i++) {
    const [before, here, behind] = [beats[i - 1]!, beats[i]!, beats[i + 1]!];
    const to = here - before;
    const fro = behind - here;
    if (to * fro >= 0) continue;
    const off = Math.min(Math.abs(to), Math.abs(fro));
    if (off > least) turns += 1;
    widest = Math.max(widest, off);
  }
  return turns >= 2 ? widest : 0;
}

/** A clock that has not been heard for so long while it ran has stopped without a word. */
export const SILENT: Micros = 500_000;

/** Whether a clock that ran has fallen silent by a time. */
export const silent = ({ running, heard }: FollowedClock, now: Micros): boolean => running && now - heard > SILENT;
