import { FREE, compareCost, waitsFor, type Job } from './job';
import { timeOrder } from './timeOrder';

/** Beyond this many messages a swap is no longer weighed against the whole cluster. */
const SWAP_LIMIT = 40;

/** Moves single messages within the order, nearest places first, as long as that makes it better. */
export function improveOrder(jobs: readonly Job[], start: readonly number[]): readonly number[] {
  let order = [...start];
  if (start.length > SWAP_LIMIT) return start;
  let cost = timeOrder(jobs, order, 'one-pass').cost;
  if (compareCost(cost, FREE) === 0) return start;
  for (let better = true, rounds = 0; better && rounds < SWAP_LIMIT; rounds++) {
    better = false;
    for (let distance = 1; distance < order.length; distance++) {
      for (let from = 0; from < order.length; from++) {
        for (const to of [from - distance, from + distance]) {
          if (to < 0 || to >= order.length || !mayMove(jobs, order, from, to)) continue;
          const next = order.toSpliced(from, 1).toSpliced(to, 0, order[from]!);
          const found = timeOrder(jobs, next, 'one-pass').cost;
          if (compareCost(found, cost) >= 0) continue;
          order = next;
          cost = found;
          better = true;
        }
      }
    }
  }
  return order;
}

/** Whether every message between the two places may change sides with the one that moves. */
function mayMove(jobs: readonly Job[], order: readonly number[], from: number, to: number): boolean {
  const i = order[from]!;
  const step = to < from ? -1 : 1;
  for (let k = from + step; k !== to + step; k += step) {
    const other = order[k]!;
    if (step < 0 ? waitsFor(jobs[i]!, other) : waitsFor(jobs[other]!, i)) return false;
  }
  return true;
}
