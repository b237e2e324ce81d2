import { UNKNOWN_STATE, type RigSpec, type RigState, type UnitSpec, type UnitState } from '../core/rig';
import { encodeValue } from '../core/addressing';
import type { Bytes } from '../core/midi';
import { SimulatedRig, type TraceEntry } from '../core/simulate';
import type { Micros } from '../core/time';
import type { Arrival, Ports } from './ports';

/** Stand-ins for every unit of a rig, behind the same door as real ports: they obey bytes, and send when they are played. */
export class StandIns implements Ports {
  private spec: RigSpec = { ports: [], units: [] };
  private rig: SimulatedRig;
  private listener: ((arrival: Arrival) => void) | undefined;
  private learnt: ((unitId: string, bytes: Bytes) => void) | undefined;

  constructor(private readonly onChange: () => void) {
    this.rig = this.build({});
  }

  /** Goes over to a changed rig. Units that are the same to the wires keep their state, whatever they are called now. */
  follow(spec: RigSpec): void {
    if (spec === this.spec) return;
    const before = new Map(this.spec.units.map((u) => [u.id, wireText(u)]));
    const same = this.spec.ports.length === spec.ports.length && spec.units.length === before.size;
    const kept = spec.units.filter((u) => before.get(u.id) === wireText(u));
    const samePorts = JSON.stringify(this.spec.ports) === JSON.stringify(spec.ports);
    this.spec = spec;
    if (same && samePorts && kept.length === spec.units.length) return;
    const states = this.rig.state();
    this.rig = this.build(Object.fromEntries(kept.map((u) => [u.id, states[u.id] ?? UNKNOWN_STATE])));
    this.onChange();
  }

  send(portId: string, at: Micros, bytes: Bytes): void {
    this.rig.send(portId, at, bytes);
  }

  onArrival(listener: (arrival: Arrival) => void): void {
    this.listener = listener;
  }

  /** Lets time come to `now`. */
  advance(now: Micros): void {
    this.rig.advance(now);
  }

  state(): RigState {
    return this.rig.state();
  }

  loading(unitId: string, now: Micros): boolean {
    return this.rig.loading(unitId, now);
  }

  /** A switch, pad or pedal of a controller is moved: it sends what it is made to send. */
  touch(unitId: string, senderId: string, value: number, now: Micros): void {
    const sender = this.spec.units.find((u) => u.id === unitId)?.profile.senders.find((s) => s.id === senderId);
    if (sender) this.rig.play(unitId, now, encodeValue(sender.encoding, sender.channel, value));
  }

  /** A unit is set to learn: the next message on its channel is taken in and not obeyed. */
  waitToLearn(unitId: string, onLearnt: (bytes: Bytes) => void): void {
    this.rig.waitToLearn(unitId);
    this.learnt = (id, bytes) => id === unitId && onLearnt(bytes);
  }

  private build(states: Readonly<Record<string, UnitState>>): SimulatedRig {
    return new SimulatedRig(this.spec, (entry) => this.see(entry), states);
  }

  private see(entry: TraceEntry): void {
    if (entry.kind === 'returned') this.listener?.({ portId: entry.portId, at: entry.at, bytes: entry.bytes });
    if (entry.kind === 'learnt') this.learnt?.(entry.unitId, entry.bytes);
    this.onChange();
  }
}

/** A unit as far as its wires can tell: the names of things are left out. */
function wireText(unit: UnitSpec): string {
  const { name: _, firmware: __, controls, panel: ___, senders: ____, variants, ...rest } = unit.profile;
  const quiet = controls.map(({ id, encoding, rest: atRest }) => ({ id, encoding, atRest }));
  return JSON.stringify({ ...unit, profile: { ...rest, variants: variants?.encoding, controls: quiet } });
}
