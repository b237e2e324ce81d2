import { FREE, compareCost, mayPlace, readyAt, waitsFor, type Job } from './job';
import { twoPasses } from './twoPasses';

/**
 * The best of all orders that keep each unit's messages in theirs, or the best that was
 * found when `visits` places have been looked at. `start` is a first guess. A branch is left as soon as the messages already placed are later, placed at
 * their earliest, than the best order known.
 */
export function bestOrder(
  jobs: readonly Job[],
  start: readonly number[],
  visits = Number.POSITIVE_INFINITY,
): readonly number[] {
  let left = visits;
  let best = [...start];
  let cost = twoPasses(jobs, best).cost;
  if (compareCost(cost, FREE) === 0) return best;

  const prefix: number[] = [];
  const ends = new Float64Array(jobs.length);
  const placed = new Uint8Array(jobs.length);

  const visit = (free: number, maxLate: number, totalLate: number): void => {
    if (--left < 0) return;
    if (prefix.length === jobs.length) {
      const found = twoPasses(jobs, prefix).cost;
      if (compareCost(found, cost) < 0) {
        best = [...prefix];
        cost = found;
      }
      return;
    }
    for (const i of start) {
      const job = jobs[i]!;
      if (placed[i] || !mayPlace(job, placed)) continue;
      if (twinBefore(jobs, placed, start, i)) continue;
      const end = Math.max(Math.max(free, job.release) + job.duration, readyAt(job, ends));
      const late = Math.max(0, end - job.deadline);
      const bound = { maxLate: Math.max(maxLate, late), totalLate: totalLate + late, totalEarly: 0 };
      if (compareCost(bound, cost) >= 0) continue;
      placed[i] = 1;
      ends[i] = end;
      prefix.push(i);
      visit(end, bound.maxLate, bound.totalLate);
      prefix.pop();
      placed[i] = 0;
    }
  };
  visit(Number.NEGATIVE_INFINITY, 0, 0);
  return best;
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
