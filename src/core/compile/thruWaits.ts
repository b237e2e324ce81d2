import { addTo, extent } from '../groups';
import { latencyOf, type RigContext } from '../meaning';
import type { RigState } from '../rig';
import type { Micros } from '../time';
import { keepClose } from './carryBack';
import { Forecast, leavingOf, type Scheduled } from './forecast';
import type { PortJob, Writable } from './portJob';
import { waitsOf } from './schedule/job';

/**
 * Rounds in which waiting in thrus is made good. Sending a message earlier may have others wait: where
 * that does not come to rest, what follows a message that waits is kept a message's length further off.
 */
const EXACT_ROUNDS = 6;
const ROUNDS = 16;
const GRAIN: Micros = 0.01;

/**
 * When each message of a port ends. Where units pass on what they receive, a message may have to
 * wait in a thru, behind one that is longer than itself or behind what the unit relays: it is sent that much earlier
 * then. Gives the jobs with the deadlines that come of that.
 */
export function scheduleThrough(
  context: RigContext,
  from: RigState,
  list: readonly PortJob[],
  schedule: (jobs: readonly PortJob[]) => ArrayLike<Micros>,
): Scheduled {
  if (!list[0]!.path.thru) return { list, ends: schedule(list) };
  const jobs: Writable<PortJob>[] = list.map((job) => ({ ...job }));
  const reckoned: ThruWaits = { waits: new Float64Array(jobs.length), later: new Float64Array(jobs.length) };
  const followers = followersOf(jobs);
  const [, longest] = extent(jobs.map((job) => job.duration));
  let ends = schedule(jobs);
  for (let round = 0; round < ROUNDS; round++) {
    const found = waitsInThrus(context, from, jobs, ends);
    if (!makeGood(jobs, followers, reckoned, found, round < EXACT_ROUNDS ? 0 : longest)) break;
    keepClose(jobs);
    ends = schedule(jobs);
  }
  return { list: jobs, ends };
}

/** For each job, by its index, those that wait for it. */
type Followers = ReadonlyMap<number, readonly number[]>;

function followersOf(jobs: readonly PortJob[]): Followers {
  const followers = new Map<number, number[]>();
  for (const [i, job] of jobs.entries()) for (const { on } of waitsOf(job)) addTo(followers, on, i);
  return followers;
}

/**
 * Moves the deadlines of jobs back by what they wait in thrus more than was `reckoned` until now, and has what counts
 * from their arrival wait longer. `slack` is added to each wait. Whether anything was left to make good.
 */
function makeGood(
  jobs: Writable<PortJob>[],
  followers: Followers,
  reckoned: ThruWaits,
  found: ThruWaits,
  slack: Micros,
): boolean {
  let more = false;
  for (const [i, job] of jobs.entries()) {
    const wait = Math.max(0, found.waits[i]! - reckoned.waits[i]!);
    const later = Math.max(0, found.later[i]! - reckoned.later[i]!);
    if (wait <= GRAIN && later <= GRAIN) continue;
    more = true;
    reckoned.waits[i]! += wait;
    reckoned.later[i]! += later;
    job.deadline -= wait + later;
    // What counts from this message's arrival, or from that of what it has others told, is later too.
    for (const k of followers.get(i) ?? []) {
      const next = jobs[k]!;
      if (next.after === i && next.gap > 0) next.gap += wait + slack;
      next.also = waitLonger(next.also, i, wait + later + slack);
    }
    if (later > GRAIN) bringPresetForward(jobs, followers, i, later, slack);
  }
  return more;
}

/** A variant is there no sooner than its preset: what its rules send is reckoned from that too. */
function bringPresetForward(
  jobs: Writable<PortJob>[],
  followers: Followers,
  i: number,
  later: Micros,
  slack: Micros,
): void {
  const preset = presetBefore(jobs, i);
  if (preset < 0) return;
  jobs[preset]!.deadline -= later;
  for (const k of followers.get(preset) ?? []) {
    const next = jobs[k]!;
    if (next.unit !== jobs[i]!.unit) next.also = waitLonger(next.also, preset, later + slack);
  }
}

/** Waits, those for one message longer by a time. */
const waitLonger = (waits: PortJob['also'], on: number, by: Micros): PortJob['also'] =>
  waits && waits.map((w) => (w.on === on ? { ...w, gap: w.gap + by } : w));

/** The recall of the same change of the same unit, ahead of a message; -1 for none. */
function presetBefore(list: readonly PortJob[], i: number): number {
  const { unit, cueId } = list[i]!;
  for (let k = i - 1; k >= 0 && list[k]!.cueId === cueId && list[k]!.unit === unit; k--) {
    const { send } = list[k]!;
    if ('kind' in send && send.kind === 'recall') return k;
  }
  return -1;
}

interface ThruWaits {
  /** How long each message waits in thrus on the way to its unit. */
  readonly waits: Float64Array;
  /** By how much what its rules send waits. */
  readonly later: Float64Array;
}

function waitsInThrus(
  context: RigContext,
  from: RigState,
  list: readonly PortJob[],
  ends: ArrayLike<Micros>,
): ThruWaits {
  const waits = new Float64Array(list.length);
  const later = new Float64Array(list.length);
  const places = new Map(list.map((job, i) => [job, i]));
  const cast = new Forecast(context, from, (job, at) => {
    const i = places.get(job)!;
    waits[i] = at - ends[i]! - latencyOf(job.path, job.send.bytes);
  });
  cast.play(leavingOf([{ list, ends }]));
  for (const [job, by] of cast.relayedLater()) later[places.get(job)!] = by;
  return { waits, later };
}
