import type { Micros } from '../../time';
import { bestOrder } from './exact';
import { improveOrder } from './improve';
import { workOf, type Job } from './job';
import { leastLate } from './leastLate';
import { twoPasses, type Placed } from './twoPasses';

/** Clusters of up to this many messages are searched exactly. */
export const EXACT_LIMIT = 8;
/** Clusters of up to this many messages have the smallest maximum lateness there is, and the rest of the cost nearly so. */
export const LATENESS_LIMIT = 12;
/** Places that are looked at for the rest of the cost. */
const VISIT_LIMIT = 60_000;

/**
 * When each message of one port ends. Wanted, in this order: smallest maximum lateness,
 * smallest total lateness, smallest total earliness. `jobs` come in the order in which a
 * unit's messages must follow each other, so `after` always points back.
 */
export function schedulePort(jobs: readonly Job[]): Placed {
  const order = byDeadline(jobs);
  const found: number[] = [];
  for (const cluster of clusters(jobs, order)) {
    if (cluster.length === 1) found.push(cluster[0]!);
    else for (const i of orderCluster(jobs, cluster)) found.push(i);
  }
  return twoPasses(jobs, found);
}

/** Nearest deadline first, but no message before it may leave, nor before the one that it follows. */
function byDeadline(jobs: readonly Job[]): number[] {
  const key = new Float64Array(jobs.length);
  for (const [i, job] of jobs.entries()) {
    key[i] = Math.max(job.deadline, job.release + job.duration);
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
  minDeadline: Micros;
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
      lower: job.deadline - work,
      upper: Math.max(job.deadline, job.release + work),
      minDeadline: job.deadline,
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
  const minDeadline = Math.min(a.minDeadline, b.minDeadline);
  const maxDeadline = Math.max(a.maxDeadline, b.maxDeadline);
  const maxRelease = Math.max(a.maxRelease, b.maxRelease);
  return {
    first: a.first,
    last: b.last,
    lower: minDeadline - work,
    upper: Math.max(maxDeadline, maxRelease + work),
    minDeadline,
    maxDeadline,
    maxRelease,
    work,
  };
}

/** Orders that were found, by the shape of their cluster: as many as have so many letters in their shapes together. */
const known = new Map<string, readonly number[]>();
const KNOWN_LETTERS = 8_000_000;
let letters = 0;

/**
 * The best order of one cluster. Songs repeat themselves, and are compiled again with most of them as it was, so an
 * answer is kept under the cluster's shape: the same times relative to its first deadline.
 */
function orderCluster(jobs: readonly Job[], cluster: readonly number[]): readonly number[] {
  const place = new Map([...cluster].sort((a, b) => a - b).map((i, k) => [i, k]));
  const members = [...place.keys()];
  const local = members.map((i) => {
    const job = jobs[i]!;
    const also = job.also?.flatMap(({ on, gap }) => (place.has(on) ? [{ on: place.get(on)!, gap }] : []));
    return { ...job, after: place.get(job.after) ?? -1, also: also && also.length > 0 ? also : null };
  });
  const origin = local.reduce((low, j) => Math.min(low, j.deadline), Number.POSITIVE_INFINITY);
  const start = cluster.map((i) => place.get(i)!);
  const key = shape(local, start, origin);
  let order = known.get(key);
  if (!order) {
    order = orderOf(local, start);
    letters += key.length;
    if (letters > KNOWN_LETTERS) {
      known.clear();
      letters = key.length;
    }
    known.set(key, order);
  }
  return order.map((k) => members[k]!);
}

function orderOf(jobs: readonly Job[], start: readonly number[]): readonly number[] {
  if (jobs.length <= EXACT_LIMIT) return bestOrder(jobs, start);
  const improved = improveOrder(jobs, start);
  if (jobs.length > LATENESS_LIMIT) return improved;
  const least = leastLate(jobs, improved);
  // With the least lateness as its bound, the search for the other two figures mostly comes to its end.
  return bestOrder(jobs, least === improved ? improved : improveOrder(jobs, least), VISIT_LIMIT);
}

function shape(jobs: readonly Job[], start: readonly number[], origin: Micros): string {
  const round = (t: Micros): number => Math.round((t - origin) * 1000);
  return jobs
    .map((j, k) => [j.duration, round(j.deadline), round(j.release), j.after, j.gap, start[k], alsoShape(j)].join(','))
    .join(';');
}

const alsoShape = ({ also }: Job): string => (also ? also.map((w) => `${w.on}+${Math.round(w.gap)}`).join('&') : '');
