import { fitsRange, isTap } from '../../addressing';
import type { RigState, UnitState } from '../../rig';
import { newPart, newSlot, newTone } from '../builders';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import type { Relay, Show, Slot, TonePart, Unit } from '../schema';
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

/** Whether messages of a port reach a unit; otherwise it hears only what relay rules of the unit before it send. */
function hearsPort(units: ReadonlyMap<string, Unit>, unit: Unit): boolean {
  const seen = new Set<string>();
  let at: Unit | undefined = unit;
  while (at && !seen.has(at.id)) {
    seen.add(at.id);
    const { input }: Unit = at;
    if (input?.from !== 'unit') return true;
    if (!input.thru) return false;
    at = units.get(input.unitId);
  }
  return true;
}

/**
 * What calls, by a relay rule, the preset that a unit is on that cannot be called itself. Only a unit whose preset is not
 * known may have called it: of the others it is known what they call.
 */
function callOf(show: Show, rig: RigState, unit: Unit): { caller: Unit; when: Relay['when'] } | undefined {
  const units = indexShow(show).units;
  const to = unit.slots.find((s) => s.index === rig[unit.id]?.slot)?.id;
  for (const caller of show.units) {
    if (!hearsPort(units, caller) || (rig[caller.id]?.slot ?? null) !== null) continue;
    const rule = caller.relays.find(
      ({ toUnitId, toSlotId, when }) => toUnitId === unit.id && toSlotId === to && when.slotId !== null,
    );
    if (rule) return { caller, when: rule.when };
  }
  return undefined;
}

/**
 * A new tone from what the whole rig is on now. A unit that only relay rules reach is left to them; where nothing is
 * known of the unit that calls it, that is called. Null while nothing is known of any unit.
 */
export function captureTone(show: Show, rig: RigState, toneId: string, name: string, newId: () => string): Edit | null {
  const edits: Edit[] = [];
  const parts = new Map<string, TonePart>();
  const { units } = indexShow(show);
  for (const unit of show.units) {
    const state = rig[unit.id];
    const captured = state && hearsPort(units, unit) && capturePart(unit, state, newId);
    if (!captured) continue;
    parts.set(unit.id, captured.part);
    if (captured.slot) edits.push(slotEdit(unit, captured.slot));
  }
  for (const unit of show.units) {
    const call = hearsPort(units, unit) ? undefined : callOf(show, rig, unit);
    if (!call) continue;
    const { caller, when } = call;
    const part = parts.get(caller.id) ?? newPart(caller.id);
    parts.set(caller.id, { ...part, slotId: when.slotId, variant: when.variant ?? part.variant });
  }
  if (parts.size === 0) return null;
  const inOrder = show.units.flatMap(({ id }) => parts.get(id) ?? []);
  const value = newTone(toneId, name, inOrder);
  return { kind: 'group', edits: [...edits, { kind: 'insert', path: ['tones'], index: show.tones.length, value }] };
}

/**
 * Writes what one unit is on now over its part of a tone. Null while nothing is known of it, nothing would change, or
 * only relay rules reach it.
 */
export function captureOver(
  show: Show,
  rig: RigState,
  toneId: string,
  unitId: string,
  newId: () => string,
): Edit | null {
  const { units } = indexShow(show);
  const unit = units.get(unitId);
  if (unit && !hearsPort(units, unit)) return null;
  const state = rig[unitId];
  const captured = unit && state && capturePart(unit, state, newId);
  if (!captured) return null;
  const edit = setTonePart(show, toneId, unitId, captured.part);
  if (!edit) return null;
  return captured.slot ? { kind: 'group', edits: [slotEdit(unit, captured.slot), edit] } : edit;
}
