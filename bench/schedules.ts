import { compileSong } from '../src/core/compile';
import { compareCost, type Cost, type Job } from '../src/core/compile/schedule/job';
import { schedulePort } from '../src/core/compile/schedule/schedulePort';
import { timeOrder } from '../src/core/compile/schedule/timeOrder';
import { demoShow } from '../src/core/demo';
import { microsAt, songTime } from '../src/core/show';
import { rigSpec, songWants } from '../src/core/meaning';
import { dryRun } from '../src/core/simulate';
import { seeded } from './fullShow';
import { size } from './size';

/** A small case: messages of a few units on one cable, with deadlines near each other. */
function smallCase(random: () => number, most: number): Job[] {
  const last = new Map<number, number>();
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  return Array.from({ length: 2 + Math.floor(random() * (most - 1)) }, (_, i): Job => {
    const unit = Math.floor(random() * 4);
    const after = last.get(unit) ?? -1;
    last.set(unit, i);
    return {
      duration: pick([640, 960, 2560]),
      deadline: Math.floor(random() * 12000),
      margin: pick([0, 2500, 5000]),
      release: pick([-20000, -20000, 0, 2000]),
      after,
      gap: after < 0 ? 0 : pick([0, 0, 1500, 4000]),
      guard: after < 0 ? 0 : pick([0, 3000]),
      also: null,
    };
  });
}

function everyOrder(jobs: readonly Job[], visit: (order: readonly number[]) => void): void {
  const order: number[] = [];
  const used = new Set<number>();
  const go = (): void => {
    if (order.length === jobs.length) {
      visit(order);
      return;
    }
    for (const [i, job] of jobs.entries()) {
      if (used.has(i) || (job.after >= 0 && !used.has(job.after))) continue;
      used.add(i);
      order.push(i);
      go();
      order.pop();
      used.delete(i);
    }
  };
  go();
}

/** Nearest deadline first, as far as each unit's own order lets it. */
function nearestDeadline(jobs: readonly Job[]): readonly number[] {
  const left = new Set(jobs.keys());
  const order: number[] = [];
  while (left.size > 0) {
    const free = [...left].filter((i) => jobs[i]!.after < 0 || !left.has(jobs[i]!.after));
    const next = free.reduce((a, b) => (jobs[b]!.deadline < jobs[a]!.deadline ? b : a));
    left.delete(next);
    order.push(next);
  }
  return order;
}

/** Holds the schedule against every order there is, and against nearest deadline first. */
export function againstBruteForce(): void {
  const random = seeded(17);
  const cases = size(400, 5);
  let equal = 0;
  let nearestLater = 0;
  let nearestWorse = 0;
  for (let n = 0; n < cases; n++) {
    const jobs = smallCase(random, 7);
    let best: Cost | undefined;
    everyOrder(jobs, (order) => {
      const { cost } = timeOrder(jobs, order);
      if (!best || compareCost(cost, best) < 0) best = cost;
    });
    if (compareCost(schedulePort(jobs).cost, best!) === 0) equal += 1;
    const nearest = timeOrder(jobs, nearestDeadline(jobs)).cost;
    if (nearest.maxLate > best!.maxLate + 1) nearestLater += 1;
    if (compareCost(nearest, best!) > 0) nearestWorse += 1;
  }
  console.log(`\nSchedules of ${cases} small cases against every order there is.`);
  console.log(`  ours as good as the best in all three figures: ${equal} of ${cases}`);
  console.log(
    `  nearest deadline first: ${nearestLater} times later than need be, ${nearestWorse} times worse in some figure`,
  );
}

/** What becomes of the demo's set if every message is sent on its beat, beside how it is sent. */
export function againstNaive(): void {
  const show = demoShow();
  const spec = rigSpec(show);
  console.log('\nThe demo set: changes that land on their beat (2 ms after to 250 ms before).');
  console.log('                              song   changes      ours   all on the beat   worst of those');
  let sum = [0, 0, 0];
  for (const song of show.songs) {
    const wants = songWants(show, song);
    const { events } = compileSong(show, song);
    const time = songTime(song);
    const dues = wants.map((w) => w.due).sort((a, b) => a - b);
    // The naive way: each message leaves at the due time that it is for, one after the other as the cable lets them.
    const naive = events
      .map((e) => ({ ...e, at: Math.max(0, dues.find((d) => d >= e.at - 1) ?? microsAt(time, time.end)) }))
      .sort((a, b) => a.at - b.at);
    const judge = (list: typeof events) =>
      dryRun(spec, list, wants).verdicts.filter((v) => v.reason.kind !== 'already');
    const [ours, theirs] = [judge(events), judge(naive)];
    const well = (list: typeof ours): number => list.filter((v) => v.outcome === 'on-time').length;
    const worst = Math.max(0, ...theirs.map((v) => (v.outcome === 'late' ? (v.offset ?? 0) / 1000 : 0)));
    const lost = theirs.filter((v) => v.outcome === 'never').length;
    sum = [sum[0]! + ours.length, sum[1]! + well(ours), sum[2]! + well(theirs)];
    console.log(
      `  ${song.title.padStart(32)}${String(ours.length).padStart(10)}${String(well(ours)).padStart(10)}` +
        `${String(well(theirs)).padStart(18)}   ${worst.toFixed(0)} ms late, ${lost} never`,
    );
  }
  console.log(
    `  ${'all'.padStart(32)}${String(sum[0]).padStart(10)}${String(sum[1]).padStart(10)}${String(sum[2]).padStart(18)}`,
  );
}
