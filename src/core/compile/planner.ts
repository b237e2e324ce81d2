import { entry } from '../groups';
import {
  calledUntil,
  durationOf,
  latencyOf,
  type Path,
  type RigContext,
  type RelayEffects,
  type Room,
} from '../meaning';
import { effectAfter, type UnitSpec } from '../rig';
import type { Micros } from '../time';
import { carryBack } from './carryBack';
import type { Send, UnitSends } from './expand';
import type { PlannedJob, Release, Writable } from './portJob';
import type { Wait } from './schedule/job';
import { UnitQueue, type Pending, type Timing } from './unitQueue';

/** One moment of a song, as it is planned. */
export interface Turn {
  readonly cueId: string;
  readonly landing: 'complete' | 'sent';
  readonly due: Micros;
}

/** Where there is time, relay effects are over, plus this, before more are triggered. */
const PATIENCE: Micros = 1000;

/** What one moment sends to one unit, while it is queued. */
interface Queueing {
  readonly turn: Turn;
  /** Tells it from other moments and units. */
  readonly number: number;
  readonly list: Writable<PlannedJob>[];
  /** Index in the list of the moment's first message. */
  readonly start: number;
  readonly path: Path;
  readonly unit: UnitSpec;
  readonly sends: readonly Send[];
  readonly origin: Release;
  readonly queue: UnitQueue;
  readonly room: Room;
  /** Index in the list of the first message of these. */
  readonly first: number;
  /** When the message before ends, where all leave as soon as the unit takes them. */
  end: Micros;
  /** The recall among them: its index, its effect from its end, and how far behind it the last message ends. */
  recall: { readonly on: number; readonly effect: Micros; behind: Micros } | undefined;
}

/**
 * Queues messages per port with their release times, deadlines and predecessors: the message before to the same unit,
 * with the settling of a recall; messages whose relay rules called the unit; presets that would be lost if another
 * took their place. (Time and order: `schedule/`.)
 */
export class Planner {
  readonly lists = new Map<string, Writable<PlannedJob>[]>();
  private readonly queues = new Map<string, UnitQueue>();
  private turns = 0;

  constructor(
    private readonly context: RigContext,
    /** Whether relay effects are over before more is sent: for catch-up, where there is time. */
    private readonly patient = false,
  ) {}

  /**
   * Queues one moment. Landing complete: every effect is there at the due time, relay effects
   * included. Landing sent: the first byte leaves at it, the rest follow as soon as the
   * units take them.
   */
  add(turn: Turn, all: readonly UnitSends[], releaseOf: (sends: UnitSends) => Release): void {
    const starts = new Map<string, number>();
    for (const { unit, sends, unreached } of all) {
      const path = this.context.paths.get(unit.id);
      if (!path) continue;
      const list = entry(this.lists, path.portId, () => []);
      const start = entry(starts, path.portId, () => list.length);
      const origin = releaseOf({ unit, sends, unreached });
      if (sends.length === 0) continue;
      const queue = this.queueOf(unit, path.portId);
      const room = this.context.room.get(unit.id)!;
      const number = ++this.turns;
      const first = list.length;
      const { due: end } = origin;
      this.queueAll({
        turn,
        number,
        list,
        start,
        path,
        unit,
        sends,
        origin,
        queue,
        room,
        first,
        end,
        recall: undefined,
      });
    }
    for (const [portId, start] of starts) carryBack(this.lists.get(portId)!, start);
  }

  private queueAll(q: Queueing): void {
    for (const send of q.sends) {
      const timing = timingOf(q, send);
      const waits: Wait[] = [];
      q.queue.addWaitsFor(waits, send, q.number, q.path.spread, timing);
      if (send.relayEffects) this.addWaitsOfRelayed(waits, q, send.relayEffects, timing);
      const gap = q.queue.gapBefore(q.path, send.bytes, timing.latency);
      const guard = q.queue.guardBefore(q.path, timing.latency, gap);
      if (q.recall) q.recall.behind += Math.max(timing.duration, gap + guard);
      const deadline =
        q.turn.landing === 'sent' ? asSoonAsTaken(q, timing, gap + guard, waits) : inTime(q, timing, send.relayEffects);
      if (q.turn.landing === 'complete' && send.relayEffects) bringPresetForward(q, send.relayEffects);
      const on = q.list.length;
      q.list.push(jobOf(q, send, timing, { deadline, gap, guard, waits }));
      if (send.kind === 'recall') q.recall = { on, effect: timing.effect, behind: 0 };
      this.noteSent(q, send, timing, on);
    }
  }

  private queueOf(unit: UnitSpec, portId: string): UnitQueue {
    return entry(this.queues, unit.id, () => new UnitQueue(portId, this.context.room.get(unit.id)!.guard));
  }

  /** A message whose rules call other units waits until these accept the call. */
  private addWaitsOfRelayed(
    waits: Wait[],
    { path, number }: Queueing,
    { relayed }: RelayEffects,
    { effect, sooner }: Timing,
  ): void {
    for (const call of relayed) {
      const queue = this.queues.get(call.unit.id);
      if (queue?.portId === path.portId) queue.addWaitsToBeCalled(waits, call, effect - sooner, number);
    }
  }

  /** Notes on the queues of the unit, and of those that its rules call, what has to go by. */
  private noteSent(q: Queueing, send: Send, { latency, effect }: Timing, on: number): void {
    const { queue, unit } = q;
    const { preset } = queue;
    const pending: Pending = { on, until: effect, turn: q.number };
    const firesRules = send.kind === 'recall' && firesRulesAt(q);
    queue.sent(unit, send, pending, latency, q.turn.landing === 'sent' || firesRules, firesRules);
    if (!send.relayEffects) return;
    this.noteCalled(q, send.relayEffects, pending);
    if (send.kind === 'variant' && preset) this.noteCalled(q, send.relayEffects, { ...preset, turn: q.number });
  }

  /** Notes on the queues of units that rules call what has to go by. `by.until` is when the message takes effect. */
  private noteCalled({ path, turn }: Queueing, { relayed }: RelayEffects, by: Pending): void {
    for (const call of relayed) {
      const { unit } = call;
      const queue = this.queueOf(unit, path.portId);
      if (queue.portId !== path.portId) continue;
      const { settled, there } = calledUntil(call);
      const until = by.until + (this.patient ? Math.max(settled, there) + PATIENCE : settled);
      const firesRules = unit.relays.length > 0;
      const keepsPlace = turn.landing === 'sent' || firesRules;
      queue.called({ ...by, until }, keepsPlace ? { ...by, until: by.until + there, firesRules } : null);
    }
  }
}

/**
 * Whether the recall of a change has to be there before anything takes its place: its own rules, or those of what
 * follows it, would never be carried out else. A variant whose preset never came would count for the preset before,
 * and what the rules say of that one.
 */
const firesRulesAt = ({ unit, sends }: Queueing): boolean =>
  (unit.relays.length > 0 && sends.some((s) => s.kind === 'variant')) || sends.some((s) => s.relayEffects !== null);

function timingOf({ path, unit }: Queueing, { bytes, kind, reaches }: Send): Timing {
  const latency = latencyOf(path, bytes);
  const slot = kind === 'recall' ? reaches : null;
  const own = (at: Pick<UnitSpec, 'pace'>): Micros =>
    kind === 'recall' || kind === 'variant' || kind === 'control' ? effectAfter(at, kind, slot) : 0;
  const worst = own(unit);
  const sooner = path.spread + worst - own({ pace: unit.paces.soonest });
  return { duration: durationOf(path, bytes), latency, effect: latency + worst, sooner };
}

/** Landing complete: the deadline of a message whose effect and relay effects are there at the due time. */
const inTime = ({ origin }: Queueing, { effect }: Timing, relayEffects: RelayEffects | null): Micros =>
  origin.due - effect - (relayEffects?.tail ?? 0);

/** Landing sent: the deadline of a message that leaves as soon as the unit takes it. */
function asSoonAsTaken(q: Queueing, { duration }: Timing, gap: Micros, waits: readonly Wait[]): Micros {
  let end = q.end + duration;
  if (q.list.length > q.first) end = Math.max(end, q.list.at(-1)!.deadline + gap);
  for (const w of waits) if (w.on >= q.start) end = Math.max(end, q.list[w.on]!.deadline + w.gap + w.guard);
  return (q.end = end);
}

/** A variant takes effect no sooner than the preset that loads: its relay effects wait for that. */
function bringPresetForward({ list, origin, queue, number }: Queueing, { tail }: RelayEffects): void {
  const { preset } = queue;
  if (preset?.turn !== number) return;
  const job = list[preset.on]!;
  job.deadline = Math.min(job.deadline, origin.due - preset.until - tail);
}

function jobOf(
  { turn, unit, path, origin, queue, room, recall }: Queueing,
  send: Send,
  { duration, effect }: Timing,
  { deadline, gap, guard, waits }: Pick<PlannedJob, 'deadline' | 'gap' | 'guard'> & { readonly waits: readonly Wait[] },
): PlannedJob {
  const follows = send.kind === 'variant' || send.kind === 'control' ? recall : undefined;
  return {
    cueId: turn.cueId,
    unit,
    path,
    send,
    origin,
    duration,
    deadline,
    // What is sent on its beat is not sent before it.
    margin: turn.landing === 'sent' ? 0 : room.margin,
    release: turn.landing === 'sent' ? Math.max(origin.at, origin.due) : origin.at,
    after: queue.last,
    gap,
    guard,
    also: waits.length > 0 ? waits : null,
    closeTo: follows ? { on: follows.on, maxBehind: Math.max(follows.behind, follows.effect - effect) } : null,
  };
}
