import { labelOf, slotCount, type AddressPlan } from '../addressing';
import { madeOf } from '../cells';

const known = new WeakMap<AddressPlan, (cell: string) => readonly string[]>();

/** The labels of slots that a spreadsheet may have made a cell of: "1-2" where it says "1-Feb". */
export function madeLabel(plan: AddressPlan, cell: string): readonly string[] {
  const there = known.get(plan) ?? madeOf(Array.from({ length: slotCount(plan) }, (_, i) => labelOf(plan, i)));
  known.set(plan, there);
  return there(cell);
}
