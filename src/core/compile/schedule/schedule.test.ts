import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FREE, compareCost, type Cost, type Job } from './job';
import { contending, schedulePort } from './schedulePort';
import { timeOrder } from './timeOrder';
import { runs } from '../../testing/runs';

/** The best cost over every order that keeps each unit's messages in theirs, without any shortcut. */
function bruteForce(jobs: readonly Job[]): Cost {
  let best: Cost | undefined;
  const order: number[] = [];
  const used = new Set<number>();
  const visit = (): void => {
    if (order.length === jobs.length) {
      const { cost } = timeOrder(jobs, order);
      if (!best || compareCost(cost, best) < 0) best = cost;
      return;
    }
    for (const [i, job] of jobs.entries()) {
      if (used.has(i) || (job.after >= 0 && !used.has(job.after))) continue;
      if (job.also?.some((w) => !used.has(w.on))) continue;
      used.add(i);
      order.push(i);
      visit();
      order.pop();
      used.delete(i);
    }
  };
  visit();
  return best!;
}

const ROOM = { margins: [0, 1000, 2500, 5000], guards: [0, 1000, 3000] };
const NO_ROOM = { margins: [0], guards: [0] };

/** Messages of a few units on one cable: each unit's in a chain, deadlines near each other. */
const cases = (
  most: number,
  { margins, guards }: { margins: number[]; guards: number[] } = ROOM,
): fc.Arbitrary<Job[]> =>
  fc
    .array(
      fc.record({
        unit: fc.integer({ min: 0, max: 4 }),
        duration: fc.constantFrom(640, 960, 2560),
        deadline: fc.integer({ min: 0, max: 12000 }),
        release: fc.constantFrom(-20000, -20000, 0, 2000),
        gap: fc.constantFrom(0, 0, 1500, 4000),
        margin: fc.constantFrom(...margins),
        guard: fc.constantFrom(...guards),
        /** Now and then it waits for another unit's message, that tells its own unit something. */
        relayed: fc.option(
          fc.record({
            by: fc.nat(20),
            gap: fc.constantFrom(0, 2000, 6000),
            guard: fc.constantFrom(...guards),
          }),
          { nil: null, freq: 1 },
        ),
      }),
      { minLength: 1, maxLength: most },
    )
    .map((list) => {
      const last = new Map<number, number>();
      return list.map(({ unit, relayed, ...job }, i) => {
        const after = last.get(unit) ?? -1;
        last.set(unit, i);
        const on = i > 0 && relayed ? relayed.by % i : -1;
        const also = relayed && on >= 0 && on !== after ? [{ ...relayed, on }] : null;
        return { ...job, after, gap: after < 0 ? 0 : job.gap, guard: after < 0 ? 0 : job.guard, also };
      });
    });

/** Some of the messages, as if there were no others. */
function only(jobs: readonly Job[], members: readonly number[]): Job[] {
  const sorted = [...members].sort((a, b) => a - b);
  const place = new Map(sorted.map((i, k) => [i, k]));
  return sorted.map((i) => {
    const job = jobs[i]!;
    const also = (job.also ?? []).flatMap((w) => (place.has(w.on) ? [{ ...w, on: place.get(w.on)! }] : []));
    return { ...job, after: place.get(job.after) ?? -1, also: also.length > 0 ? also : null };
  });
}

const plain: Job = { duration: 640, deadline: 640, margin: 0, release: 0, after: -1, gap: 0, guard: 0, also: null };

describe('schedulePort', () => {
  it('keeps a message waiting for one that tells its unit something, by hand', () => {
    const first = plain;
    const relayed: Job = { ...first, duration: 960, deadline: 2000, also: [{ on: 0, gap: 6000, guard: 0 }] };
    const { ends, cost } = schedulePort([first, relayed]);
    expect([...ends]).toEqual([640, 6640]);
    expect(cost).toEqual({ ...FREE, maxLate: 4640, totalLate: 4640 });
  });

  it('lets nothing leave before its release, overlap, or come out of its order', () => {
    fc.assert(
      fc.property(cases(30), (jobs) => {
        const { ends } = schedulePort(jobs);
        const spans = jobs.map((j, i) => [ends[i]! - j.duration, ends[i]!] as const).sort((a, b) => a[0] - b[0]);
        for (const [k, [start]] of spans.entries()) {
          if (k > 0) expect(start).toBeGreaterThanOrEqual(spans[k - 1]![1] - 1e-6);
        }
        for (const [i, job] of jobs.entries()) {
          expect(ends[i]! - job.duration).toBeGreaterThanOrEqual(job.release - 1e-6);
          if (job.after >= 0)
            expect(ends[i]! - ends[job.after]!).toBeGreaterThanOrEqual(Math.max(job.gap, job.duration) - 1e-6);
          for (const { on, gap } of job.also ?? []) {
            expect(ends[i]! - ends[on]!).toBeGreaterThanOrEqual(Math.max(gap, job.duration) - 1e-6);
          }
        }
      }),
      runs(21, 300),
    );
  });

  it.each([
    ['with margins and guards', ROOM, 400],
    ['without any, in the three figures that are left', NO_ROOM, 200],
  ])('equals brute force in all figures for up to seven messages, %s', (_, room, count) => {
    fc.assert(
      fc.property(cases(7, room), (jobs) => {
        // What cannot get in each other's way is weighed by itself.
        for (const cluster of contending(jobs)) {
          const alone = only(jobs, cluster);
          const [found, best] = [schedulePort(alone).cost, bruteForce(alone)];
          for (const figure of ['maxLate', 'totalLate', 'maxShort', 'totalShort', 'totalEarly'] as const) {
            expect({ [figure]: Math.round(found[figure] * 10) / 10 }).toEqual({
              [figure]: Math.round(best[figure] * 10) / 10,
            });
          }
        }
      }),
      runs(22, count),
    );
  });

  it('equals brute force for eight messages in which nothing has a margin', () => {
    fc.assert(
      fc.property(
        cases(8, NO_ROOM).filter((jobs) => jobs.length === 8),
        (jobs) => {
          expect(compareCost(schedulePort(jobs).cost, bruteForce(jobs))).toBe(0);
        },
      ),
      runs(23, 30),
    );
  });

  it('finds the smallest maximum lateness for twelve messages of three units, and the rest within a twentieth', () => {
    // Three chains of four: 34,650 orders, few enough to try them all.
    const chains = fc.array(
      fc.record({
        duration: fc.constantFrom(640, 960),
        deadline: fc.integer({ min: 0, max: 14000 }),
        release: fc.constantFrom(-20000, 0, 3000),
        gap: fc.constantFrom(0, 0, 2500),
      }),
      { minLength: 12, maxLength: 12 },
    );
    fc.assert(
      fc.property(chains, (list) => {
        const jobs = list.map((job, i): Job => ({
          ...plain,
          ...job,
          after: i < 3 ? -1 : i - 3,
          gap: i < 3 ? 0 : job.gap,
        }));
        const [found, best] = [schedulePort(jobs).cost, bruteForce(jobs)];
        expect(found.maxLate).toBeCloseTo(best.maxLate, 2);
        expect(found.totalLate).toBeLessThanOrEqual(best.totalLate * 1.05 + 1);
        expect(found.totalEarly).toBeLessThanOrEqual(best.totalEarly * 1.05 + 1);
      }),
      runs(24, 12),
    );
  });

  it('leaves clusters alone that cannot get in each other’s way', () => {
    const pair = (at: number): Job[] => [
      { ...plain, duration: 960, deadline: at, release: at - 500_000 },
      { ...plain, duration: 640, deadline: at, release: at - 500_000 },
    ];
    const alone = [...schedulePort(pair(1_000_000)).ends];
    const both = [...schedulePort([...pair(1_000_000), ...pair(2_000_000)]).ends];
    expect(both.slice(0, 2)).toEqual(alone);
    expect(both.slice(2)).toEqual(alone.map((end) => end + 1_000_000));
  });

  it('lets nothing contend on a cable that is as good as free', () => {
    const free = (deadline: number): Job => ({ ...plain, duration: 0, deadline });
    const { ends, cost } = schedulePort(Array.from({ length: 500 }, (_, i) => free(1000 + (i % 7))));
    expect(cost).toEqual(FREE);
    expect([...ends].every((end, i) => end === 1000 + (i % 7))).toBe(true);
  });

  it('answers for no messages at all', () => {
    expect(schedulePort([]).cost).toEqual(FREE);
  });

  it('sends the shorter of two messages last when both are due at once', () => {
    const job = (duration: number): Job => ({ ...plain, duration, deadline: 10000 });
    const { ends } = schedulePort([job(640), job(960)]);
    expect([...ends]).toEqual([10000, 9360]);
  });

  it('keeps margin and guard where there is room, by hand', () => {
    const recall: Job = { ...plain, deadline: 100_000, margin: 5000, release: -1e6 };
    const control: Job = {
      ...plain,
      duration: 960,
      deadline: 200_000,
      margin: 5000,
      after: 0,
      gap: 90_000,
      guard: 3000,
    };
    const { ends, cost } = schedulePort([recall, control]);
    expect([...ends]).toEqual([95_000, 195_000]);
    expect(cost).toEqual(FREE);
  });

  it('shares what is missing among a margin and the guard before it, and is not late for either', () => {
    // 640 to leave, 40 ms to settle: of 44 ms until the deadline 3.36 are left, where 8 are wanted.
    const recall: Job = { ...plain, deadline: 2000, margin: 0 };
    const control: Job = {
      ...plain,
      duration: 960,
      deadline: 44_000,
      margin: 5000,
      after: 0,
      gap: 40_000,
      guard: 3000,
    };
    const { ends, cost } = schedulePort([recall, control]);
    expect(cost.maxShort).toBeCloseTo(2320, 2);
    expect(cost).toMatchObject({ maxLate: 0, totalLate: 0, totalShort: 4640, totalEarly: 1360 });
    expect(ends[0]).toBe(640);
    expect(ends[1]).toBeCloseTo(41_320, 2);
  });

  it('gives up a margin rather than be late, and takes no margin of what has room', () => {
    const late: Job = { ...plain, deadline: 300, margin: 5000 };
    const other: Job = { ...plain, duration: 960, deadline: 30_000, margin: 5000 };
    const { ends, cost } = schedulePort([late, other]);
    expect([...ends]).toEqual([640, 25_000]);
    expect(cost).toEqual({ ...FREE, maxLate: 340, totalLate: 340, maxShort: 5000, totalShort: 5000 });
  });
});
