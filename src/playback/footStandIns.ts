import { encodeValue, valueRange } from '../core/addressing';
import {
  EMPTY_MEMORY,
  FOOT_AT_REST,
  blankDump,
  footStep,
  isFootBytes,
  isLit,
  newReceiver,
  memoryBytes,
  readDump,
  readMemoryBytes,
  receive,
  writeDump,
  type FootInput,
  type FootMemory,
  type FootReceiver,
  type FootState,
} from '../core/feet';
import { toHex, wholeMessages, type Bytes } from '../core/midi';
import type { RigSpec, UnitSpec } from '../core/rig';
import type { Micros } from '../core/time';

/** How a stand-in misbehaves while it is programmed: what befalls every so-many-th message on its cable. */
export interface FootFaults {
  readonly how: 'lose' | 'damage' | 'double' | 'delay';
  readonly every: number;
}

/** What somebody does to a controller that stands on the screen. */
export type FootTouch =
  | { readonly kind: 'press' | 'release'; readonly senderId: string }
  | { readonly kind: 'pedal'; readonly senderId: string; readonly share: number }
  | { readonly kind: 'step'; readonly by: 1 | -1 };

/** How a stand-in of a controller stands. */
export interface Floor {
  readonly unitId: string;
  /** Whether anything is programmed into it: else it is as it comes, and each switch sends what the map says of it. */
  readonly programmed: boolean;
  readonly page: number;
  readonly pageName: string;
  /** Names on its displays, by place of the switch; of switches that do something on this page. */
  readonly names: Readonly<Record<number, string>>;
  /** Places of switches that stand lit. */
  readonly lit: readonly number[];
}

/** To the controller, or from it. */
type Way = 'in' | 'out';

interface Machine {
  readonly spec: UnitSpec;
  /** The dump that it took last, in its own form; absent where it took none. */
  dump?: readonly number[];
  receiver: FootReceiver;
  memory: FootMemory;
  state: FootState;
  faults: FootFaults | null;
  /** Messages on its cable so far, and one each way that is late. */
  count: number;
  late: Partial<Record<Way, Bytes>>;
}

/**
 * Foot controllers among the stand-ins: each runs the pages that were transferred to it, and nothing of the show. What they send
 * goes to `send`; a memory that was replaced goes to `stored`.
 */
export class FootStandIns {
  private machines = new Map<string, Machine>();

  constructor(
    private readonly send: (unitId: string, at: Micros, messages: readonly Bytes[]) => void,
    private readonly stored: (unitId: string, bytes: Bytes) => void,
  ) {}

  /** Goes over to a changed rig; controllers that are still there keep what they hold. */
  follow(spec: RigSpec): void {
    const before = this.machines;
    this.machines = new Map(
      spec.units
        .filter((u) => u.profile.controller !== null)
        .map((u) => {
          const was = before.get(u.id);
          if (!was) return [u.id, newMachine(u)];
          return [u.id, { ...was, spec: u, receiver: { ...was.receiver, device: deviceOf(u) } }];
        }),
    );
  }

  /** Puts into a controller what it held when it was here last. What cannot be read is not taken. */
  load(unitId: string, bytes: Bytes): void {
    const machine = this.machines.get(unitId);
    const memory = readMemoryBytes(bytes).value;
    if (!machine || !memory) return;
    Object.assign(machine, { memory, receiver: newReceiver(bytes, deviceOf(machine.spec)), state: startOf(memory) });
  }

  /** As it comes from its maker. */
  clear(unitId: string): void {
    this.load(unitId, memoryBytes(EMPTY_MEMORY));
  }

  misbehave(unitId: string, faults: FootFaults | null): void {
    const machine = this.machines.get(unitId);
    if (machine) Object.assign(machine, { faults, count: 0, late: {} });
  }

  /** Whether a unit is a controller that something is programmed into. */
  runs(unitId: string): boolean {
    return (this.machines.get(unitId)?.memory.pages.length ?? 0) > 0;
  }

  /** A controller is pressed, or moved. */
  touch(unitId: string, touch: FootTouch, now: Micros): void {
    const machine = this.machines.get(unitId);
    if (!machine) return;
    if (machine.memory.pages.length === 0) {
      const messages = asItComes(machine.spec, touch);
      if (messages.length > 0) this.send(unitId, now, messages);
      return;
    }
    const input = inputOf(machine.spec, touch, now);
    if (input) this.step(unitId, machine, input, now);
  }

  /** Lets time come to now: presses become long ones, or will not become double ones any more. */
  advance(now: Micros): void {
    for (const [unitId, machine] of this.machines) {
      if (machine.state.pressed.size > 0) this.step(unitId, machine, { kind: 'wake', at: now }, now);
    }
  }

  /** A message arrived at a unit: a block of a transfer, perhaps. */
  arrived(unitId: string, at: Micros, bytes: Bytes): void {
    const machine = this.machines.get(unitId);
    if (machine?.spec.profile.controller?.memory && this.dumped(unitId, machine, at, bytes)) return;
    // One that is programmed by hand takes nothing over its cable.
    if (!machine || !isFootBytes(bytes) || machine.spec.profile.controller?.takes !== 'transfer') return;
    for (const message of this.fated(machine, 'in', bytes)) {
      const { receiver, answers, stored } = receive(machine.receiver, message);
      machine.receiver = receiver;
      if (stored) {
        machine.memory = readMemoryBytes(receiver.memory).value ?? EMPTY_MEMORY;
        machine.state = startOf(machine.memory);
        this.stored(unitId, receiver.memory);
      }
      const out = answers.flatMap((answer) => this.fated(machine, 'out', answer));
      if (out.length > 0) this.send(unitId, at, out);
    }
  }

  /** A controller with a memory of its own gives a dump when it is asked, and takes one. Whether the message was for that. */
  private dumped(unitId: string, machine: Machine, at: Micros, bytes: Bytes): boolean {
    const form = machine.spec.profile.controller!.memory!;
    const whole = machine.dump ?? blankDump(form);
    if (form.ask !== '' && toHex(bytes) === form.ask) {
      const { value } = writeDump(form, whole, machine.memory);
      this.send(unitId, at, wholeMessages(value ?? []) ?? []);
      return true;
    }
    if (!readDump(form, bytes).value) return false;
    // Of a controller with a message for each page, the others stay.
    const head = form.head.length / 2;
    const others = (wholeMessages(whole) ?? []).filter((m) => !form.perPage || m[head] !== bytes[head]);
    machine.dump = form.perPage ? [...others, bytes].sort((a, b) => a[head]! - b[head]!).flat() : [...bytes];
    machine.memory = readDump(form, machine.dump).value ?? EMPTY_MEMORY;
    machine.state = startOf(machine.memory);
    this.stored(unitId, memoryBytes(machine.memory));
    return true;
  }

  /** A unit was called to one of its presets: a page. */
  called(unitId: string, slot: number): void {
    const machine = this.machines.get(unitId);
    if (machine && machine.state.page !== slot) this.step(unitId, machine, { kind: 'go', page: slot }, 0);
  }

  floors(): readonly Floor[] {
    return [...this.machines].map(([unitId, { memory, state }]) => {
      const page = memory.pages.find((p) => p.place === state.page);
      return {
        unitId,
        programmed: memory.pages.length > 0,
        page: state.page,
        pageName: page?.name ?? '',
        names: Object.fromEntries((page?.switches ?? []).map((s) => [s.place, s.name])),
        lit: (page?.switches ?? []).filter((s) => isLit(state, s.place)).map((s) => s.place),
      };
    });
  }

  private step(unitId: string, machine: Machine, input: FootInput, now: Micros): void {
    const { state, sends } = footStep(machine.memory, machine.state, input);
    machine.state = state;
    if (sends.length > 0) this.send(unitId, now, sends);
  }

  /** What becomes of a message on the cable of a controller that misbehaves. */
  private fated(machine: Machine, way: Way, bytes: Bytes): readonly Bytes[] {
    const { faults } = machine;
    const late = machine.late[way];
    if (!faults) return [bytes];
    machine.count += 1;
    delete machine.late[way];
    const behind = late ? [late] : [];
    if (machine.count % faults.every !== 0) return [bytes, ...behind];
    switch (faults.how) {
      case 'lose':
        return behind;
      case 'damage':
        return [bytes.with(6, bytes[6]! ^ 0x15), ...behind];
      case 'double':
        return [bytes, bytes, ...behind];
      case 'delay':
        machine.late[way] = bytes;
        return behind;
    }
  }
}

const deviceOf = ({ listens }: UnitSpec): number | null => (listens === 'all' ? null : listens - 1);

const newMachine = (spec: UnitSpec): Machine => ({
  spec,
  receiver: newReceiver(memoryBytes(EMPTY_MEMORY), deviceOf(spec)),
  memory: EMPTY_MEMORY,
  state: FOOT_AT_REST,
  faults: null,
  count: 0,
  late: {},
});

/** A controller that was programmed, or switched on, is on its first page. */
const startOf = ({ pages }: FootMemory): FootState => ({
  ...FOOT_AT_REST,
  page: pages.reduce((first, p) => Math.min(first, p.place), pages[0]?.place ?? 0),
});

/** What a controller that nothing is programmed into sends: each of its senders the message that the map says. */
function asItComes({ profile }: UnitSpec, touch: FootTouch): readonly Bytes[] {
  if (touch.kind === 'step') return [];
  const sender = profile.senders.find((s) => s.id === touch.senderId);
  if (!sender) return [];
  const { encoding, channel } = sender;
  const { low, high } = valueRange(encoding);
  if (touch.kind === 'pedal') return encodeValue(encoding, channel, low + (high - low) * touch.share);
  const held = encoding.kind === 'momentary' || encoding.kind === 'set-switch';
  if (touch.kind === 'release') return held ? encodeValue(encoding, channel, 0) : [];
  return encodeValue(encoding, channel, held ? 1 : low);
}

function inputOf({ profile }: UnitSpec, touch: FootTouch, at: Micros): FootInput | null {
  const { controller } = profile;
  if (!controller) return null;
  if (touch.kind === 'step') return controller.stepsPages ? touch : null;
  if (touch.kind === 'pedal') {
    const pedal = controller.pedals.indexOf(touch.senderId);
    return pedal < 0 ? null : { kind: 'pedal', pedal, share: touch.share };
  }
  const place = controller.switches.findIndex((s) => s.id === touch.senderId);
  return place < 0 ? null : { kind: touch.kind, switch: place, at };
}
