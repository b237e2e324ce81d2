import { LIMITS } from '../limits';
import { slotCount } from '../../addressing';
import { newSlot } from '../builders';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import { usedSlots, type ListedName } from '../reorder';
import type { Show, Slot, Unit } from '../schema';

const setSlots = (unit: Unit, slots: readonly Slot[]): Edit | null => {
  if (slots.length === unit.slots.length && slots.every((s, i) => s === unit.slots[i])) return null;
  return { kind: 'set', path: ['units', { id: unit.id }, 'slots'], before: unit.slots, after: slots };
};

const inOrder = (slots: readonly Slot[]): Slot[] => slots.toSorted((a, b) => a.index - b.index);

/**
 * Gives many slots their names at once. An empty name takes a slot's entry away, unless
 * something refers to it. Null when nothing would change.
 */
export function nameSlots(show: Show, unitId: string, names: readonly ListedName[], newId: () => string): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) return null;
  const count = slotCount(unit.profile.plan);
  const used = usedSlots(show, unitId);
  const slots = new Map(unit.slots.map((s) => [s.index, s]));
  for (const { index, name } of names) {
    if (index < 0 || index >= count) continue;
    const text = name.trim().slice(0, LIMITS.title);
    const slot = slots.get(index);
    const bare = slot && slot.startVariant === null && slot.startControls.length === 0 && slot.panel.length === 0;
    if (slot && text === '' && bare && !used.has(slot.id)) slots.delete(index);
    else if (slot && slot.name !== text) slots.set(index, { ...slot, name: text });
    else if (!slot && text !== '') slots.set(index, newSlot(newId(), index, text));
  }
  return setSlots(unit, inOrder([...slots.values()]));
}

/**
 * Names for a run of slots that go on from one: "Verse 1" is followed by "Verse 2", a name
 * without a number by itself.
 */
export function runOfNames(first: number, count: number, name: string): ListedName[] {
  const text = name.trim();
  const end = /^(.*?)(\d+)$/.exec(text);
  return Array.from({ length: Math.max(0, count) }, (_, i) => {
    if (!end) return { index: first + i, name: text };
    const number = String(Number(end[2]) + i).padStart(end[2]!.length, '0');
    return { index: first + i, name: `${end[1]}${number}` };
  });
}

/**
 * Moves what is in `count` slots from `from` on to `to`; what lies between moves over to
 * make room, as it does in a unit's own list. Null when nothing would change.
 */
export function moveSlots(show: Show, unitId: string, from: number, to: number, count = 1): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit || count < 1 || from < 0) return null;
  const last = slotCount(unit.profile.plan);
  if (to < 0 || from + count > last || to + count > last || from === to) return null;
  const place = (index: number): number => {
    if (index >= from && index < from + count) return index - from + to;
    if (from < to && index >= from + count && index < to + count) return index - count;
    if (from > to && index >= to && index < from) return index + count;
    return index;
  };
  const moved = unit.slots.map((s) => (place(s.index) === s.index ? s : { ...s, index: place(s.index) }));
  return setSlots(unit, inOrder(moved));
}

/** Sets what a slot's preset brings along, how the panel stands in it, or how long it takes; the slot gets an entry where it had none. */
export function setSlotField<K extends 'startVariant' | 'startControls' | 'panel' | 'recall'>(
  show: Show,
  unitId: string,
  index: number,
  field: K,
  after: Slot[K],
  newId: string,
): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) return null;
  const slot = unit.slots.find((s) => s.index === index);
  if (!slot) return setSlots(unit, inOrder([...unit.slots, newSlot(newId, index, '', { [field]: after })]));
  if (JSON.stringify(slot[field]) === JSON.stringify(after)) return null;
  return {
    kind: 'set',
    path: ['units', { id: unitId }, 'slots', { id: slot.id }, field],
    before: slot[field],
    after,
  };
}
