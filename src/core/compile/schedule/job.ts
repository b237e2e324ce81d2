import type { Micros } from '../../time';

/** One message that a port has to send, with everything that bears on when. All times are in microseconds. */
export interface Job {
  /** How long it keeps the cable busy. */
  readonly duration: Micros;
  /** When its last byte should be there at the latest. */
  readonly deadline: Micros;
  /** How much sooner than its deadline it should be there, where there is room. */
  readonly margin: Micros;
  /** Before this its first byte may not leave. */
  readonly release: Micros;
  /** Index of the message to the same unit that must come first; -1 for none. */
  readonly after: number;
  /** Least time from the end of that message to the end of this one. */
  readonly gap: Micros;
  /** How much longer than the gap that time should be, where there is room. */
  readonly guard: Micros;
  /** Further messages that must come first: those that relay to the unit by way of another; null for none. */
  readonly also: readonly Wait[] | null;
}

/** Another message that has to come first, and the least time from its end to the end of the one that waits. */
export interface Wait {
  readonly on: number;
  readonly gap: Micros;
  /** How much longer that time should be, where there is room. */
  readonly guard: Micros;
}

/** What must come before a job ends, by the ends of those that it waits for. Guards are given up by `less`. */
export function readyAt(job: Job, ends: ArrayLike<Micros>, less: Micros = Number.POSITIVE_INFINITY): Micros {
  let ready = job.after >= 0 ? ends[job.after]! + job.gap + kept(job.guard, less) : Number.NEGATIVE_INFINITY;
  if (job.also) {
    for (const { on, gap, guard } of job.also) ready = Math.max(ready, ends[on]! + gap + kept(guard, less));
  }
  return ready;
}

/** What is left of a margin or a guard of which `less` is given up. */
export const kept = (of: Micros, less: Micros): Micros => (of > less ? of - less : 0);

/** When a job should end: its margin before its deadline. */
export const wantedEnd = ({ deadline, margin }: Job): Micros => deadline - margin;

/** Whether everything that a job waits for is placed. */
export function mayPlace(job: Job, placed: ArrayLike<number>): boolean {
  if (job.after >= 0 && !placed[job.after]) return false;
  return job.also === null || job.also.every(({ on }) => placed[on]);
}

/** Everything that a job waits for. */
export const waitsOf = ({ after, gap, guard, also }: Job): readonly Wait[] =>
  after < 0 ? (also ?? []) : [{ on: after, gap, guard }, ...(also ?? [])];

/** The most that a job keeps others waiting or waits itself, on the cable or for its unit. */
export function workOf({ duration, gap, guard, also }: Job): Micros {
  let work = Math.max(duration, gap + guard);
  if (also) for (const wait of also) work = Math.max(work, wait.gap + wait.guard);
  return work;
}

/** Whether a message may only leave after another, given by its place in the list of jobs. */
export const waitsFor = (job: Job, other: number): boolean =>
  job.after === other || (job.also !== null && job.also.some((w) => w.on === other));

/** What a schedule costs, in the order in which it matters. */
export interface Cost {
  readonly maxLate: Micros;
  readonly totalLate: Micros;
  /** What is missing of a margin or a guard, at the most. */
  readonly maxShort: Micros;
  /** What is missing of all of them. */
  readonly totalShort: Micros;
  /** How much sooner than their margins ask messages end. */
  readonly totalEarly: Micros;
}

export const FREE: Cost = { maxLate: 0, totalLate: 0, maxShort: 0, totalShort: 0, totalEarly: 0 };

/** Differences below a nanosecond are rounding. */
export const GRAIN = 1e-3;

/**
 * Negative when `a` is better: smallest maximum lateness, then total lateness, then the largest shortfall of margin and
 * guard, then all of it, then total earliness (docs/architecture.md, from a cue to a verdict).
 */
export function compareCost(a: Cost, b: Cost): number {
  const late = compareLate(a, b);
  if (late !== 0) return late;
  if (Math.abs(a.maxShort - b.maxShort) > GRAIN) return a.maxShort - b.maxShort;
  if (Math.abs(a.totalShort - b.totalShort) > GRAIN) return a.totalShort - b.totalShort;
  if (Math.abs(a.totalEarly - b.totalEarly) > GRAIN) return a.totalEarly - b.totalEarly;
  return 0;
}

/** The same, by lateness alone. */
export function compareLate(a: Cost, b: Cost): number {
  if (Math.abs(a.maxLate - b.maxLate) > GRAIN) return a.maxLate - b.maxLate;
  if (Math.abs(a.totalLate - b.totalLate) > GRAIN) return a.totalLate - b.totalLate;
  return 0;
}
