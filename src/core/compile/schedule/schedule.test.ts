import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareCost, type Cost, type Job } from './job';
import { schedulePort } from './schedulePort';
import { twoPasses } from './twoPasses';
import { runs } from '../../testing/runs';

/** The best cost over every order that keeps each unit's messages in theirs, without any shortcut. */
function bruteForce(jobs: readonly Job[]): Cost {
  let best: Cost | undefined;
  const order: number[] = [];
  const used = new Set<number>();
  const visit = (): void => {
    if (order.length === jobs.length) {
      const { cost } = twoPasses(jobs, order);
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

/** Messages of a few units on one cable: each unit's in a chain, deadlines near each other. */
const cases = (most: number): fc.Arbitrary<Job[]> =>
  fc
    .array(
      fc.record({
        unit: fc.integer({ min: 0, max: 4 }),
        duration: fc.constantFrom(640, 960, 2560),
        deadline: fc.integer({ min: 0, max: 12000 }),
        release: fc.constantFrom(-20000, -20000, 0, 2000),
        gap: fc.constantFrom(0, 0, 1500, 4000),
        /** Now and then it waits for another unit's message, that tells its own unit something. */
        relayed: fc.option(fc.record({ by: fc.nat(20), gap: fc.constantFrom(0, 2000, 6000) }), { nil: null, freq: 1 }),
      }),
      { minLength: 1, maxLength: most },
    )
    .map((list) => {
      const last = new Map<number, number>();
      return list.map(({ unit, relayed, ...job }, i) => {
        const after = last.get(unit) ?? -1;
        last.set(unit, i);
        const also = relayed && i > 0 && relayed.by % i !== after ? [{ on: relayed.by % i, gap: relayed.gap }] : null;
        return { ...job, after, gap: after < 0 ? 0 : job.gap, also };
      });
    });

describe('schedulePort', () => {
  it('keeps a message waiting for one that tells its unit something, by hand', () => {
    const first: Job = { duration: 640, deadline: 640, release: 0, after: -1, gap: 0, also: null };
    const relayed: Job = { ...first, duration: 960, deadline: 2000, also: [{ on: 0, gap: 6000 }] };
    const { ends, cost } = schedulePort([first, relayed]);
    expect([...ends]).toEqual([640, 6640]);
    expect(cost).toEqual({ maxLate: 4640, totalLate: 4640, totalEarly: 0 });
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

  it('equals brute force in all three figures for up to eight messages', () => {
    fc.assert(
      fc.property(cases(7), (jobs) => {
        const found = schedulePort(jobs).cost;
        const best = bruteForce(jobs);
        expect(found.maxLate).toBeCloseTo(best.maxLate, 2);
        expect(found.totalLate).toBeCloseTo(best.totalLate, 2);
        expect(found.totalEarly).toBeCloseTo(best.totalEarly, 2);
      }),
      runs(22, 400),
    );
    fc.assert(
      fc.property(
        cases(8).filter((jobs) => jobs.length === 8),
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
          ...job,
          after: i < 3 ? -1 : i - 3,
          gap: i < 3 ? 0 : job.gap,
          also: null,
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
      { duration: 960, deadline: at, release: at - 500_000, after: -1, gap: 0, also: null },
      { duration: 640, deadline: at, release: at - 500_000, after: -1, gap: 0, also: null },
    ];
    const alone = [...schedulePort(pair(1_000_000)).ends];
    const both = [...schedulePort([...pair(1_000_000), ...pair(2_000_000)]).ends];
    expect(both.slice(0, 2)).toEqual(alone);
    expect(both.slice(2)).toEqual(alone.map((end) => end + 1_000_000));
  });

  it('lets nothing contend on a cable that is as good as free', () => {
    const free = (deadline: number): Job => ({ duration: 0, deadline, release: 0, after: -1, gap: 0, also: null });
    const { ends, cost } = schedulePort(Array.from({ length: 500 }, (_, i) => free(1000 + (i % 7))));
    expect(cost).toEqual({ maxLate: 0, totalLate: 0, totalEarly: 0 });
    expect([...ends].every((end, i) => end === 1000 + (i % 7))).toBe(true);
  });

  it('answers for no messages at all', () => {
    expect(schedulePort([]).cost).toEqual({ maxLate: 0, totalLate: 0, totalEarly: 0 });
  });

  it('sends the shorter of two messages last when both are due at once', () => {
    const job = (duration: number): Job => ({ duration, deadline: 10000, release: 0, after: -1, gap: 0, also: null });
    const { ends } = schedulePort([job(640), job(960)]);
    expect([...ends]).toEqual([10000, 9360]);
  });
});
