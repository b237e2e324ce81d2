import { CLOCK, START, STOP, periodAt } from '../core/clock';
import { rigAt, type RigSpec, type RigState } from '../core/rig';
import { CodeMachine, type MachineAct } from './codeMachine';
import { FootStandIns } from './footStandIns';
import { encodeValue } from '../core/addressing';
import type { Bytes } from '../core/midi';
import { SimulatedRig, type TraceEntry } from '../core/simulate';
import type { Micros } from '../core/time';
import { keptStates } from './assumedRig';
import { InTime } from './inTime';
import { withoutThru, type Arrival, type Ports } from './ports';

/** Stand-ins for every unit of a rig, behind the same door as real ports: they obey bytes, and send when they are played. */
export class StandIns implements Ports {
  private spec: RigSpec = { ports: [], units: [] };
  private rig = this.build({});
  private readonly clocks = new Map<string, { next: Micros; readonly period: Micros }>();
  private readonly machines = new Map<string, CodeMachine>();
  private readonly sent = new InTime<Arrival>();
  private listener: ((arrival: Arrival) => void) | undefined;
  private learnt: ((unitId: string, bytes: Bytes) => void) | undefined;
  /** Foot controllers run the pages that they hold. */
  readonly feet = new FootStandIns(
    (unitId, at, messages) => this.playOut(unitId, messages, at),
    (unitId, bytes) => this.onStored(unitId, bytes),
  );

  constructor(
    /** Hears what controllers send when they are played. */
    private readonly onPlayed: (unitId: string, messages: readonly Bytes[]) => void = () => undefined,
    /** Hears what a controller keeps from now on. */
    private readonly onStored: (unitId: string, bytes: Bytes) => void = () => undefined,
  ) {}

  /** Goes over to a changed rig. Units that are the same to the wires keep their state, whatever they are called now. */
  follow(given: RigSpec): void {
    const spec = withoutThru(given);
    const kept = keptStates(this.spec, spec, () => this.rig.state());
    this.spec = spec;
    this.feet.follow(spec);
    if (kept) this.rig = this.build(kept);
  }

  send(portId: string, at: Micros, bytes: Bytes): void {
    this.sent.put({ portId, at, bytes });
  }

  overhear(portId: string, at: Micros, bytes: Bytes): void {
    this.send(portId, at, bytes);
  }

  onArrival(listener: (arrival: Arrival) => void): void {
    this.listener = listener;
  }

  isReal(): boolean {
    return false;
  }

  /** Lets time come to `now`. */
  advance(now: Micros): void {
    for (const { portId, at, bytes } of this.sent.take(now)) this.rig.send(portId, at, bytes);
    this.feet.advance(now);
    this.rig.advance(now);
    for (const machine of this.machines.values()) machine.advance(now);
    for (const [portId, clock] of this.clocks) {
      for (; clock.next <= now; clock.next += clock.period) {
        this.listener?.({ portId, at: clock.next, bytes: CLOCK });
      }
    }
  }

  /** A stand-in for a clock sends a start and then its clocks into a port, at so many quarter notes a minute; null stops it. */
  clock(portId: string, bpm: number | null, now: Micros): void {
    const was = this.clocks.get(portId);
    this.clocks.delete(portId);
    if (bpm === null) {
      if (was) this.listener?.({ portId, at: now, bytes: STOP });
      return;
    }
    const period = periodAt(bpm);
    // One that goes already only goes faster or slower.
    if (!was) this.listener?.({ portId, at: now, bytes: START });
    this.clocks.set(portId, { next: was?.next ?? now + period, period });
  }

  /** A stand-in for a machine that plays back runs, stops or drops out; its time code comes in on a port. */
  machine(portId: string, act: MachineAct, now: Micros): void {
    let machine = this.machines.get(portId);
    if (!machine) {
      machine = new CodeMachine((at, bytes) => this.listener?.({ portId, at, bytes }));
      this.machines.set(portId, machine);
    }
    machine.act(act, now);
  }

  /** What the stand-ins are on: what one would see who looks at them. */
  state(): RigState {
    return this.rig.state();
  }

  /** A switch, pad or pedal of a controller is moved: it sends what it is made to send. */
  touch(unitId: string, senderId: string, value: number, now: Micros): void {
    const sender = this.spec.units.find((u) => u.id === unitId)?.profile.senders.find((s) => s.id === senderId);
    if (!sender) return;
    this.playOut(unitId, encodeValue(sender.encoding, sender.channel, value), now);
  }

  /** Has the stand-in of a unit send messages out of its out socket, whatever it is made to send. */
  playOut(unitId: string, messages: readonly Bytes[], now: Micros): void {
    this.rig.play(unitId, now, messages);
    this.onPlayed(unitId, messages);
  }

  /** A unit is set to learn: the next message on its channel is taken in and not obeyed. */
  waitToLearn(unitId: string, onLearnt: (bytes: Bytes) => void): void {
    this.rig.waitToLearn(unitId);
    this.learnt = (id, bytes) => id === unitId && onLearnt(bytes);
  }

  private build(states: RigState): SimulatedRig {
    // The plan reckons with the worst; a unit that stands in is as quick as usual.
    return new SimulatedRig(rigAt(this.spec, 'typical'), (entry) => this.see(entry), states);
  }

  private see(entry: TraceEntry): void {
    if (entry.kind === 'arrived') this.feet.arrived(entry.unitId, entry.at, entry.bytes);
    if (entry.kind === 'changed' && entry.state.slot !== null) this.feet.called(entry.unitId, entry.state.slot);
    if (entry.kind === 'returned') this.listener?.({ portId: entry.portId, at: entry.at, bytes: entry.bytes });
    if (entry.kind === 'learnt') this.learnt?.(entry.unitId, entry.bytes);
  }
}
