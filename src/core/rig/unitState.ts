import { isTap, keepsOf, sameOnTheWire } from '../addressing/encodings/registry';
import type { Control } from '../addressing';
import type { WireProfile } from './wireProfile';

/** As the preset stores it; the map does not say what that is. */
export type Stored = 'stored';

/** What is known of a unit; null is not known. Controls that are not listed are not known. */
export interface UnitState {
  readonly slot: number | null;
  /** The bank that the next program change will be read in. */
  readonly bank: number | null;
  readonly variant: number | Stored | null;
  readonly controls: Readonly<Record<string, number | Stored>>;
}

/** By unit id. */
export type RigState = Readonly<Record<string, UnitState>>;

export const UNKNOWN_STATE: UnitState = { slot: null, bank: null, variant: null, controls: {} };

/** What a preset brings along, as far as somebody wrote it down. */
export interface SlotStart {
  readonly variant: number | null;
  readonly controls: Readonly<Record<string, number>>;
}

/** The state of a unit that has finished loading a preset. */
export function afterRecall(
  profile: WireProfile,
  before: UnitState,
  slot: number | null,
  start: SlotStart | undefined,
): UnitState {
  const { recallLoads, engage } = profile;
  let controls = recallLoads.controls ? allStored(profile) : before.controls;
  if (recallLoads.controls && start) controls = { ...controls, ...start.controls };
  if (engage !== null) controls = { ...controls, [engage]: 0 };
  return {
    slot,
    bank: before.bank,
    variant: profile.variants && recallLoads.variant ? (start?.variant ?? 'stored') : before.variant,
    controls,
  };
}

/**
 * A control's value after a message that was decoded as `decoded`. What only turns over
 * stays unknown until something sets it; what keeps nothing has no value.
 */
export function afterControl(
  control: Control,
  before: number | Stored | undefined,
  decoded: number,
): number | Stored | undefined {
  switch (keepsOf(control.encoding)) {
    case 'value':
      return decoded;
    case 'flip':
      return typeof before === 'number' ? 1 - before : undefined;
    case 'nothing':
      return undefined;
  }
}

const storedControls = new WeakMap<WireProfile, Readonly<Record<string, Stored>>>();

/** Every control as the preset stores it; one object a profile, because recalls are many. */
function allStored(profile: WireProfile): Readonly<Record<string, Stored>> {
  let all = storedControls.get(profile);
  if (!all) {
    const kept = profile.controls.filter((c) => !isTap(c.encoding));
    all = Object.fromEntries(kept.map((c) => [c.id, 'stored' as const]));
    storedControls.set(profile, all);
  }
  return all;
}

/** What is wanted of a unit; what is not named may be anything. */
export interface UnitAim {
  readonly slot?: number | undefined;
  readonly variant?: number | undefined;
  readonly controls: Readonly<Record<string, number>>;
}

/**
 * Whether two values of a control are the same to the unit: equal, or the same bytes on the wire. Unknown is never
 * the same as a value.
 */
export function sameControl(
  profile: WireProfile,
  id: string,
  a: number | Stored | undefined,
  b: number | Stored | undefined,
): boolean {
  if (a === b) return true;
  if (typeof a !== 'number' || typeof b !== 'number') return false;
  const control = profile.controls.find((c) => c.id === id);
  return control !== undefined && sameOnTheWire(control.encoding, a, b);
}

/** Whether a unit is as wanted, with figures compared as the bytes that they become. */
export function meets(profile: WireProfile, state: UnitState, aim: UnitAim): boolean {
  if (aim.slot !== undefined && state.slot !== aim.slot) return false;
  if (aim.variant !== undefined && state.variant !== aim.variant) return false;
  for (const id in aim.controls) if (!sameControl(profile, id, state.controls[id], aim.controls[id])) return false;
  return true;
}
