import type { Micros } from '../time';
import type { PortJob, Writable } from './portJob';

/**
 * Carries deadlines back from the last message of a moment to the first: what follows must have its time.
 * `start` is the index of the first job of the moment.
 */
export function carryBack(list: Writable<PortJob>[], start: number): void {
  carryOnce(list, start);
  if (keepClose(list, start)) carryOnce(list, start);
}

/**
 * Moves what follows a recall to it where that one has moved (see `closeTo`), and what stands between them. Whether
 * anything moved.
 */
export function keepClose(list: Writable<PortJob>[], start = 0): boolean {
  let moved = false;
  for (let i = start; i < list.length; i++) {
    const job = list[i]!;
    const closeTo = job.unit === null ? null : job.closeTo;
    if (!closeTo || job.deadline <= list[closeTo.on]!.deadline + closeTo.maxBehind) continue;
    moved = true;
    job.deadline = list[closeTo.on]!.deadline + closeTo.maxBehind;
    for (let k = i; list[k]!.after > closeTo.on; k = list[k]!.after) {
      const { deadline, duration, gap, after } = list[k]!;
      const before = list[after]!;
      before.deadline = Math.min(before.deadline, deadline - Math.max(duration, gap));
    }
  }
  return moved;
}

function carryOnce(list: Writable<PortJob>[], start: number): void {
  for (let i = list.length - 1; i >= start; i--) {
    const { deadline, duration, after, gap, also } = list[i]!;
    const before = (on: number, least: Micros): void => {
      if (on < start) return;
      const job = list[on]!;
      job.deadline = Math.min(job.deadline, deadline - Math.max(duration, least));
    };
    before(after, gap);
    if (also) for (const w of also) before(w.on, w.gap);
  }
}
