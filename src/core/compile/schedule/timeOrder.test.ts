import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../../testing/runs';
import { compareCost, type Cost, type Job } from './job';
import { earliestEnds, shortfallOf, timeOrder } from './timeOrder';

/** A few messages in a row, each with its margin, and guards to messages before it. */
const rows: fc.Arbitrary<Job[]> = fc
  .array(
    fc.record({
      duration: fc.constantFrom(640, 960),
      deadline: fc.integer({ min: 0, max: 16_000 }),
      margin: fc.constantFrom(0, 1000, 5000),
      release: fc.constantFrom(-3000, 0, 4000),
      on: fc.nat(5),
      gap: fc.constantFrom(0, 1500, 4000),
      guard: fc.constantFrom(0, 1000, 3000),
      also: fc.option(fc.record({ on: fc.nat(5), gap: fc.constantFrom(0, 2000), guard: fc.constantFrom(500, 3000) })),
    }),
    { minLength: 2, maxLength: 6 },
  )
  .map((list) =>
    list.map(({ on, also, ...job }, i): Job => {
      const after = on < i ? on : -1;
      const first = after < 0 ? { gap: 0, guard: 0 } : { gap: job.gap, guard: job.guard };
      return { ...job, ...first, after, also: also && also.on < i ? [also] : null };
    }),
  );

/** Whether times keep the order, their releases and waits, and are no later than the earliest ends allow. */
function holds(jobs: readonly Job[], order: readonly number[], ends: ArrayLike<number>, hard: Float64Array): boolean {
  const rounding = 0.01;
  return order.every((i, k) => {
    const job = jobs[i]!;
    const before = k > 0 ? ends[order[k - 1]!]! : Number.NEGATIVE_INFINITY;
    const waits = [...(job.after >= 0 ? [{ on: job.after, gap: job.gap }] : []), ...(job.also ?? [])];
    return (
      ends[i]! - job.duration >= Math.max(before, job.release) - rounding &&
      ends[i]! <= Math.max(job.deadline, hard[i]!) + rounding &&
      waits.every(({ on, gap }) => ends[i]! - ends[on]! >= gap - rounding)
    );
  });
}

describe('timeOrder', () => {
  // A convex function of differences has its least value where no set of messages, moved together, makes it less
  // (Murota: Discrete Convex Analysis, theorem 7.14). So that is tried with every set.
  it('is not made better by moving any set of messages a little', () => {
    fc.assert(
      fc.property(rows, (jobs) => {
        const order = jobs.map((_, i) => i);
        const { ends, cost } = timeOrder(jobs, order);
        const hard = earliestEnds(jobs, order);
        expect(holds(jobs, order, ends, hard)).toBe(true);
        for (let set = 1; set < 2 ** jobs.length; set++) {
          for (const by of [-0.5, 0.5, -20, 20]) {
            const moved = ends.map((end, i) => ((set >> i) & 1 ? end + by : end));
            if (!holds(jobs, order, moved, hard)) continue;
            const other: Cost = { ...cost, ...shortfallOf(jobs, order, moved) };
            expect(compareCost(rounded(other), rounded(cost))).toBeGreaterThanOrEqual(0);
          }
        }
      }),
      runs(25, 250),
    );
  });

  it('is short by no more than must be: a little less cannot be kept', () => {
    fc.assert(
      fc.property(rows, (jobs) => {
        const order = jobs.map((_, i) => i);
        const { cost } = timeOrder(jobs, order);
        const hard = earliestEnds(jobs, order);
        const late = jobs.map((job, i) => hard[i]! > job.deadline);
        const lost = Math.max(0, ...jobs.map((job, i) => (late[i] ? job.margin : 0)));
        const less = cost.maxShort - 1;
        if (less < lost) return;
        const ends = earliestEnds(jobs, order, less);
        const fits = jobs.every((job, i) =>
          late[i] ? ends[i]! <= hard[i]! : ends[i]! <= job.deadline - Math.max(0, job.margin - less),
        );
        expect(fits).toBe(false);
      }),
      runs(26, 400),
    );
  });
});

const rounded = (cost: Cost): Cost => ({
  ...cost,
  maxShort: Math.round(cost.maxShort * 50) / 50,
  totalShort: Math.round(cost.totalShort * 50) / 50,
  totalEarly: Math.round(cost.totalEarly * 50) / 50,
});
