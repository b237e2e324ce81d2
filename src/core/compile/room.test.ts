import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contextOf, moments, StateFold } from '../meaning';
import type { Show, Song } from '../show';
import { randomShow } from '../testing/randomShow';
import { runs } from '../testing/runs';
import { varied } from '../testing/varied';
import { millisToMicros } from '../time';
import { Dues } from './dues';
import { expandMoment } from './expand';
import { Planner } from './planner';
import type { PortJob } from './portJob';
import { compareCost, type Cost, type Job } from './schedule/job';
import { schedulePort } from './schedule/schedulePort';
import { shortfallOf, timeOrder } from './schedule/timeOrder';
import { scheduleThrough } from './thruWaits';

/** What a song queues on each port, before it has times. */
function queued(show: Show, song: Song): ReadonlyMap<string, readonly PortJob[]> {
  const context = contextOf(show);
  const fold = new StateFold(context.units);
  const planner = new Planner(context);
  const dues = new Dues(-millisToMicros(song.preRoll));
  for (const moment of moments(show, song)) {
    const { id: cueId, due, landing } = moment;
    const all = expandMoment(show, context, fold, moment, 'changes');
    planner.add({ cueId, due, landing }, all, (sends) => dues.release(moment, sends));
  }
  return planner.lists;
}

function bestOfAllOrders(jobs: readonly Job[]): Cost {
  let best: Cost | undefined;
  const visit = (order: readonly number[]): void => {
    if (order.length === jobs.length) {
      const { cost } = timeOrder(jobs, order);
      if (!best || compareCost(cost, best) < 0) best = cost;
      return;
    }
    for (const [i, job] of jobs.entries()) {
      if (order.includes(i) || (job.after >= 0 && !order.includes(job.after))) continue;
      if (!job.also?.some((w) => !order.includes(w.on))) visit([...order, i]);
    }
  };
  visit([]);
  return best!;
}

describe('what a plan keeps free', () => {
  it('is the most that any order of the messages allows: on one port and on two, behind thrus too', () => {
    let tried = 0;
    let thrus = 0;
    let ports = 0;
    fc.assert(
      fc.property(varied(randomShow({ gap: 960, twoPorts: true })), ({ show, song }) => {
        const short = { ...song, cues: song.cues.slice(0, 2) };
        const lists = [...queued(show, short).values()].filter((list) => list.length > 1 && list.length <= 7);
        if (lists.length > 1) ports += 1;
        for (const list of lists) {
          tried += 1;
          if (list[0]!.path.thru) thrus += 1;
          const planned = scheduleThrough(contextOf(show), {}, list, (jobs) => schedulePort(jobs).ends);
          const order = planned.list.map((_, i) => i);
          const late = planned.list.map((job, i) => Math.max(0, planned.ends[i]! - job.deadline - 1e-3));
          const found: Cost = {
            maxLate: Math.max(0, ...late),
            totalLate: late.reduce((sum, l) => sum + l, 0),
            ...shortfallOf(planned.list, order, Float64Array.from(planned.ends)),
          };
          const best = bestOfAllOrders(planned.list);
          // In runs that cannot get in each other's way each is the best by itself: the largest figures are all that they share.
          expect(found.maxLate).toBeCloseTo(best.maxLate, 0);
          expect(found.totalLate).toBeCloseTo(best.totalLate, 0);
          expect(found.maxShort).toBeCloseTo(best.maxShort, 0);
        }
      }),
      runs(91, 500),
    );
    expect(tried).toBeGreaterThan(0);
    expect(thrus).toBeGreaterThan(0);
    expect(ports).toBeGreaterThan(0);
  });
});
