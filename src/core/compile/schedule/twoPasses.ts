import type { Micros } from '../../time';
import { readyAt, type Cost, type Job } from './job';

export interface Placed {
  /** End of each job's last byte, by index of the job. */
  readonly ends: Float64Array;
  readonly cost: Cost;
}

/**
 * The best times for one order: forward for the earliest possible ends, then backward,
 * letting each message end at the later of its deadline and its earliest end, as far as
 * the message behind it leaves room.
 */
export function twoPasses(jobs: readonly Job[], order: readonly number[]): Placed {
  const ends = new Float64Array(jobs.length).fill(Number.NEGATIVE_INFINITY);
  let free = Number.NEGATIVE_INFINITY;
  let maxLate = 0;
  let totalLate = 0;
  for (const i of order) {
    const job = jobs[i]!;
    let end: Micros = Math.max(free, job.release) + job.duration;
    if (job.after >= 0 || job.also) end = Math.max(end, readyAt(job, ends));
    ends[i] = free = end;
    const late = end - job.deadline;
    if (late > 0) {
      totalLate += late;
      if (late > maxLate) maxLate = late;
    }
  }
  const latest = new Float64Array(jobs.length).fill(Number.POSITIVE_INFINITY);
  let before = Number.POSITIVE_INFINITY;
  let totalEarly = 0;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    const job = jobs[i]!;
    const end = Math.min(Math.max(job.deadline, ends[i]!), before, latest[i]!);
    ends[i] = end;
    before = end - job.duration;
    if (job.after >= 0) latest[job.after] = Math.min(latest[job.after]!, end - job.gap);
    if (job.also) for (const { on, gap } of job.also) latest[on] = Math.min(latest[on]!, end - gap);
    if (end < job.deadline) totalEarly += job.deadline - end;
  }
  return { ends, cost: { maxLate, totalLate, totalEarly } };
}
