import { fitsRange, isTap } from '../../addressing';
import type { RigState, UnitState } from '../../rig';
import { newPart, newSlot, newTone } from '../builders';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import type { Show, Slot, TonePart, Unit } from '../schema';
import { setTonePart } from './tones';

interface CapturedPart {
  readonly part: TonePart;
  /** The slot that got an entry because nobody had named it. */
  readonly slot: Slot | null;
}

/**
 * A part of a tone from what a unit is on, as far as that is known: values that the preset
 * brought along are left to the preset. Undefined where nothing is known.
 */
function capturePart(unit: Unit, state: UnitState, newId: () => string): CapturedPart | undefined {
  const known = state.slot === null ? undefined : unit.slots.find((s) => s.index === state.slot);
  const slot = state.slot !== null && !known ? newSlot(newId(), state.slot, '') : null;
  const variant = typeof state.variant === 'number' ? state.variant : null;
  const engaged = unit.profile.engage;
  const controls = unit.profile.controls.flatMap(({ id, encoding }) => {
    const value = state.controls[id];
    // That a recalled preset is engaged goes without saying in a tone.
    if (typeof value !== 'number' || isTap(encoding) || !fitsRange(encoding, value)) return [];
    return id === engaged && value === 1 ? [] : [{ controlId: id, value: Math.round(value * 100) / 100 }];
  });
  const slotId = known?.id ?? slot?.id ?? null;
  if (slotId === null && variant === null && controls.length === 0) return undefined;
  return { part: newPart(unit.id, { slotId, variant, controls }), slot };
}

const slotEdit = (unit: Unit, slot: Slot): Edit => {
  const place = unit.slots.findIndex((s) => s.index > slot.index);
  const index = place < 0 ? unit.slots.length : place;
  return { kind: 'insert', path: ['units', { id: unit.id }, 'slots'], index, value: slot };
};

/** A new tone from what the whole rig is on now. Null while nothing is known of any unit. */
export function captureTone(show: Show, rig: RigState, toneId: string, name: string, newId: () => string): Edit | null {
  const edits: Edit[] = [];
  const parts: TonePart[] = [];
  for (const unit of show.units) {
    const state = rig[unit.id];
    const captured = state && capturePart(unit, state, newId);
    if (!captured) continue;
    parts.push(captured.part);
    if (captured.slot) edits.push(slotEdit(unit, captured.slot));
  }
  if (parts.length === 0) return null;
  const value = newTone(toneId, name, parts);
  return { kind: 'group', edits: [...edits, { kind: 'insert', path: ['tones'], index: show.tones.length, value }] };
}

/** Writes what one unit is on now over its part of a tone. Null while nothing is known of it, or nothing would change. */
export function captureOver(
  show: Show,
  rig: RigState,
  toneId: string,
  unitId: string,
  newId: () => string,
): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  const state = rig[unitId];
  const captured = unit && state && capturePart(unit, state, newId);
  if (!captured) return null;
  const edit = setTonePart(show, toneId, unitId, captured.part);
  if (!edit) return null;
  return captured.slot ? { kind: 'group', edits: [slotEdit(unit, captured.slot), edit] } : edit;
}
