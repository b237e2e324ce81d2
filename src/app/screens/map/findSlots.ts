import { indexOfLabel, labelOf } from '../../../core/addressing';
import type { Unit } from '../../../core/show';
import type { Found } from '../../components/Find';

const FOUND_LIMIT = 12;

/** Slots for a label as the unit writes it, or a part of a name; the exact label first. */
export function findSlots(unit: Unit, text: string): Found[] {
  const { plan } = unit.profile;
  const wanted = text.trim().toLowerCase();
  const exact = indexOfLabel(plan, wanted);
  const found = unit.slots
    .filter((s) => s.index !== exact && `${labelOf(plan, s.index)} ${s.name}`.toLowerCase().includes(wanted))
    .slice(0, FOUND_LIMIT);
  const list = found.map((s) => ({ id: String(s.index), name: s.name, aside: labelOf(plan, s.index) }));
  if (exact === undefined) return list;
  const name = unit.slots.find((s) => s.index === exact)?.name || 'no name yet';
  return [{ id: String(exact), name, aside: labelOf(plan, exact) }, ...list];
}
