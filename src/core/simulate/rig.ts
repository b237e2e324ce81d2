import { addTo } from '../groups';
import { CABLE_TIMING, DIN_BYTE_MICROS, StreamParser, type Bytes, type CableTiming } from '../midi';
import { EventQueue, type PortSpec, type RigSpec, type RigState, type UnitSpec } from '../rig';
import type { Micros } from '../time';

import type { Cause, TraceEntry } from './trace';
import { BY_PACE, type Timing } from './timing';
import { SimulatedUnit, type UnitHost } from './unit';

/** How often a message may be passed on before the rig is taken to run in a circle. */
const RELAY_LIMIT = 64;

/**
 * A rig made of its wires and units. Bytes go in at ports; what each unit makes of them
 * comes out as a trace. It has no clock: `advance` says how far time has come. It knows
 * nothing of cues or of the compiler.
 */
export class SimulatedRig {
  readonly trace: TraceEntry[] = [];
  private readonly queue = new EventQueue();
  private readonly units = new Map<string, SimulatedUnit>();
  private readonly specs: ReadonlyMap<string, UnitSpec>;
  private readonly byPort = new Map<string, UnitSpec[]>();
  private readonly byUnit = new Map<string, UnitSpec[]>();
  private readonly ports: ReadonlyMap<string, CableTiming & Pick<PortSpec, 'softThru' | 'delay' | 'delays'>>;
  private readonly parsers = new Map<string, PortParser>();
  private readonly outFree = new Map<string, Micros>();
  /** Until when each unit's out cable is busy, and with what. */
  private readonly outBusy = new Map<string, Passing>();

  constructor(
    spec: RigSpec,
    private readonly onTrace?: (entry: TraceEntry) => void,
    /** What units are on already; nothing is known of the others. */
    states: RigState = {},
    private readonly timing: Timing = BY_PACE,
  ) {
    this.specs = new Map(spec.units.map((u) => [u.id, u]));
    this.ports = new Map(spec.ports.map((p) => [p.id, { ...CABLE_TIMING[p.cable], ...p }]));
    for (const unit of spec.units) {
      this.units.set(unit.id, new SimulatedUnit(unit, this.host(unit), states[unit.id], timing));
      if (unit.input?.from === 'port') addTo(this.byPort, unit.input.portId, unit);
      if (unit.input?.from === 'unit') addTo(this.byUnit, unit.input.unitId, unit);
    }
  }

  /**
   * Puts bytes on a port's cable, not before `at` and not before the cable is free. Calls come in the order of `at`.
   * The trace names `event` as the cause of all that comes of it.
   */
  send(portId: string, at: Micros, bytes: Bytes, event = -1): void {
    const port = this.ports.get(portId);
    const spread = port ? port.delay - port.delays.soonest : 0;
    this.sendOn(portId, at, bytes, { event, passed: 0, spread, waited: 0, crossing: null, steps: 0 });
  }

  /** Has a unit send bytes of its own out of its out port, as a controller does when it is played. */
  play(unitId: string, at: Micros, messages: readonly Bytes[]): void {
    const unit = this.specs.get(unitId);
    if (unit) this.queue.push(at, () => this.fromOut(unit, at, messages, NO_CAUSE));
  }

  /** Sets a unit to learn: the next message on its channel is taken in and not obeyed. */
  waitToLearn(unitId: string): void {
    const unit = this.units.get(unitId);
    if (unit) unit.learning = true;
  }

  private sendOn(portId: string, at: Micros, bytes: Bytes, cause: Cause): void {
    const timing = this.ports.get(portId);
    if (!timing) {
      this.note({ kind: 'lost', at, portId, bytes });
      return;
    }
    let parser = this.parsers.get(portId);
    if (!parser) this.parsers.set(portId, (parser = new PortParser()));
    let end = Math.max(at, parser.free);
    for (const byte of bytes) {
      end += timing.byteMicros;
      for (const message of parser.push(byte)) {
        const arrival = end + timing.latency + timing.delay;
        // What comes in counts before what happens at the same moment, whenever it was sent.
        this.queue.pushFirst(arrival, () => {
          for (const unit of this.byPort.get(portId) ?? []) this.deliver(unit, arrival, message, cause);
        });
      }
    }
    parser.free = end;
  }

  /** Lets everything happen up to and at `until`. */
  advance(until: Micros): void {
    this.queue.runUntil(until);
  }

  /** Lets everything happen that is on its way. */
  settle(): void {
    this.queue.runUntil(Number.POSITIVE_INFINITY);
  }

  /** Whether nothing is on its way any more. */
  get quiet(): boolean {
    return this.queue.empty;
  }

  state(): RigState {
    return Object.fromEntries([...this.units].map(([id, unit]) => [id, unit.state]));
  }

  /** Whether a unit is loading a preset at the time that was last advanced to. */
  loading(unitId: string, at: Micros): boolean {
    return (this.units.get(unitId)?.busyUntil ?? Number.NEGATIVE_INFINITY) > at;
  }

  /** From when on a unit takes messages at once, as far as time has come. */
  acceptsAt(unitId: string): Micros {
    return this.units.get(unitId)?.acceptsAt ?? Number.NEGATIVE_INFINITY;
  }

  /** From when on a unit has nothing left to load, as far as time has come. */
  restsAt(unitId: string): Micros {
    return this.units.get(unitId)?.restsAt ?? Number.NEGATIVE_INFINITY;
  }

  private deliver(spec: UnitSpec, at: Micros, message: Bytes, cause: Cause): void {
    this.units.get(spec.id)!.receive(at, message, cause);
    const behind = this.byUnit.get(spec.id)?.filter((u) => u.input?.from === 'unit' && u.input.thru) ?? NOBODY;
    const { returns, pace, paces } = spec;
    if (behind.length === 0 && !returns?.thru) return;
    const slower = pace.thru - paces.soonest.thru;
    const on = slower === 0 ? cause : { ...cause, spread: cause.spread + slower };
    const pass = (from: Micros): void => {
      this.passOn(spec, behind, from, message, on);
      if (returns?.thru) this.comeBack(spec, returns.portId, from, message, on);
    };
    const thru = this.timing.thru(spec);
    if (thru > 0) this.queue.push(at + thru, () => pass(at + thru));
    else pass(at);
  }

  /** Bytes that a unit sends by itself: everything behind its out port receives them; the bytes say whom they are for. */
  private fromOut(spec: UnitSpec, at: Micros, messages: readonly Bytes[], cause: Cause): void {
    for (const bytes of messages) {
      this.passOn(spec, this.byUnit.get(spec.id) ?? NOBODY, at, bytes, cause);
      if (spec.returns) this.comeBack(spec, spec.returns.portId, at, bytes, cause);
    }
  }

  /** Along a cable back to the in side of a port, and out of it again where the port passes things on. */
  private comeBack(from: UnitSpec, portId: string, at: Micros, message: Bytes, cause: Cause): void {
    const timing = this.ports.get(portId);
    if (!timing || cause.passed >= RELAY_LIMIT) return;
    const key = `${from.id}>${portId}`;
    const arrival = Math.max(at, this.outFree.get(key) ?? at) + message.length * timing.byteMicros + timing.latency;
    this.outFree.set(key, arrival);
    this.queue.push(arrival, () => {
      this.note({ kind: 'returned', at: arrival, portId, bytes: message, unitId: from.id });
      if (timing.softThru) this.sendOn(portId, arrival, message, passedOn(cause));
    });
  }

  /**
   * A unit's out cable is a 5-pin one: thru and relayed messages share it, byte after byte. Where it is
   * split to several units, each receives the same bytes at the same time.
   */
  private passOn(from: UnitSpec, to: readonly UnitSpec[], at: Micros, message: Bytes, cause: Cause): void {
    if (to.length === 0 || cause.passed >= RELAY_LIMIT) return;
    const before = this.outBusy.get(from.id);
    const wait = Math.max(0, (before?.until ?? at) - at);
    const arrival = at + wait + message.length * DIN_BYTE_MICROS;
    let on = passedOn(
      wait === 0 ? cause : { ...cause, waited: cause.waited + mayFallAway(wait, before!.cause, cause) },
    );
    if (from.relays.length > 0) {
      on = { ...on, crossing: { slack: Number.POSITIVE_INFINITY, held: 0, ...cause.crossing } };
      if (before && !inOrder(before.cause, on)) meet(before, on, at - before.until);
    }
    this.outBusy.set(from.id, { from: arrival - message.length * DIN_BYTE_MICROS, until: arrival, cause: on });
    for (const next of to) this.queue.push(arrival, () => this.deliver(next, arrival, message, on));
  }

  private host(spec: UnitSpec): UnitHost {
    return {
      later: (at: Micros, run: () => void): void => this.queue.push(at, run),
      note: (entry: TraceEntry): void => this.note(entry),
      relay: (at: Micros, messages: readonly Bytes[], cause: Cause): void => {
        this.fromOut(spec, at, messages, cause);
      },
    };
  }

  private note(entry: TraceEntry): void {
    if (this.onTrace) this.onTrace(entry);
    else this.trace.push(entry);
  }
}

/** How much of a wait for what was sent before falls away where that comes later; what one port sends keeps its order. */
const mayFallAway = (wait: Micros, before: Cause, cause: Cause): Micros =>
  inOrder(before, cause) ? Math.min(wait, before.waited) : wait;

/** A message on a cable. */
interface Passing {
  readonly from: Micros;
  readonly until: Micros;
  readonly cause: Cause;
}

/** What one port sends keeps its order, and so does what goes back to the same message. */
const inOrder = (one: Cause, other: Cause): boolean =>
  one.event === other.event || (one.steps === 0 && other.steps === 0);

/** Notes on both that the one before, if it came later by the time between them, would hold up the other, or come after it. */
function meet({ from, until, cause: first }: Passing, { crossing }: Cause, between: Micros): void {
  const length = until - from;
  for (const of of [first.crossing, crossing]) {
    if (!of) continue;
    of.slack = Math.min(of.slack, Math.max(0, between));
    of.held = Math.max(of.held, length);
  }
}

const passedOn = (cause: Cause): Cause => ({ ...cause, passed: cause.passed + 1 });

class PortParser {
  free: Micros = Number.NEGATIVE_INFINITY;
  private done: Bytes[] = [];
  private readonly parser = new StreamParser((message) => this.done.push(message));

  push(byte: number): readonly Bytes[] {
    this.parser.push(byte);
    if (this.done.length === 0) return NOTHING;
    const done = this.done;
    this.done = [];
    return done;
  }
}

const NO_CAUSE: Cause = { event: -1, passed: 0, spread: 0, waited: 0, crossing: null, steps: 0 };
const NOTHING: readonly Bytes[] = [];
const NOBODY: readonly UnitSpec[] = [];
