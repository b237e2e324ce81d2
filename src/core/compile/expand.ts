import {
  UNKNOWN_STATE,
  afterControl,
  afterRecall,
  relaysFired,
  remember,
  sameControl,
  understand,
  type RelaySpec,
  type RigSpec,
  type RigState,
  type UnitAim,
  type UnitSpec,
  type UnitState,
} from '../rig';
import {
  encodeValue,
  indexOfAddress,
  addressOf,
  keepsOf,
  slotMessages,
  type Control,
  type Encoding,
} from '../addressing';
import { BANK_LSB, BANK_MSB, decodeMessage, type Bytes } from '../midi';

export type StepKind = 'bank' | 'recall' | 'variant' | 'control' | 'message';

/** One message to one unit, and what it does there. */
export interface Step {
  readonly unitId: string;
  readonly kind: StepKind;
  readonly bytes: Bytes;
  /** Rules that the unit will carry out once this has taken effect. */
  readonly relays: readonly RelaySpec[];
}

/** Whether to send only what changes something, or all that a cue says. */
export type Thrift = 'changes' | 'everything';

/** The state of a rig while cues are expanded; a unit that was never heard of is not known. */
export class StateFold {
  private readonly states: Map<string, UnitState>;
  private readonly memories = new Map<string, Map<number, number>>();
  /** Units whose state nobody else holds: their controls are changed in place, because sweeps move them hundreds of times. */
  private readonly owned = new Set<string>();

  constructor(
    private readonly units: ReadonlyMap<string, UnitSpec>,
    from: RigState = {},
  ) {
    this.states = new Map(Object.entries(from));
  }

  /** One that goes its own way from here. */
  copy(): StateFold {
    this.owned.clear();
    const other = new StateFold(this.units);
    for (const [id, state] of this.states) other.states.set(id, state);
    for (const [id, memory] of this.memories) other.memories.set(id, new Map(memory));
    return other;
  }

  get(unitId: string): UnitState {
    return this.states.get(unitId) ?? UNKNOWN_STATE;
  }

  /** Everything as it is now. What was given stays as it is, whatever comes. */
  all(): RigState {
    this.owned.clear();
    return Object.fromEntries(this.states);
  }

  set(unitId: string, state: UnitState): void {
    this.owned.delete(unitId);
    this.states.set(unitId, state);
  }

  /** The unit reaches a slot; gives the rules that fire and carries them on to the next units. */
  reachSlot(unit: UnitSpec, slot: number | null): readonly RelaySpec[] {
    const start = slot === null ? undefined : unit.starts[slot];
    const state = afterRecall(unit.profile, this.get(unit.id), slot, start);
    this.set(unit.id, state);
    const fired = relaysFired(unit.relays, 'slot', slot, state.variant);
    this.carry(fired, 0);
    return fired;
  }

  reachVariant(unit: UnitSpec, variant: number): readonly RelaySpec[] {
    const state = { ...this.get(unit.id), variant };
    this.set(unit.id, state);
    const fired = relaysFired(unit.relays, 'variant', state.slot, variant);
    this.carry(fired, 0);
    return fired;
  }

  /** A message moves a control; `heard` is what the unit makes of it. */
  moveControl(unit: UnitSpec, control: Control, heard: number): void {
    const state = this.get(unit.id);
    const value = afterControl(control, state.controls[control.id], heard);
    if (value !== undefined && this.owned.has(unit.id)) {
      (state.controls as Record<string, number | 'stored'>)[control.id] = value;
      return;
    }
    const { [control.id]: _, ...others } = state.controls;
    const controls = value === undefined ? others : { ...state.controls, [control.id]: value };
    this.states.set(unit.id, { ...state, controls });
    this.owned.add(unit.id);
  }

  /** What the unit heard before, for values that come in several messages. */
  memoryOf(unitId: string): Map<number, number> {
    let memory = this.memories.get(unitId);
    if (!memory) this.memories.set(unitId, (memory = new Map()));
    return memory;
  }

  private carry(fired: readonly RelaySpec[], depth: number): void {
    // A cycle of rules is reported elsewhere; here it must only come to an end.
    if (depth > this.units.size) return;
    for (const relay of fired) {
      const target = this.units.get(relay.toUnit);
      if (!target) continue;
      for (const bytes of relay.messages) {
        const slot = this.readAddress(target, bytes);
        if (slot === undefined) continue;
        const start = slot === null ? undefined : target.starts[slot];
        const state = afterRecall(target.profile, this.get(target.id), slot, start);
        this.set(target.id, state);
        this.carry(relaysFired(target.relays, 'slot', slot, state.variant), depth + 1);
      }
    }
  }

  /** Takes a bank or program message in; the slot that it recalls (null where none is known), undefined where it recalls nothing. */
  readAddress(unit: UnitSpec, bytes: Bytes): number | null | undefined {
    const message = decodeMessage(bytes);
    const state = this.get(unit.id);
    const { plan } = unit.profile;
    if (message?.kind === 'control' && plan.bank.send !== 'none') {
      const bank = bankAfter(plan.bank.send, state.bank, message.control, message.value);
      if (bank !== undefined) this.set(unit.id, { ...state, bank });
      return undefined;
    }
    if (message?.kind !== 'program') return undefined;
    const bank = plan.bank.send === 'none' ? 0 : state.bank;
    if (bank === null) return null;
    return indexOfAddress(plan, { bank, program: message.program }) ?? null;
  }
}

function bankAfter(
  send: 'msb' | 'lsb' | 'both',
  bank: number | null,
  control: number,
  value: number,
): number | undefined {
  if (control === BANK_MSB && send === 'msb') return value;
  if (control === BANK_LSB && send === 'lsb') return value;
  if (send !== 'both') return undefined;
  if (control === BANK_MSB) return value * 128 + ((bank ?? 0) & 127);
  if (control === BANK_LSB) return ((bank ?? 0) >> 7) * 128 + value;
  return undefined;
}

/** Messages that bring one unit to an aim: slot, engage, variant, controls. Changes `fold`. */
export function expandAim(
  fold: StateFold,
  unit: UnitSpec,
  channel: number,
  aim: UnitAim,
  thrift: Thrift,
  reload: boolean,
): Step[] {
  const { profile } = unit;
  const steps: Step[] = [];
  const all = thrift === 'everything';
  const add = (kind: StepKind, bytes: Bytes, relays: readonly RelaySpec[] = []): void => {
    steps.push({ unitId: unit.id, kind, bytes, relays });
  };
  const addValue = (kind: StepKind, encoding: Encoding, value: number, relays: readonly RelaySpec[] = []): void => {
    const messages = encodeValue(encoding, channel, value);
    // A note takes effect when it is struck; everything else once its last message is there.
    const effective = encoding.kind === 'note' ? 0 : messages.length - 1;
    for (const [i, bytes] of messages.entries()) {
      if (i === effective) add(kind, bytes, relays);
      else add('message', bytes);
    }
  };
  if (aim.slot !== undefined && (all || reload || fold.get(unit.id).slot !== aim.slot)) {
    const bank = all ? null : fold.get(unit.id).bank;
    const messages = slotMessages(profile.plan, channel, aim.slot, bank) ?? [];
    for (const bytes of messages.slice(0, -1)) add('bank', bytes);
    const recall = messages.at(-1);
    if (recall) {
      fold.set(unit.id, {
        ...fold.get(unit.id),
        bank: addressOf(profile.plan, aim.slot)?.bank ?? null,
      });
      add('recall', recall, fold.reachSlot(unit, aim.slot));
    }
  }
  const engage = profile.engage === null ? undefined : profile.controls.find((c) => c.id === profile.engage);
  if (engage) setControl(engage);
  if (aim.variant !== undefined && profile.variants && (all || fold.get(unit.id).variant !== aim.variant)) {
    addValue('variant', profile.variants.encoding, aim.variant, fold.reachVariant(unit, aim.variant));
  }
  // Most aims name no control, or a few.
  let named = 0;
  for (const _ in aim.controls) named += 1;
  if (named > 0) {
    for (const control of profile.controls) {
      if (aim.controls[control.id] !== undefined && control.id !== profile.engage) setControl(control);
    }
  }
  return steps;

  function setControl(control: Control): void {
    const value = aim.controls[control.id];
    if (value === undefined) return;
    const is = fold.get(unit.id).controls[control.id];
    if (keepsOf(control.encoding) === 'flip') {
      // From a state that nobody knows, turning it over is as likely wrong as right.
      if (typeof is !== 'number' || is === value) return;
    } else if (!all && sameControl(profile, control.id, is, value)) return;
    fold.moveControl(unit, control, value);
    addValue('control', control.encoding, value);
  }
}

/** Takes bytes in as they stand: what the map understands of them becomes part of the state. */
export function expandMessage(fold: StateFold, unit: UnitSpec, bytes: Bytes): Step[] {
  const { profile } = unit;
  const step = (kind: StepKind, relays: readonly RelaySpec[] = []): Step[] => [
    { unitId: unit.id, kind, bytes, relays },
  ];
  const message = decodeMessage(bytes);
  if (!message) return step('message');
  const memory = fold.memoryOf(unit.id);
  const { variant, controls, heard } = understand(profile, message, memory);
  remember(memory, message);
  for (const [control, value] of controls) fold.moveControl(unit, control, value);
  if (variant !== undefined) return step('variant', fold.reachVariant(unit, variant));
  if (controls.length > 0) return step('control');
  if (heard) return step('message');
  const slot = fold.readAddress(unit, bytes);
  return slot === undefined ? step('message') : step('recall', fold.reachSlot(unit, slot));
}

/** Units in an order in which every relay leads forward; those on a cycle keep their place. */
export function relayOrder(spec: RigSpec): readonly UnitSpec[] {
  const units = new Map(spec.units.map((u) => [u.id, u]));
  const order: UnitSpec[] = [];
  const seen = new Set<string>();
  const visit = (unit: UnitSpec): void => {
    if (seen.has(unit.id)) return;
    seen.add(unit.id);
    for (const relay of unit.relays) {
      const target = units.get(relay.toUnit);
      if (target) visit(target);
    }
    order.push(unit);
  };
  for (const unit of spec.units.toReversed()) visit(unit);
  return order.reverse();
}
