import type { Micros } from '../../time';
import { readyAt, type Job } from './job';

/**
 * When each message of one port ends if all are to be through soon: whatever can leave next
 * leaves, and of several the one that most still waits for. Guards are kept: there is time. Deadlines, margins and
 * releases play no part. Each message comes after the one that it follows in the list.
 */
export function soonestEnds(jobs: readonly Job[]): Float64Array {
  /** What still has to go by after a message, at the least, in its own unit's chain. */
  const waits = new Float64Array(jobs.length);
  for (let i = jobs.length - 1; i >= 0; i--) {
    const { after, gap, guard, duration, also } = jobs[i]!;
    if (after >= 0) waits[after] = Math.max(waits[after]!, waits[i]! + Math.max(gap + guard, duration));
    if (also)
      for (const w of also) waits[w.on] = Math.max(waits[w.on]!, waits[i]! + Math.max(w.gap + w.guard, duration));
  }
  const ends = new Float64Array(jobs.length);
  const left = new Set(jobs.keys());
  let free: Micros = 0;
  while (left.size > 0) {
    let next = -1;
    let start = Number.POSITIVE_INFINITY;
    for (const i of left) {
      const job = jobs[i]!;
      if ((job.after >= 0 && left.has(job.after)) || job.also?.some((w) => left.has(w.on))) continue;
      const ready = Math.max(free, readyAt(job, ends, 0) - job.duration);
      if (ready < start || (ready === start && waits[i]! > waits[next]!)) {
        next = i;
        start = ready;
      }
    }
    ends[next] = free = start + jobs[next]!.duration;
    left.delete(next);
  }
  return ends;
}
