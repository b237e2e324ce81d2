import type { RelaySpec, UnitSpec } from '../rig';
import { CABLE_TIMING, DIN_BYTE_MICROS, type Bytes, type Cable } from '../midi';
import { millisToMicros, type Micros } from '../time';
import type { Step } from './expand';
import type { Job } from './schedule/job';

/** How bytes reach a unit: the cable that they leave on, and the units that pass them on. */
export interface Path {
  readonly portId: string;
  readonly cable: Cable;
  readonly hops: number;
}

/** From the end of a message on its cable to its arrival at the unit; a unit passes a message on when it has it whole. */
export const latencyOf = (path: Path, bytes: Bytes): Micros =>
  CABLE_TIMING[path.cable].latency + path.hops * bytes.length * DIN_BYTE_MICROS;

export const durationOf = (path: Path, bytes: Bytes): Micros => CABLE_TIMING[path.cable].byteMicros * bytes.length;

/** From the arrival of a message to its effect. */
export function effectTime(unit: UnitSpec, step: Step): Micros {
  const { times } = unit.profile;
  if (step.kind === 'recall') return millisToMicros(times.recall);
  if (step.kind === 'variant') return millisToMicros(times.variant);
  if (step.kind === 'control') return millisToMicros(times.control);
  return 0;
}

/** What else is on the cable may hold a change up by so much without anybody noticing. */
const HELD_UP: Micros = 5000;

/** From the moment that a change leaves, one message after the other, until the last of it is there. */
export function sentTime(unit: UnitSpec, path: Path, steps: readonly Step[]): Micros {
  let sent = 0;
  let there = 0;
  for (const step of steps) {
    sent += durationOf(path, step.bytes);
    there = Math.max(there, sent + latencyOf(path, step.bytes) + effectTime(unit, step));
  }
  return there === 0 ? 0 : there + HELD_UP;
}

/** From a step's effect until the last unit that it sets off by relay rules has changed too. */
export function relayTail(units: ReadonlyMap<string, UnitSpec>, relays: readonly RelaySpec[], depth = 0): Micros {
  if (relays.length === 0 || depth > units.size) return 0;
  let wire = 0;
  let tail = 0;
  for (const relay of relays) {
    for (const bytes of relay.messages) wire += bytes.length * DIN_BYTE_MICROS;
    const target = units.get(relay.toUnit);
    if (!target) continue;
    const onward = relayTail(
      units,
      target.relays.filter((r) => r.variant === null),
      depth + 1,
    );
    tail = Math.max(tail, wire + millisToMicros(target.profile.times.recall) + onward);
  }
  return tail;
}

/** A job that is still on its way to its port's schedule. */
export interface PlannedJob extends Job {
  readonly cueId: string;
  readonly unit: UnitSpec;
  readonly path: Path;
  readonly step: Step;
  readonly origin: Release;
}

/** What a job may not leave before: the start of the song, or the due time of another cue. */
export interface Release {
  readonly at: Micros;
  /** Null is the start of the song, less the time that it allows. */
  readonly cueId: string | null;
  /** When the job's own cue is due. */
  readonly due: Micros;
}

/** Bytes for a whole port and no unit: its clock. */
export interface RawJob extends Job {
  readonly cueId: string;
  readonly unit: null;
  readonly path: Path;
  readonly step: { readonly bytes: Bytes };
}

/** Whatever waits to leave on a port. */
export type PortJob = PlannedJob | RawJob;

/** Where a unit's messages stand: what the next one has to follow. */
export interface Chain {
  /** Index in the port's list of the unit's last message, -1 for none. */
  last: number;
  lastWasRecall: boolean;
  lastLatency: Micros;
}

export const newChain = (): Chain => ({ last: -1, lastWasRecall: false, lastLatency: 0 });

/** The least time between the ends of a unit's last message and the next, for settling after a recall. */
export function gapAfter(chain: Chain, unit: UnitSpec, latency: Micros): Micros {
  if (!chain.lastWasRecall) return 0;
  return Math.max(0, millisToMicros(unit.profile.times.settle) + chain.lastLatency - latency);
}

/** While it is being made. */
type Writable<T> = { -readonly [K in keyof T]: T[K] };

/**
 * Appends one cue's messages for one unit to its port's list. Landing complete: every
 * effect is there at the due time. Landing sent: the first byte leaves at it, the rest follow
 * as soon as the unit takes them.
 */
export function planSteps(
  list: PortJob[],
  chain: Chain,
  units: ReadonlyMap<string, UnitSpec>,
  cue: { readonly cueId: string; readonly landing: 'complete' | 'sent' },
  origin: Release,
  unit: UnitSpec,
  path: Path,
  steps: readonly Step[],
): void {
  const first = list.length;
  const { due, at: release } = origin;
  const jobs: Writable<PlannedJob>[] = [];
  let end = due;
  for (const step of steps) {
    const duration = durationOf(path, step.bytes);
    const latency = latencyOf(path, step.bytes);
    const gap = gapAfter(chain, unit, latency);
    end = Math.max(end + duration, jobs.length > 0 ? jobs[jobs.length - 1]!.deadline + gap : 0);
    const deadline =
      cue.landing === 'sent' ? end : due - effectTime(unit, step) - relayTail(units, step.relays) - latency;
    jobs.push({
      cueId: cue.cueId,
      unit,
      path,
      step,
      origin,
      duration,
      deadline,
      release: cue.landing === 'sent' ? Math.max(release, due) : release,
      after: chain.last,
      gap,
    });
    chain.last = first + jobs.length - 1;
    chain.lastWasRecall = step.kind === 'recall';
    chain.lastLatency = latency;
  }
  // What follows must have its time, so deadlines move back from the last message to the first.
  for (let i = jobs.length - 2; i >= 0; i--) {
    const next = jobs[i + 1]!;
    jobs[i]!.deadline = Math.min(jobs[i]!.deadline, next.deadline - Math.max(next.duration, next.gap));
  }
  list.push(...jobs);
}
