import type { Bytes, Cable } from '../midi';
import type { Profile } from './profile';

/** "When this unit goes there, it sends these bytes from its out port." */
export interface RelaySpec {
  /** Slot index that must be reached, or null for any. */
  readonly slot: number | null;
  /** Variant that must be reached, or null for any. */
  readonly variant: number | null;
  readonly toUnit: string;
  readonly messages: readonly Bytes[];
}

/** Where a unit's in port gets its bytes from. */
export type InputSpec =
  | { readonly from: 'port'; readonly portId: string }
  | { readonly from: 'unit'; readonly unitId: string; readonly thru: boolean };

export interface UnitSpec {
  readonly id: string;
  readonly input: InputSpec | null;
  /** The channel set on the unit itself. */
  readonly listens: number | 'all';
  readonly profile: Profile;
  /** Variant that a slot starts with where the map knows it, by slot index. */
  readonly startVariants: Readonly<Record<number, number>>;
  readonly relays: readonly RelaySpec[];
}

export interface PortSpec {
  readonly id: string;
  readonly cable: Cable;
}

/** A rig as the wires know it: no names, no tones, no songs. */
export interface RigSpec {
  readonly ports: readonly PortSpec[];
  readonly units: readonly UnitSpec[];
}
