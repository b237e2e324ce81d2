import type { Micros } from '../../time';
import { GRAIN, kept, wantedEnd, type Job } from './job';

/** "The end of `to` should be at least `least` after the end of `from`", and what each microsecond less costs. */
interface Arc {
  readonly from: number;
  readonly to: number;
  readonly least: Micros;
  readonly price: number;
  /** What of the price is paid: the flow along the arc in the dual problem. */
  paid: number;
}

/**
 * Of all times of an order that are no later than its earliest ends and short of no margin or guard by more than
 * `most`, those with the smallest total shortfall, and among them those with the smallest earliness.
 *
 * A linear program whose conditions are differences of two ends: its dual is a circulation of the greatest weight. So
 * cycles of positive weight are filled until there is none (Klein's method); the longest ways from the origin are the
 * ends (Ahuja, Magnanti, Orlin: Network Flows, 9.6 and 9.12). A microsecond of shortfall costs more than one of
 * earliness of every message together, which makes the order of the two exact.
 */
export function giveUpLeast(
  jobs: readonly Job[],
  order: readonly number[],
  earliest: Float64Array,
  most: Micros,
): Float64Array {
  const arcs = arcsOf(jobs, order, earliest, most);
  const origin = order.length;
  while (fillCycle(arcs, origin + 1));
  const way = longestWays(arcs, origin);
  const ends = new Float64Array(jobs.length);
  for (const [k, i] of order.entries()) ends[i] = way[k]!;
  return ends;
}

/** The conditions, between places in the order; the origin is the time 0. */
function arcsOf(jobs: readonly Job[], order: readonly number[], earliest: Float64Array, most: Micros): Arc[] {
  const origin = order.length;
  const dear = origin + 1;
  const arcs: Arc[] = [];
  const place = new Map(order.map((i, k) => [i, k]));
  const add = (from: number, to: number, least: Micros, price = Number.POSITIVE_INFINITY): void =>
    void arcs.push({ from, to, least, price, paid: 0 });
  for (const [k, i] of order.entries()) {
    const job = jobs[i]!;
    const wanted = wantedEnd(job);
    add(origin, k, earliest[i]!);
    if (earliest[i]! > job.deadline) add(k, origin, -earliest[i]!);
    else {
      add(k, origin, -(wanted + Math.min(most, job.margin)) - GRAIN / 4);
      if (job.margin > 0) add(k, origin, -wanted, dear);
      add(origin, k, wanted, 1);
    }
    if (k + 1 < origin) add(k, k + 1, jobs[order[k + 1]!]!.duration);
    const wait = (on: number, gap: Micros, guard: Micros): void => {
      const from = place.get(on)!;
      add(from, k, gap + kept(guard, most) - GRAIN / 4);
      if (guard > 0) add(from, k, gap + guard, dear);
    };
    if (job.after >= 0) wait(job.after, job.gap, job.guard);
    if (job.also) for (const { on, gap, guard } of job.also) wait(on, gap, guard);
  }
  return arcs;
}

/** Fills one cycle of positive weight; false where there is none. */
function fillCycle(arcs: readonly Arc[], size: number): boolean {
  const way = new Float64Array(size);
  /** The arc by which each place was reached last; below zero where it was walked backwards. */
  const by = new Int32Array(size);
  let last = -1;
  for (let round = 0; round <= size; round++) {
    last = -1;
    for (const [n, { from, to, least, price, paid }] of arcs.entries()) {
      if (paid < price && way[from]! + least > way[to]! + GRAIN / 1000) {
        way[to] = way[from]! + least;
        by[to] = n + 1;
        last = to;
      }
      if (paid > 0 && way[to]! - least > way[from]! + GRAIN / 1000) {
        way[from] = way[to]! - least;
        by[from] = -(n + 1);
        last = from;
      }
    }
    if (last < 0) return false;
  }
  const before = (at: number): number => (by[at]! > 0 ? arcs[by[at]! - 1]!.from : arcs[-by[at]! - 1]!.to);
  // As many steps back as there are places end within the cycle.
  for (let n = 0; n < size; n++) last = before(last);
  let room = Number.POSITIVE_INFINITY;
  let weight = 0;
  walk(last, (arc, forward) => {
    room = Math.min(room, forward ? arc.price - arc.paid : arc.paid);
    weight += forward ? arc.least : -arc.least;
  });
  // Conditions that must hold and do not leave room for each other by rounding alone.
  if (room === Number.POSITIVE_INFINITY || weight <= GRAIN / 10000) return false;
  walk(last, (arc, forward) => void (arc.paid += forward ? room : -room));
  return true;

  function walk(start: number, visit: (arc: Arc, forward: boolean) => void): void {
    let at = start;
    do {
      const forward = by[at]! > 0;
      visit(arcs[Math.abs(by[at]!) - 1]!, forward);
      at = before(at);
    } while (at !== start);
  }
}

/** The longest ways from the origin along what can still be paid for. */
function longestWays(arcs: readonly Arc[], origin: number): Float64Array {
  const way = new Float64Array(origin + 1).fill(Number.NEGATIVE_INFINITY);
  way[origin] = 0;
  for (let round = 0; round <= origin; round++) {
    let moved = false;
    for (const { from, to, least, price, paid } of arcs) {
      if (paid < price && way[from]! + least > way[to]! + GRAIN / 1000) {
        way[to] = way[from]! + least;
        moved = true;
      }
      if (paid > 0 && way[to]! - least > way[from]! + GRAIN / 1000) {
        way[from] = way[to]! - least;
        moved = true;
      }
    }
    if (!moved) break;
  }
  return way;
}
