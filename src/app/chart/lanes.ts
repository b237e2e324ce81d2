import type { StateChange } from '../../core/compile';
import type { UnitState } from '../../core/rig';
import type { Sweep, Unit } from '../../core/show';
import type { Ticks } from '../../core/time';
import { slotNumber, variantNumber } from '../state/numbers';
import type { Counting } from '../state/store';

/** A lane on one line: a unit's, with the change that reaches into it and those within; or all of a player's in one. */
export interface Lane {
  readonly id: string;
  /** Null where a player's units share the lane. */
  readonly unit: Unit | null;
  /** The player. */
  readonly name: string;
  readonly index: number;
  /** Sent nothing while a song plays. */
  readonly hushed: boolean;
  /** The colour of the player, where one stands for something; null for the usual. */
  readonly bracket: string | null;
  /** The first and the last of their player's lanes. */
  readonly first: boolean;
  readonly last: boolean;
  readonly before: StateChange | undefined;
  readonly changes: readonly StateChange[];
  /** Ticks of raw messages and taps; of a player's lane, of all changes. */
  readonly messages: readonly Ticks[];
  /** Sweeps that run on the line. */
  readonly sweeps: readonly LaneSweep[];
}

/** A sweep, and what a screen reader is told of it. */
export interface LaneSweep {
  readonly id: string;
  readonly sweep: Sweep;
  readonly label: string;
}

/** Whether nothing happens in a lane on its line: then it takes no row of its own. */
export const isQuiet = ({ changes, messages, sweeps }: Lane): boolean =>
  changes.length === 0 && messages.length === 0 && sweeps.length === 0;

/** A unit's state by name, or by number where numbers are asked for. */
export function stateName(unit: Unit, state: UnitState, counting: Counting): string {
  const { plan, variants } = unit.profile;
  const parts: string[] = [];
  if (state.slot !== null) {
    const name = unit.slots.find((s) => s.index === state.slot)?.name;
    parts.push(counting === 'label' && name ? name : slotNumber(plan, state.slot, counting));
  }
  if (variants && typeof state.variant === 'number') parts.push(variantNumber(variants.names, state.variant, counting));
  return parts.join(' · ');
}

/** A width of a text in the running type, in pixels. */
export const textWidth = (text: string, size: number): number => text.length * size * 0.55;

/** A text cut to a width, with an ellipsis where it does not fit; empty where not even a few letters do. */
export function fitted(text: string, width: number, size: number): string {
  const room = Math.floor(width / (size * 0.55));
  if (text.length <= room) return text;
  return room < 4 ? '' : `${text.slice(0, room - 1).trimEnd()}…`;
}
