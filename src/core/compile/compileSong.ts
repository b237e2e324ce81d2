import type { RigSpec, RigState, UnitAim, UnitSpec } from '../rig';
import { fromHex, type TimedBytes } from '../midi';
import { NOWHERE, problem, type Problem } from '../problems';
import { indexShow, microsAt, songTime, type Show, type Song, type Tone } from '../show';
import { moments, rigSpec, routeTo, toneAims, type Moment } from '../meaning';
import { millisToMicros, type Micros } from '../time';
import { CheckpointKeeper } from './checkpoints';
import { entry } from './entry';
import { StateFold, expandAim, expandMessage, relayOrder, type Step } from './expand';
import { Forecast } from './forecast';
import { clockJobs } from './clock';
import { latesOf, type Late } from './lateness';
import {
  latencyOf,
  newChain,
  planSteps,
  sentTime,
  type Chain,
  type Path,
  type PlannedJob,
  type PortJob,
  type Release,
} from './jobs';
import { schedulePort } from './schedule/schedulePort';

/** When a unit will be as a cue wants it, by the compiler's reckoning. */
export interface Forecasted {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  /** When the last effect is there. */
  readonly complete: Micros;
}

export interface CompiledSong {
  readonly songId: string;
  /** In the order in which they leave. Times count from tick 0; the opening may leave before it. */
  readonly events: readonly TimedBytes[];
  /** Worked out when it is first asked for: sending does not need it. */
  readonly forecasts: readonly Forecasted[];
  /** Changes that come late, with the reason; worked out when first asked for. */
  readonly lates: readonly Late[];
  readonly problems: readonly Problem[];
  /** When the last bar ends. */
  readonly end: Micros;
}

interface ShowContext {
  readonly spec: RigSpec;
  readonly units: ReadonlyMap<string, UnitSpec>;
  readonly order: ReadonlyMap<string, number>;
  readonly paths: ReadonlyMap<string, Path>;
  readonly channels: ReadonlyMap<string, number>;
  /** What a tone sends to: unit and aim, relaying units first. Made once a tone. */
  readonly plans: WeakMap<Tone, readonly TonePlan[]>;
}

interface TonePlan {
  readonly unit: UnitSpec;
  readonly channel: number;
  readonly aim: UnitAim;
}

const contexts = new WeakMap<RigSpec, ShowContext>();

/** What compiling needs of the rig, made once a rig. */
export function contextOf(show: Show): ShowContext {
  const spec = rigSpec(show);
  const kept = contexts.get(spec);
  if (kept) return kept;
  const ports = new Map(spec.ports.map((p) => [p.id, p]));
  const paths = new Map<string, Path>();
  for (const unit of show.units) {
    const route = routeTo(show, unit);
    const port = route && ports.get(route.portId);
    if (route && port) paths.set(unit.id, { portId: port.id, cable: port.cable, hops: route.hops });
  }
  const context: ShowContext = {
    spec,
    units: new Map(spec.units.map((u) => [u.id, u])),
    order: new Map(relayOrder(spec).map((u, i) => [u.id, i])),
    paths,
    channels: new Map(show.units.map((u) => [u.id, u.channel])),
    plans: new WeakMap(),
  };
  contexts.set(spec, context);
  return context;
}

/** A moment's steps, unit by unit, those that relay to others first. */
export function expandCue(
  show: Show,
  context: ShowContext,
  fold: StateFold,
  moment: Moment,
  thrift: 'changes' | 'everything',
): { readonly unit: UnitSpec; readonly steps: readonly Step[] }[] {
  const { action } = moment;
  if (action.kind === 'values') {
    const unit = context.units.get(action.unitId);
    if (!unit) return [];
    const aim = { controls: action.values };
    return [{ unit, steps: expandAim(fold, unit, context.channels.get(unit.id)!, aim, thrift, false) }];
  }
  if (action.kind === 'message') {
    const unit = context.units.get(action.unitId);
    if (!unit) return [];
    return [{ unit, steps: expandMessage(fold, unit, fromHex(action.bytes)!) }];
  }
  const tone = indexShow(show).tones.get(action.toneId);
  if (!tone) return [];
  return planOf(show, context, tone).map(({ unit, channel, aim }) => ({
    unit,
    steps: expandAim(fold, unit, channel, aim, thrift, action.reload),
  }));
}

function planOf(show: Show, context: ShowContext, tone: Tone): readonly TonePlan[] {
  let plan = context.plans.get(tone);
  if (!plan) {
    const named = new Set(tone.parts.map((p) => p.unitId));
    // What only a relay rule brings is not sent: the unit before it does that.
    const aims = [...toneAims(show, tone)].filter(([unitId]) => named.has(unitId));
    aims.sort(([a], [b]) => context.order.get(a)! - context.order.get(b)!);
    plan = aims.map(([unitId, aim]) => ({
      unit: context.units.get(unitId)!,
      channel: context.channels.get(unitId)!,
      aim,
    }));
    context.plans.set(tone, plan);
  }
  return plan;
}

/**
 * All messages of a song with the times at which they leave, so that every cue lands as
 * it says, as far as units and cables allow. `from` is what is known of the rig before.
 */
export function compileSong(show: Show, song: Song, from: RigState = {}): CompiledSong {
  const context = contextOf(show);
  const time = songTime(song);
  const fold = new StateFold(context.units, from);
  const lists = new Map<string, PortJob[]>();
  const chains = new Map<string, Chain>();
  const dues = new Map<string, Dues>();
  const unreachable = new Set<string>();
  const earliest = -millisToMicros(song.preRoll);

  // What is known on the way makes every place of the song quick to reach later.
  const keeper = Object.keys(from).length === 0 ? new CheckpointKeeper() : undefined;
  for (const cue of moments(show, song)) {
    const due = microsAt(time, cue.at) + millisToMicros(cue.shift);
    keeper?.add(fold, due);
    for (const { unit, steps } of expandCue(show, context, fold, cue, 'changes')) {
      const origin = releaseOf(dues, unit.id, cue.id, due, earliest);
      const path = context.paths.get(unit.id);
      if (!path) {
        if (steps.length > 0) unreachable.add(unit.id);
        continue;
      }
      const list = entry(lists, path.portId, () => []);
      const chain = entry(chains, unit.id, newChain);
      const landing = { cueId: cue.id, landing: cue.landing };
      planSteps(list, chain, context.units, landing, origin, unit, path, steps);
      if (cue.landing === 'sent') {
        const last = dues.get(unit.id)!;
        last.there = Math.max(last.there, due + sentTime(unit, path, steps));
      }
    }
  }

  keeper?.keep(show, song);
  const { ports } = indexShow(show);
  for (const { id, portId } of song.clocks) {
    const port = ports.get(portId);
    if (port?.active) {
      entry(lists, portId, () => []).push(...clockJobs(song, id, { portId, cable: port.cable, hops: 0 }));
    }
  }

  const events: TimedBytes[] = [];
  const scheduled: Scheduled[] = [];
  for (const list of lists.values()) {
    const { ends } = schedulePort(list);
    scheduled.push({ list, ends });
    for (let i = 0; i < list.length; i++) {
      const { duration, path, step, cueId, unit } = list[i]!;
      events.push({ at: ends[i]! - duration, portId: path.portId, bytes: step.bytes, cueId, unitId: unit?.id ?? '' });
    }
  }
  // A stable sort: messages of one port that leave at once (USB) keep the order of their deadlines.
  events.sort((a, b) => a.at - b.at);
  let forecasts: readonly Forecasted[] | undefined;
  let lates: readonly Late[] | undefined;
  return {
    songId: song.id,
    events,
    get forecasts() {
      return (forecasts ??= forecast(show, song, context, sentOf(scheduled)));
    },
    get lates() {
      return (lates ??= scheduled.flatMap(({ list, ends }) => latesOf(list, ends)));
    },
    problems: [...unreachable].map((id) => noPort(show, id)),
    end: microsAt(time, time.end),
  };
}

interface Sent<J> {
  readonly job: J;
  readonly end: Micros;
}

/** One port's messages and when each ends. */
interface Scheduled {
  readonly list: readonly PortJob[];
  readonly ends: ArrayLike<Micros>;
}

/** All that is sent to units, in the order in which it leaves. */
function sentOf(scheduled: readonly Scheduled[]): Sent<PlannedJob>[] {
  const sent = scheduled.flatMap(({ list, ends }) => list.map((job, i) => ({ job, end: ends[i]! }))).filter(isPlanned);
  return sent.sort((a, b) => leave(a) - leave(b));
}

const isPlanned = (sent: Sent<PortJob>): sent is Sent<PlannedJob> => sent.job.unit !== null;

const leave = ({ job, end }: Sent<PortJob>): Micros => end - job.duration;

/** The last due time of a unit and whose it is, when that is there, and what changes that are due then may not leave before. */
interface Dues {
  due: Micros;
  there: Micros;
  cueId: string;
  before: { readonly at: Micros; readonly cueId: string | null };
}

/**
 * No message leaves before the previous change of its unit was due, or, where that one is
 * sent on its beat, is there: a preset would take the place of one that still loads, and
 * nobody would ever hear it. Cues on one place share it.
 */
function releaseOf(dues: Map<string, Dues>, unitId: string, cueId: string, due: Micros, earliest: Micros): Release {
  const last = dues.get(unitId);
  if (!last) dues.set(unitId, { due, there: due, cueId, before: { at: earliest, cueId: null } });
  else if (due > last.due) {
    dues.set(unitId, { due, there: due, cueId, before: { at: last.there, cueId: last.cueId } });
  }
  const { at, cueId: whose } = dues.get(unitId)!.before;
  return { at, cueId: whose, due };
}

function forecast(show: Show, song: Song, context: ShowContext, sent: readonly Sent<PlannedJob>[]): Forecasted[] {
  const time = songTime(song);
  const dueOf = new Map<string, Micros>();
  for (const cue of moments(show, song)) {
    dueOf.set(cue.id, microsAt(time, cue.at) + millisToMicros(cue.shift));
  }
  const found = new Map<string, Forecasted>();
  // A preset that another takes the place of never comes: nothing is promised of it.
  const cast = new Forecast(context.units, (unitId, effect) => {
    for (const [key, f] of found) if (f.unitId === unitId && f.complete === effect) found.delete(key);
  });
  const arrivals = sent.map(({ job, end }) => ({ job, at: end + latencyOf(job.path, job.step.bytes) }));
  arrivals.sort((a, b) => a.at - b.at);
  for (const { job, at } of arrivals) {
    cast.arrive(job.unit, job.step, at, (unitId, effect) => {
      const key = `${job.cueId}\n${unitId}`;
      const before = found.get(key);
      if (before && before.complete >= effect) return;
      found.set(key, { cueId: job.cueId, unitId, due: dueOf.get(job.cueId)!, complete: effect });
    });
  }
  return [...found.values()];
}

function noPort(show: Show, unitId: string): Problem {
  const { units, ports } = indexShow(show);
  const unit = units.get(unitId)!;
  const input = unit.input;
  const port = input?.from === 'port' ? ports.get(input.portId) : undefined;
  if (port && !port.active) {
    return problem('compile.port-off', 'error', NOWHERE, { unit: unit.name, port: port.name });
  }
  return problem('compile.no-port', 'error', NOWHERE, { unit: unit.name });
}
