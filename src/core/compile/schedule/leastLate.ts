import { GRAIN, mayPlace, readyAt, type Job } from './job';
import { timeOrder } from './timeOrder';

/** Places looked at before the search is given up; twelve messages stay far below it. */
const VISIT_LIMIT = 200_000;

/**
 * An order with the smallest maximum lateness, by branch and bound; `start` where none is
 * better. It looks at nothing else, which lets it leave nearly every branch early.
 */
export function leastLate(jobs: readonly Job[], start: readonly number[]): readonly number[] {
  let best = start;
  let limit = timeOrder(jobs, start, 'one-pass').cost.maxLate;
  if (limit <= GRAIN) return start;
  const prefix: number[] = [];
  const ends = new Float64Array(jobs.length);
  const placed = new Uint8Array(jobs.length);
  let visits = 0;

  /** No order of what is left can be better: some message is too late even if it came next. */
  const hopeless = (free: number): boolean => {
    let work = 0;
    let last = Number.NEGATIVE_INFINITY;
    for (const i of start) {
      if (placed[i]) continue;
      const job = jobs[i]!;
      if (Math.max(free, job.release) + job.duration - job.deadline >= limit - GRAIN) return true;
      work += job.duration;
      last = Math.max(last, job.deadline);
    }
    // Whatever comes last ends after all the work that is left.
    return work > 0 && free + work - last >= limit - GRAIN;
  };

  const visit = (free: number, late: number): void => {
    if (++visits > VISIT_LIMIT) return;
    if (prefix.length === jobs.length) {
      best = [...prefix];
      limit = late;
      return;
    }
    for (const i of start) {
      const job = jobs[i]!;
      if (placed[i] || !mayPlace(job, placed)) continue;
      const end = Math.max(Math.max(free, job.release) + job.duration, readyAt(job, ends));
      const now = Math.max(late, end - job.deadline);
      if (now >= limit - GRAIN) continue;
      placed[i] = 1;
      ends[i] = end;
      prefix.push(i);
      if (!hopeless(end)) visit(end, now);
      prefix.pop();
      placed[i] = 0;
    }
  };
  visit(Number.NEGATIVE_INFINITY, 0);
  return best;
}
