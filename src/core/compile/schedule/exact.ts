import {
  FREE,
  GRAIN,
  compareCost,
  compareLate,
  mayPlace,
  readyAt,
  waitsFor,
  waitsOf,
  wantedEnd,
  type Cost,
  type Job,
} from './job';
import type { Micros } from '../../time';
import { timeOrder, type Care } from './timeOrder';

/**
 * The best of all orders that keep each unit's messages in theirs, or the best that was found when `visits` places
 * have been looked at. `start` is a first guess. First orders are built from their front, as long as something is
 * late or short of its margin: a branch is left as soon as the messages already placed cannot be part of anything
 * better than the best order known. Once an order is known in which nothing is missing, only earliness is left to be
 * made smaller, and that is found much sooner from the back.
 */
export function bestOrder(
  jobs: readonly Job[],
  start: readonly number[],
  care: Care = 'least',
  visits = Number.POSITIVE_INFINITY,
): readonly number[] {
  const best: Best = { order: [...start], cost: timeOrder(jobs, start, care).cost, care, visits };
  if (isCramped(best.cost)) leastMissingFromFront(jobs, start, best);
  if (!isCramped(best.cost) && compareCost(best.cost, FREE) > 0) leastEarlyFromBack(jobs, start, best);
  return best.order;
}

/** Mutable: the best order found so far, and how many more places may be looked at. */
interface Best {
  order: readonly number[];
  cost: Cost;
  readonly care: Care;
  visits: number;
}

/** Places that an order costs in which something is missing: finding out how little takes that long. */
const CRAMPED_VISITS = 20;

const isCramped = (cost: Cost): boolean => compareCost({ ...cost, totalEarly: 0 }, FREE) > 0;

/** Keeps an order if it is better than the best one. */
function offer(jobs: readonly Job[], order: readonly number[], best: Best): void {
  const { cost } = timeOrder(jobs, order, best.care);
  if (isCramped(cost)) best.visits -= CRAMPED_VISITS;
  if (compareCost(cost, best.cost) >= 0) return;
  best.order = order;
  best.cost = cost;
}

/** Searches all orders from the front, until one is found in which nothing is missing. */
function leastMissingFromFront(jobs: readonly Job[], start: readonly number[], best: Best): void {
  const prefix: number[] = [];
  const placed = new Uint8Array(jobs.length);
  /** Earliest ends that units and cable allow; with no guard shorter than in the best order; with every guard. */
  const hard = new Float64Array(jobs.length);
  const asBest = new Float64Array(jobs.length);
  const full = new Float64Array(jobs.length);

  const visit = (free: Free, cost: Cost): void => {
    if (--best.visits < 0 || !isCramped(best.cost)) return;
    if (prefix.length === jobs.length) {
      offer(jobs, [...prefix], best);
      return;
    }
    for (const i of start) {
      const job = jobs[i]!;
      if (placed[i] || !mayPlace(job, placed)) continue;
      if (twinBefore(jobs, placed, start, i)) continue;
      const end = endOf(job, free.hard, hard, Number.POSITIVE_INFINITY);
      const late = Math.max(0, end - job.deadline);
      const wanted = wantedEnd(job);
      const short = late > 0 ? job.margin : Math.max(0, end - wanted);
      const tight = endOf(job, free.asBest, asBest, best.cost.maxShort);
      const easy = endOf(job, free.full, full, 0);
      const bound: Cost = {
        maxLate: Math.max(cost.maxLate, late),
        totalLate: cost.totalLate + late,
        maxShort: Math.max(cost.maxShort, short),
        // All that is missing on the way to one message, or of every margin at the least.
        totalShort: Math.max(cost.totalShort + short, late > 0 ? 0 : easy - wanted),
        totalEarly: 0,
      };
      if (compareCost(bound, best.cost) >= 0) continue;
      const latest = late > 0 ? end : wanted + Math.min(job.margin, best.cost.maxShort);
      if (tight > latest + GRAIN && compareLate(bound, best.cost) >= 0) continue;
      placed[i] = 1;
      hard[i] = end;
      asBest[i] = tight;
      full[i] = easy;
      prefix.push(i);
      visit({ hard: end, asBest: tight, full: easy }, bound);
      prefix.pop();
      placed[i] = 0;
    }
  };
  const never = Number.NEGATIVE_INFINITY;
  visit({ hard: never, asBest: never, full: never }, FREE);
}

/** When the cable is free, by the three ways of reckoning. */
interface Free {
  readonly hard: Micros;
  readonly asBest: Micros;
  readonly full: Micros;
}

const endOf = (job: Job, free: Micros, ends: Float64Array, less: Micros): Micros =>
  Math.max(Math.max(free, job.release) + job.duration, readyAt(job, ends, less));

/**
 * Searches all orders in which nothing is missing from the back. There a message ends as late as its margin and those
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
      const wanted = wantedEnd(jobs[i]!);
      const end = Math.min(wanted, before, latest[i]!);
      if (end - jobs[i]!.duration < jobs[i]!.release - GRAIN) return;
      bound += wanted - end;
    }
    if (bound >= best.cost.totalEarly - GRAIN) return;
    for (const i of reversed) {
      if (placed[i] || waiting[i]! > 0) continue;
      const job = jobs[i]!;
      const end = Math.min(wantedEnd(job), before, latest[i]!);
      const narrowed = latest.slice();
      placed[i] = 1;
      suffix.push(i);
      for (const { on, gap, guard } of waits[i]!) {
        waiting[on]!--;
        narrowed[on] = Math.min(narrowed[on]!, end - gap - guard);
      }
      visit(end - job.duration, narrowed, early + wantedEnd(job) - end);
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
      other.margin === job.margin &&
      other.release === job.release &&
      !jobs.some((j) => waitsFor(j, k))
    ) {
      return true;
    }
  }
  return false;
}
