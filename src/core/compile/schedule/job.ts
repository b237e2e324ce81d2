import type { Micros } from '../../time';

/** One message that a port has to send, with everything that bears on when. */
export interface Job {
  /** How long it keeps the cable busy. */
  readonly duration: Micros;
  /** When its last byte should be there at the latest. */
  readonly deadline: Micros;
  /** Before this its first byte may not leave. */
  readonly release: Micros;
  /** Index of the message to the same unit that must come first; -1 for none. */
  readonly after: number;
  /** Least time from the end of that message to the end of this one. */
  readonly gap: Micros;
}

/** What a schedule costs, in the order in which it matters. */
export interface Cost {
  readonly maxLate: Micros;
  readonly totalLate: Micros;
  readonly totalEarly: Micros;
}

export const FREE: Cost = { maxLate: 0, totalLate: 0, totalEarly: 0 };

/** Differences below a nanosecond are rounding. */
const GRAIN = 1e-3;

/** Negative when `a` is better: smallest maximum lateness, then total lateness, then total earliness. */
export function compareCost(a: Cost, b: Cost): number {
  if (Math.abs(a.maxLate - b.maxLate) > GRAIN) return a.maxLate - b.maxLate;
  if (Math.abs(a.totalLate - b.totalLate) > GRAIN) return a.totalLate - b.totalLate;
  if (Math.abs(a.totalEarly - b.totalEarly) > GRAIN) return a.totalEarly - b.totalEarly;
  return 0;
}
