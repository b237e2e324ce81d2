import type { Control } from '../addressing';
import type { Bytes } from '../midi';
import { UNKNOWN_STATE, afterControl, afterRecall, type RigState, type UnitSpec, type UnitState } from '../rig';
import { readAddress } from './course';

/** The state of a rig while the changes of a song are gone through; a unit that was never heard of is not known. */
export class StateFold {
  private readonly states: Map<string, UnitState>;
  private readonly memories = new Map<string, Map<number, number>>();
  /** Units whose state nobody else holds: their controls are changed in place, because sweeps move them hundreds of times. */
  private readonly owned = new Set<string>();

  constructor(
    readonly units: ReadonlyMap<string, UnitSpec>,
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

  /** The unit has loaded a slot. What its rules relay is handled elsewhere. */
  loadSlot(unit: UnitSpec, slot: number | null): void {
    const start = slot === null ? undefined : unit.starts[slot];
    this.set(unit.id, afterRecall(unit.profile, this.get(unit.id), slot, start));
  }

  setVariant(unit: UnitSpec, variant: number): void {
    this.set(unit.id, { ...this.get(unit.id), variant });
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

  /** Takes a bank or program message in: see `readAddress`. */
  readAddress(unit: UnitSpec, bytes: Bytes): number | null | undefined {
    return readAddress(this, unit, bytes);
  }
}
