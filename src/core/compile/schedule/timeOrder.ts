import type { Micros } from '../../time';
import { readyAt, wantedEnd, type Cost, type Job } from './job';
import { giveUpLeast } from './giveUpLeast';
import { largestShortfall } from './largestShortfall';

export interface Placed {
  /** End of each job's last byte, by index of the job. */
  readonly ends: Float64Array;
  readonly cost: Cost;
}

/** How exactly a schedule's shortfall is made small: to the least there is, or by one pass. */
export type Care = 'least' | 'one-pass';

/**
 * The best times for one order. Where there is room for every margin and guard, one pass from the back: each message
 * ends as late as its margin and those behind it allow. Where there is none, what has to be given up is given up.
 */
export function timeOrder(jobs: readonly Job[], order: readonly number[], care: Care = 'least'): Placed {
  return withRoom(jobs, order) ?? cramped(jobs, order, care);
}

/** One order of a whole port, each message ending where its cluster has it, as far as the others leave room. */
export function placeAt(jobs: readonly Job[], order: readonly number[], aims: Float64Array): Placed {
  const ends = earliestEnds(jobs, order);
  const latest = new Float64Array(jobs.length).fill(Number.POSITIVE_INFINITY);
  let before = Number.POSITIVE_INFINITY;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    const job = jobs[i]!;
    const end = Math.min(Math.max(aims[i]!, ends[i]!), before, latest[i]!);
    ends[i] = end;
    before = end - job.duration;
    if (job.after >= 0) latest[job.after] = Math.min(latest[job.after]!, end - job.gap);
    if (job.also) for (const { on, gap } of job.also) latest[on] = Math.min(latest[on]!, end - gap);
  }
  return {
    ends,
    // Asked for by tests alone.
    get cost() {
      return { ...latenessOf(jobs, order, earliestEnds(jobs, order)), ...shortfallOf(jobs, order, ends) };
    },
  };
}

/** Every margin and guard kept; null where something would have to leave before its release. */
function withRoom(jobs: readonly Job[], order: readonly number[]): Placed | null {
  const ends = new Float64Array(jobs.length);
  const latest = new Float64Array(jobs.length).fill(Number.POSITIVE_INFINITY);
  let before = Number.POSITIVE_INFINITY;
  let totalEarly = 0;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    const job = jobs[i]!;
    const wanted = wantedEnd(job);
    const end = Math.min(wanted, before, latest[i]!);
    before = end - job.duration;
    if (before < job.release) return null;
    ends[i] = end;
    totalEarly += wanted - end;
    if (job.after >= 0) latest[job.after] = Math.min(latest[job.after]!, end - job.gap - job.guard);
    if (job.also) for (const w of job.also) latest[w.on] = Math.min(latest[w.on]!, end - w.gap - w.guard);
  }
  return { ends, cost: { maxLate: 0, totalLate: 0, maxShort: 0, totalShort: 0, totalEarly } };
}

/**
 * Forward for the earliest ends that the units and the cable allow: they say what is late, and by how much at the
 * least. Then, of all times that are no later than that, those that give up least of margins and guards.
 */
function cramped(jobs: readonly Job[], order: readonly number[], care: Care): Placed {
  const earliest = earliestEnds(jobs, order);
  /** Margins of what is late: all of them is missing, whatever is done. */
  let lost = 0;
  let soft = false;
  for (const i of order) {
    const job = jobs[i]!;
    if (earliest[i]! > job.deadline) lost = Math.max(lost, job.margin);
    soft ||= job.margin > 0 || job.guard > 0 || (job.also?.some((w) => w.guard > 0) ?? false);
  }
  const most = soft ? Math.max(lost, largestShortfall(jobs, order, earliest)) : 0;
  const ends =
    soft && care === 'least' ? giveUpLeast(jobs, order, earliest, most) : onePass(jobs, order, earliest, most);
  return { ends, cost: { ...latenessOf(jobs, order, earliest), ...shortfallOf(jobs, order, ends) } };
}

/** Earliest possible ends, where margins and guards may be short by `less`; without it none of them counts. */
export function earliestEnds(
  jobs: readonly Job[],
  order: readonly number[],
  less: Micros = Number.POSITIVE_INFINITY,
): Float64Array {
  const ends = new Float64Array(jobs.length).fill(Number.NEGATIVE_INFINITY);
  let free = Number.NEGATIVE_INFINITY;
  for (const i of order) {
    const job = jobs[i]!;
    let end: Micros = Math.max(free, job.release) + job.duration;
    if (job.after >= 0 || job.also) end = Math.max(end, readyAt(job, ends, less));
    ends[i] = free = end;
  }
  return ends;
}

/**
 * From the back: each message where its margin and the guards of those behind it want it, or else at the earliest end
 * that it has if none is short by more than `most`.
 */
function onePass(jobs: readonly Job[], order: readonly number[], hard: Float64Array, most: Micros): Float64Array {
  const soonest = earliestEnds(jobs, order, most);
  const ends = new Float64Array(jobs.length);
  const latest = new Float64Array(jobs.length).fill(Number.POSITIVE_INFINITY);
  const wanted = new Float64Array(jobs.length).fill(Number.POSITIVE_INFINITY);
  let before = Number.POSITIVE_INFINITY;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    const job = jobs[i]!;
    const late = hard[i]! > job.deadline;
    const aim = Math.min(wantedEnd(job), wanted[i]!);
    const end = Math.min(late ? hard[i]! : Math.max(aim, soonest[i]!), before, latest[i]!);
    ends[i] = end;
    before = end - job.duration;
    const keep = (on: number, gap: Micros, guard: Micros): void => {
      latest[on] = Math.min(latest[on]!, end - gap);
      wanted[on] = Math.min(wanted[on]!, end - gap - guard);
    };
    if (job.after >= 0) keep(job.after, job.gap, job.guard);
    if (job.also) for (const { on, gap, guard } of job.also) keep(on, gap, guard);
  }
  return ends;
}

function latenessOf(
  jobs: readonly Job[],
  order: readonly number[],
  ends: Float64Array,
): Pick<Cost, 'maxLate' | 'totalLate'> {
  let maxLate = 0;
  let totalLate = 0;
  for (const i of order) {
    const late = ends[i]! - jobs[i]!.deadline;
    if (late <= 0) continue;
    totalLate += late;
    maxLate = Math.max(maxLate, late);
  }
  return { maxLate, totalLate };
}

/** What of guard and margin an order of messages falls short of, and how much earlier than the margin it is, in microseconds. */
export function shortfallOf(
  jobs: readonly Job[],
  order: readonly number[],
  ends: Float64Array,
): Pick<Cost, 'maxShort' | 'totalShort' | 'totalEarly'> {
  let maxShort = 0;
  let totalShort = 0;
  let totalEarly = 0;
  const missing = (is: Micros, of: Micros): void => {
    const short = Math.min(Math.max(0, is), of);
    totalShort += short;
    maxShort = Math.max(maxShort, short);
  };
  for (const i of order) {
    const job = jobs[i]!;
    const over = ends[i]! - wantedEnd(job);
    missing(over, job.margin);
    if (over < 0) totalEarly -= over;
    if (job.after >= 0) missing(ends[job.after]! + job.gap + job.guard - ends[i]!, job.guard);
    if (job.also) for (const { on, gap, guard } of job.also) missing(ends[on]! + gap + guard - ends[i]!, guard);
  }
  return { maxShort, totalShort, totalEarly };
}
