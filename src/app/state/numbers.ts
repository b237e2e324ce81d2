import { addressOf, labelOf, type AddressPlan } from '../../core/addressing';
import type { Counting } from './store';

/** A slot's number in the chosen counting: the program from 0, from 1, or the unit's own label. */
export function slotNumber(plan: AddressPlan, index: number, counting: Counting): string {
  if (counting === 'label') return labelOf(plan, index);
  const address = addressOf(plan, index);
  if (!address) return 'no program';
  const first = counting === 'zero' ? 0 : 1;
  const program = String(address.program + first).padStart(3, '0');
  return plan.bank.send === 'none' ? program : `${address.bank + first}·${program}`;
}

/** A variant's number in the chosen counting; its name where it is labelled. */
export function variantNumber(names: readonly string[], variant: number, counting: Counting): string {
  if (counting === 'zero') return String(variant);
  if (counting === 'one') return String(variant + 1);
  return names[variant] ?? String(variant + 1);
}
