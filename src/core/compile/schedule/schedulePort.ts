import type { Micros } from '../../time';
import { bestOrder } from './exact';
import { improveOrder } from './improve';
import { wantedEnd, workOf, type Job } from './job';
import { leastLate } from './leastLate';
import { placeAt, timeOrder, type Placed } from './timeOrder';

/** Clusters of up to this many messages are searched exactly. */
export const EXACT_LIMIT = 8;
/** Clusters of up to this many messages have the smallest maximum lateness there is, and the rest of the cost nearly so. */
export const LATENESS_LIMIT = 12;
/** Places that are looked at for the rest of the cost. */
const VISIT_LIMIT = 60_000;

/**
 * When each message of one port ends. Wanted, in this order, of all messages that get in each other's way: smallest
 * maximum lateness, smallest total lateness, smallest shortfall of margins and guards (the largest first, then their
 * sum), smallest total earliness beyond the margins. `jobs` come in the order in which a unit's messages must follow
 * each other, so `after` always points back.
 */
export function schedulePort(jobs: readonly Job[]): Placed {
  const found: number[] = [];
  const aims = new Float64Array(jobs.length);
  for (const cluster of contending(jobs)) {
    if (cluster.length === 1) {
      found.push(cluster[0]!);
      aims[cluster[0]!] = wantedEnd(jobs[cluster[0]!]!);
      continue;
    }
    const { order, ends } = timeCluster(jobs, cluster);
    for (const [k, i] of order.entries()) {
      found.push(i);
      aims[i] = ends[k]!;
    }
  }
  return placeAt(jobs, found, aims);
}

/** Messages that may get in each other's way, by their indexes: in whatever order, none meets one of another run. */
export const contending = (jobs: readonly Job[]): number[][] => clusters(jobs, byDeadline(jobs));

/** Nearest deadline first, but no message before it may leave, nor before the one that it follows. */
function byDeadline(jobs: readonly Job[]): number[] {
  const key = new Float64Array(jobs.length);
  for (const [i, job] of jobs.entries()) {
    key[i] = Math.max(wantedEnd(job), job.release + job.duration);
    if (job.after >= 0) key[i] = Math.max(key[i], key[job.after]!);
    if (job.also) for (const { on } of job.also) key[i] = Math.max(key[i], key[on]!);
  }
  return jobs.map((_, i) => i).sort((a, b) => key[a]! - key[b]! || a - b);
}

interface Cluster {
  readonly first: number;
  last: number;
  /** However its messages are ordered, none needs to start before this. */
  lower: Micros;
  /** However its messages are ordered, none needs to end after this. */
  upper: Micros;
  minWanted: Micros;
  maxDeadline: Micros;
  maxRelease: Micros;
  work: Micros;
}

/** Cuts the order into runs that cannot get in each other's way, whatever order each run is in. */
function clusters(jobs: readonly Job[], order: readonly number[]): number[][] {
  const stack: Cluster[] = [];
  for (const [place, i] of order.entries()) {
    const job = jobs[i]!;
    const work = workOf(job);
    let top: Cluster = {
      first: place,
      last: place,
      lower: wantedEnd(job) - work,
      upper: Math.max(job.deadline, job.release + work),
      minWanted: wantedEnd(job),
      maxDeadline: job.deadline,
      maxRelease: job.release,
      work,
    };
    for (let before = stack.at(-1); before && before.upper > top.lower; before = stack.at(-1)) {
      stack.pop();
      top = join(before, top);
    }
    stack.push(top);
  }
  return stack.map((c) => order.slice(c.first, c.last + 1));
}

function join(a: Cluster, b: Cluster): Cluster {
  const work = a.work + b.work;
  const minWanted = Math.min(a.minWanted, b.minWanted);
  const maxDeadline = Math.max(a.maxDeadline, b.maxDeadline);
  const maxRelease = Math.max(a.maxRelease, b.maxRelease);
  return {
    first: a.first,
    last: b.last,
    lower: minWanted - work,
    upper: Math.max(maxDeadline, maxRelease + work),
    minWanted,
    maxDeadline,
    maxRelease,
    work,
  };
}

/** A cluster's best order, as indexes of its members, with their ends after its first deadline. */
interface Found {
  readonly order: readonly number[];
  readonly ends: readonly Micros[];
}

/** What was found, by the shape of the cluster: as many as have so many letters in their shapes together. */
const known = new Map<string, Found>();
const KNOWN_LETTERS = 8_000_000;
let letters = 0;

/**
 * The best order and times of one cluster. Songs repeat themselves, and are compiled again with most of them as it
 * was, so an answer is kept under the cluster's shape: the same times relative to its first deadline.
 */
function timeCluster(jobs: readonly Job[], cluster: readonly number[]): Found {
  const place = new Map([...cluster].sort((a, b) => a - b).map((i, k) => [i, k]));
  const members = [...place.keys()];
  const origin = members.reduce((low, i) => Math.min(low, jobs[i]!.deadline), Number.POSITIVE_INFINITY);
  const local = members.map((i): Job => {
    const job = jobs[i]!;
    const also = job.also?.flatMap((w) => (place.has(w.on) ? [{ ...w, on: place.get(w.on)! }] : []));
    return {
      duration: job.duration,
      deadline: job.deadline - origin,
      margin: job.margin,
      release: job.release - origin,
      after: place.get(job.after) ?? -1,
      gap: job.gap,
      guard: job.guard,
      also: also && also.length > 0 ? also : null,
    };
  });
  const start = cluster.map((i) => place.get(i)!);
  const key = shape(local, start);
  let found = known.get(key);
  if (!found) {
    found = timesOf(local, start);
    letters += key.length;
    if (letters > KNOWN_LETTERS) {
      known.clear();
      letters = key.length;
    }
    known.set(key, found);
  }
  return { order: found.order.map((k) => members[k]!), ends: found.ends.map((end) => origin + end) };
}

function timesOf(jobs: readonly Job[], start: readonly number[]): Found {
  const order = orderOf(jobs, start);
  const { ends } = timeOrder(jobs, order, jobs.length > LATENESS_LIMIT ? 'one-pass' : 'least');
  return { order, ends: order.map((k) => ends[k]!) };
}

function orderOf(jobs: readonly Job[], start: readonly number[]): readonly number[] {
  if (jobs.length <= EXACT_LIMIT) return bestOrder(jobs, start);
  const improved = improveOrder(jobs, start);
  if (jobs.length > LATENESS_LIMIT) return improved;
  const least = leastLate(jobs, improved);
  // With the least lateness as its bound, the search for the other figures mostly comes to its end.
  return bestOrder(jobs, least === improved ? improved : improveOrder(jobs, least), 'one-pass', VISIT_LIMIT);
}

function shape(jobs: readonly Job[], start: readonly number[]): string {
  return jobs
    .map((j, k) =>
      [
        j.duration,
        nanos(j.deadline),
        j.margin,
        nanos(j.release),
        j.after,
        nanos(j.gap),
        nanos(j.guard),
        start[k],
        alsoShape(j),
      ].join(','),
    )
    .join(';');
}

const nanos = (t: Micros): number => Math.round(t * 1000);

const alsoShape = ({ also }: Job): string =>
  also ? also.map((w) => `${w.on}+${nanos(w.gap)}+${nanos(w.guard)}`).join('&') : '';
