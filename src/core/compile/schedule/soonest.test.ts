import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../../testing/runs';
import type { Job } from './job';
import { soonestEnds } from './soonest';

const job = (duration: number, after = -1, gap = 0): Job => ({
  duration,
  deadline: 0,
  margin: 0,
  release: 0,
  after,
  gap,
  guard: 0,
  also: null,
});

describe('messages that are to be through soon', () => {
  it('leave one after the other, and fill each other’s pauses', () => {
    // A recall and what has to wait 5 ms for it; meanwhile another unit's messages go.
    const ends = soonestEnds([job(640), job(960, 0, 5000), job(960), job(960)]);
    expect([...ends]).toEqual([640, 5640, 1600, 2560]);
  });

  it('begin with what most waits for', () => {
    const ends = soonestEnds([job(960), job(640), job(640, 1, 9000)]);
    expect([...ends]).toEqual([1600, 640, 9640]);
  });

  it('never overlap, keep their order and their gaps, and leave no pause that could be filled', () => {
    const lists = fc.array(
      fc.record({ unit: fc.nat(3), duration: fc.constantFrom(640, 960), gap: fc.constantFrom(0, 0, 3000) }),
      { maxLength: 24 },
    );
    fc.assert(
      fc.property(lists, (list) => {
        const last = new Map<number, number>();
        const jobs = list.map(({ unit, duration, gap }, i) => {
          const after = last.get(unit) ?? -1;
          last.set(unit, i);
          return job(duration, after, after < 0 ? 0 : gap);
        });
        const ends = soonestEnds(jobs);
        const order = [...jobs.keys()].sort((a, b) => ends[a]! - ends[b]! || a - b);
        let free = 0;
        for (const i of order) {
          const { duration, after, gap } = jobs[i]!;
          const start = ends[i]! - duration;
          expect(start).toBeGreaterThanOrEqual(free - 1e-9);
          const ready = after < 0 ? 0 : ends[after]! + gap - duration;
          if (after >= 0) expect(ends[i]! - ends[after]!).toBeGreaterThanOrEqual(Math.max(gap, duration) - 1e-9);
          expect(start).toBeCloseTo(Math.max(free, ready), 6);
          free = ends[i]!;
        }
      }),
      runs(71, 200),
    );
  });
});
