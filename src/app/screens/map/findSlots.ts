import { labelOf } from '../../../core/addressing';
import type { Unit } from '../../../core/show';
import type { Found } from '../../widgets/Find';
import { slotNumber, slotOfNumber } from '../../state/numbers';
import type { Counting } from '../../state/store';

const FOUND_LIMIT = 12;

/** Slots for a number in the chosen counting, a label, or a part of a name; the exact one first. */
export function findSlots(unit: Unit, text: string, counting: Counting): Found[] {
  const { plan } = unit.profile;
  const wanted = text.trim().toLowerCase();
  const exact = wanted === '' ? undefined : slotOfNumber(plan, wanted, counting);
  const found = unit.slots
    .filter((s) => s.index !== exact && `${labelOf(plan, s.index)} ${s.name}`.toLowerCase().includes(wanted))
    .slice(0, FOUND_LIMIT);
  const list = found.map((s) => ({ id: String(s.index), name: s.name, aside: slotNumber(plan, s.index, counting) }));
  if (exact === undefined) return list;
  const name = unit.slots.find((s) => s.index === exact)?.name || 'no name yet';
  return [{ id: String(exact), name, aside: slotNumber(plan, exact, counting) }, ...list];
}
