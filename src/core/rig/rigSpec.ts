import type { Bytes, Cable } from '../midi';
import type { Micros } from '../time';
import type { Extreme, Pace, Paces } from './pace';
import type { SlotStart } from './unitState';
import type { WireProfile } from './wireProfile';

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

/** A cable back to the computer; with `thru` it also carries what the unit itself receives. */
export interface ReturnSpec {
  readonly portId: string;
  readonly thru: boolean;
}

/** A unit as the wires know it. */
export interface UnitSpec {
  readonly id: string;
  readonly input: InputSpec | null;
  /** The channel set on the unit itself. */
  readonly listens: number | 'all';
  /** What its map says, but for its times. */
  readonly profile: WireProfile;
  /** How long it takes: at its worst, for all who plan; else as `rigAt` says. */
  readonly pace: Pace;
  readonly paces: Paces;
  /** Cable from its out port back to the in side of a port of the rig. */
  readonly returns: ReturnSpec | null;
  /** What presets bring along where the map knows it, by slot index. */
  readonly starts: Readonly<Record<number, SlotStart>>;
  readonly relays: readonly RelaySpec[];
}

export interface PortSpec {
  readonly id: string;
  readonly cable: Cable;
  /** What arrives on the in side goes out again. */
  readonly softThru: boolean;
  /** What is added to the time of the cable itself, in microseconds: at the worst, or as `rigAt` says. */
  readonly delay: Micros;
  readonly delays: Readonly<Record<Extreme, Micros>>;
}

/** A rig as the wires know it: no names, no tones, no songs. */
export interface RigSpec {
  readonly ports: readonly PortSpec[];
  readonly units: readonly UnitSpec[];
}

const others = new WeakMap<RigSpec, Partial<Record<Extreme, RigSpec>>>();

/** The same rig with every unit and port at another extreme of its times. */
export function rigAt(rig: RigSpec, extreme: Extreme): RigSpec {
  let kept = others.get(rig);
  if (!kept) others.set(rig, (kept = {}));
  return (kept[extreme] ??= {
    ports: rig.ports.map((port) => ({ ...port, delay: port.delays[extreme] })),
    units: rig.units.map((unit) => ({ ...unit, pace: unit.paces[extreme] })),
  });
}
