import type { Micros } from '../../time';
import { GRAIN, kept, wantedEnd, type Job } from './job';

/** Rounds until it is found: each takes in another message that stands in the way. */
const ROUNDS = 64;

/**
 * The smallest `s` such that an order can be kept with no margin and no guard short by more than `s`, and nothing
 * later than at its earliest ends. How much a message ends too late grows with every margin and guard kept before it,
 * so it is a convex line in `s`: Newton's steps from 0 come to its root from the left, and stay there.
 */
export function largestShortfall(jobs: readonly Job[], order: readonly number[], earliest: Float64Array): Micros {
  const ends = new Float64Array(jobs.length);
  /** How many guards each end still depends on. */
  const guards = new Float64Array(jobs.length);
  let s: Micros = 0;
  for (let round = 0; round < ROUNDS; round++) {
    let free = Number.NEGATIVE_INFINITY;
    let freeGuards = 0;
    let step: Micros = 0;
    for (const i of order) {
      const job = jobs[i]!;
      let end = free;
      let held = freeGuards;
      if (job.release > free) {
        end = job.release;
        held = 0;
      }
      end += job.duration;
      const wait = (on: number, gap: Micros, guard: Micros): void => {
        const ready = ends[on]! + gap + kept(guard, s);
        if (ready <= end) return;
        end = ready;
        held = guards[on]! + (guard > s ? 1 : 0);
      };
      if (job.after >= 0) wait(job.after, job.gap, job.guard);
      if (job.also) for (const { on, gap, guard } of job.also) wait(on, gap, guard);
      ends[i] = free = end;
      guards[i] = freeGuards = held;
      const late = earliest[i]! > job.deadline;
      const over = end - (late ? earliest[i]! : wantedEnd(job) + Math.min(s, job.margin));
      const slope = held + (!late && job.margin > s ? 1 : 0);
      if (over > GRAIN && slope > 0) step = Math.max(step, over / slope);
    }
    if (step === 0) break;
    s += step;
  }
  return s;
}
