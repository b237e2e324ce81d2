import type { Bytes } from '../core/midi';
import { UNKNOWN_STATE, wireText, type RigSpec, type RigState } from '../core/rig';
import { SimulatedRig } from '../core/simulate';
import type { Micros } from '../core/time';
import { InTime } from './inTime';

interface Sent {
  readonly kind: 'sent';
  readonly at: Micros;
  readonly portId: string;
  readonly bytes: Bytes;
}

/** What was put into the rig and may not have had all its effect: bytes on a port, or what a unit sent when it was played. */
type Entry =
  Sent | { readonly kind: 'played'; readonly at: Micros; readonly unitId: string; readonly messages: readonly Bytes[] };

/**
 * What is known of the rig, from the bytes that were sent to it: the same whether stand-ins or
 * real units are on the ports. Nothing that a port reports enters here.
 */
export class AssumedRig {
  private spec: RigSpec = { ports: [], units: [] };
  private rig = new SimulatedRig(this.spec, () => undefined);
  /** What the rig was on when nothing was on its way, and what came after. */
  private base: RigState = {};
  /** What was sent and has not left yet. */
  private readonly sent = new InTime<Sent>();
  private log: Entry[] = [];
  private changed = true;

  /** Goes over to a changed rig: units that are the same to the wires keep their state, whatever they are called now. */
  follow(spec: RigSpec): void {
    const kept = keptStates(this.spec, spec, () => this.rig.state());
    this.spec = spec;
    if (kept) this.rest(kept);
  }

  send(portId: string, at: Micros, bytes: Bytes): void {
    this.sent.put({ kind: 'sent', at, portId, bytes });
  }

  /** A unit sends bytes of its own, as a controller does when it is played. */
  play(unitId: string, at: Micros, messages: readonly Bytes[]): void {
    this.put({ kind: 'played', at, unitId, messages });
  }

  advance(now: Micros): void {
    for (const entry of this.sent.take(now)) this.put(entry);
    this.rig.advance(now);
    if (this.log.length === 0 || !this.rig.quiet) return;
    this.base = this.rig.state();
    this.log = [];
  }

  /** A port is gone: what is on its way there does not arrive. */
  lose(portId: string): void {
    this.sent.drop((e) => e.portId === portId);
  }

  /** Nobody knows any more what these units are on: their port is gone, or somebody turned them by hand. */
  forget(unitIds: ReadonlySet<string>): void {
    const states = this.rig.state();
    this.rest(Object.fromEntries(Object.entries(states).map(([id, s]) => [id, unitIds.has(id) ? UNKNOWN_STATE : s])));
  }

  /** What it is on was told by somebody who knew. */
  adopt(states: RigState): void {
    this.rest(Object.fromEntries(this.spec.units.map(({ id }) => [id, states[id] ?? UNKNOWN_STATE])));
  }

  /** What was to leave from a time on does not. */
  callBack(from: Micros): void {
    this.sent.drop((e) => e.at >= from);
  }

  /** Whether all that was sent has had its effect. */
  get rests(): boolean {
    return this.log.length === 0 && this.sent.rest.length === 0;
  }

  /** A unit takes the next message on its channel in as what it learns, and does not obey it. */
  waitToLearn(unitId: string): void {
    this.rig.waitToLearn(unitId);
  }

  /** What the rig is on at the time that was last advanced to. */
  state(): RigState {
    return this.rig.state();
  }

  /** The rig's state once everything in flight has taken effect. */
  eventual(): RigState {
    return this.settled().state();
  }

  /** From when on units have nothing left to load of all that was sent. */
  restsAt(unitIds: ReadonlySet<string>): Micros {
    const rig = this.settled();
    return Math.max(...[...unitIds].map((id) => rig.restsAt(id)));
  }

  /** From when on each unit takes messages at once, when all that was sent has arrived. */
  acceptsAt(): (unitId: string) => Micros {
    const rig = this.settled();
    return (id) => rig.acceptsAt(id);
  }

  /** The rig when all that was sent has had its effect. */
  private settled(): SimulatedRig {
    if (this.log.length === 0 && this.sent.rest.length === 0) return this.rig;
    const ahead = new SimulatedRig(this.spec, () => undefined, this.base);
    for (const entry of [...this.log, ...this.sent.rest]) play(ahead, entry);
    ahead.settle();
    return ahead;
  }

  /** Units that load a preset at a time. */
  loading(now: Micros): string[] {
    return this.spec.units.filter(({ id }) => this.rig.loading(id, now)).map(({ id }) => id);
  }

  /** Whether any unit has changed since this was last asked. */
  news(): boolean {
    const { changed } = this;
    this.changed = false;
    return changed;
  }

  private put(entry: Entry): void {
    this.log.push(entry);
    play(this.rig, entry);
  }

  private rest(states: RigState): void {
    this.base = states;
    this.log = [];
    this.rig = new SimulatedRig(this.spec, () => (this.changed = true), states);
    this.changed = true;
  }
}

function play(rig: SimulatedRig, entry: Entry): void {
  if (entry.kind === 'sent') rig.send(entry.portId, entry.at, entry.bytes);
  else rig.play(entry.unitId, entry.at, entry.messages);
}

/**
 * States that units keep when a rig becomes another one: those of units that are the same to their wires.
 * Undefined where the whole rig is: then nothing has to be made anew.
 */
export function keptStates(before: RigSpec, after: RigSpec, states: () => RigState): RigState | undefined {
  if (before === after) return undefined;
  const texts = new Map(before.units.map((u) => [u.id, wireText(u)]));
  const same = after.units.filter((u) => texts.get(u.id) === wireText(u)).map((u) => u.id);
  const all = same.length === after.units.length && same.length === before.units.length;
  if (all && JSON.stringify(before.ports) === JSON.stringify(after.ports)) return undefined;
  const now = states();
  const kept = new Set(same);
  return Object.fromEntries(after.units.map(({ id }) => [id, (kept.has(id) && now[id]) || UNKNOWN_STATE]));
}
