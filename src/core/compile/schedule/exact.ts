import { FREE, GRAIN, compareCost, mayPlace, readyAt, waitsFor, waitsOf, type Cost, type Job } from './job';
import { twoPasses } from './twoPasses';

/**
 * The best of all orders that keep each unit's messages in theirs, or the best that was found when `visits` places
 * have been looked at. `start` is a first guess. First orders are built from their front, as long as something is
 * late: a branch is left as soon as the messages already placed are later, placed at their earliest, than the best
 * order known. Once an order is known in which nothing is late, only earliness is left to be made smaller, and that
 * is found much sooner from the back.
 */
export function bestOrder(
  jobs: readonly Job[],
  start: readonly number[],
  visits = Number.POSITIVE_INFINITY,
): readonly number[] {
  const best: Best = { order: [...start], cost: twoPasses(jobs, start).cost, visits };
  if (isLate(best.cost)) leastLateFromFront(jobs, start, best);
  if (!isLate(best.cost) && compareCost(best.cost, FREE) > 0) leastEarlyFromBack(jobs, start, best);
  return best.order;
}

/** Mutable: the best order found so far, and how many more places may be looked at. */
interface Best {
  order: readonly number[];
  cost: Cost;
  visits: number;
}

const isLate = (cost: Cost): boolean => compareCost({ ...cost, totalEarly: 0 }, FREE) > 0;

/** Keeps an order if it is better than the best one. */
function offer(jobs: readonly Job[], order: readonly number[], best: Best): void {
  const { cost } = twoPasses(jobs, order);
  if (compareCost(cost, best.cost) >= 0) return;
  best.order = order;
  best.cost = cost;
}

/** Searches all orders from the front, until one is found in which nothing is late. */
function leastLateFromFront(jobs: readonly Job[], start: readonly number[], best: Best): void {
  const prefix: number[] = [];
  const ends = new Float64Array(jobs.length);
  const placed = new Uint8Array(jobs.length);

  const visit = (free: number, maxLate: number, totalLate: number): void => {
    if (--best.visits < 0 || !isLate(best.cost)) return;
    if (prefix.length === jobs.length) {
      offer(jobs, [...prefix], best);
      return;
    }
    for (const i of start) {
      const job = jobs[i]!;
      if (placed[i] || !mayPlace(job, placed)) continue;
      if (twinBefore(jobs, placed, start, i)) continue;
      const end = Math.max(Math.max(free, job.release) + job.duration, readyAt(job, ends));
      const late = Math.max(0, end - job.deadline);
      const bound = { maxLate: Math.max(maxLate, late), totalLate: totalLate + late, totalEarly: 0 };
      if (compareCost(bound, best.cost) >= 0) continue;
      placed[i] = 1;
      ends[i] = end;
      prefix.push(i);
      visit(end, bound.maxLate, bound.totalLate);
      prefix.pop();
      placed[i] = 0;
    }
  };
  visit(Number.NEGATIVE_INFINITY, 0, 0);
}

/**
 * Searches all orders in which nothing is late from the back. There a message ends as late as its deadline and those
 * behind it allow, so what is placed has its final earliness, and each of the rest at least that which it would have
 * next: a branch is left when both together are no better than the best order, or a message would leave before its
 * release.
 */
function leastEarlyFromBack(jobs: readonly Job[], start: readonly number[], best: Best): void {
  const n = jobs.length;
  const suffix: number[] = [];
  const placed = new Uint8Array(n);
  /** How many of those that wait for a job are not placed yet. */
  const waiting = new Uint8Array(n);
  const waits = jobs.map(waitsOf);
  for (const { on } of waits.flat()) waiting[on]!++;
  const reversed = [...start].reverse();

  const visit = (before: number, latest: Float64Array, early: number): void => {
    if (--best.visits < 0) return;
    if (suffix.length === n) {
      offer(jobs, suffix.toReversed(), best);
      return;
    }
    let bound = early;
    for (let i = 0; i < n; i++) {
      if (placed[i]) continue;
      const end = Math.min(jobs[i]!.deadline, before, latest[i]!);
      if (end - jobs[i]!.duration < jobs[i]!.release - GRAIN) return;
      bound += jobs[i]!.deadline - end;
    }
    if (bound >= best.cost.totalEarly - GRAIN) return;
    for (const i of reversed) {
      if (placed[i] || waiting[i]! > 0) continue;
      const job = jobs[i]!;
      const end = Math.min(job.deadline, before, latest[i]!);
      const narrowed = latest.slice();
      placed[i] = 1;
      suffix.push(i);
      for (const { on, gap } of waits[i]!) {
        waiting[on]!--;
        narrowed[on] = Math.min(narrowed[on]!, end - gap);
      }
      visit(end - job.duration, narrowed, early + job.deadline - end);
      for (const { on } of waits[i]!) waiting[on]!++;
      suffix.pop();
      placed[i] = 0;
    }
  };
  visit(Number.POSITIVE_INFINITY, new Float64Array(n).fill(Number.POSITIVE_INFINITY), 0);
}

/** Of two messages that differ in nothing, only the first is tried in a place. */
function twinBefore(jobs: readonly Job[], placed: Uint8Array, start: readonly number[], i: number): boolean {
  const job = jobs[i]!;
  if (job.after >= 0 || job.also || jobs.some((j) => waitsFor(j, i))) return false;
  for (const k of start) {
    if (k === i) return false;
    const other = jobs[k]!;
    if (
      !placed[k] &&
      other.after < 0 &&
      !other.also &&
      other.duration === job.duration &&
      other.deadline === job.deadline &&
      other.release === job.release &&
      !jobs.some((j) => waitsFor(j, k))
    ) {
      return true;
    }
  }
  return false;
}
