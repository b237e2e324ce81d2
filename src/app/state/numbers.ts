import { addressOf, indexOfAddress, indexOfLabel, labelOf, slotCount, type AddressPlan } from '../../core/addressing';
import type { Counting } from './store';

/** A slot's number in the chosen counting: the program from 0, from 1, or the unit's own label. */
export function slotNumber(plan: AddressPlan, index: number, counting: Counting): string {
  if (counting === 'label') return labelOf(plan, index);
  const address = addressOf(plan, index);
  if (!address) return 'no program';
  const first = counting === 'zero' ? 0 : 1;
  const program = String(address.program + first).padStart(3, '0');
  if (plan.bank.send === 'none') return program;
  // Beyond the first bank the running number tells more than bank and program alone.
  return `${address.bank + first}·${program}${index >= plan.perBank ? ` (${index + first})` : ''}`;
}

/**
 * The slot that is meant by what somebody typed, in the chosen counting: the running number,
 * bank and program as a cell shows them, or a label as the unit writes it.
 */
export function slotOfNumber(plan: AddressPlan, text: string, counting: Counting): number | undefined {
  const typed = text.trim();
  if (counting === 'label') return indexOfLabel(plan, typed);
  const first = counting === 'zero' ? 0 : 1;
  const pair = /^(\d+)\s*[·.:/-]\s*(\d+)(?:\s*\(\d+\))?$/.exec(typed);
  if (pair) return indexOfAddress(plan, { bank: Number(pair[1]) - first, program: Number(pair[2]) - first });
  if (!/^\d+$/.test(typed)) return indexOfLabel(plan, typed);
  const index = Number(typed) - first;
  return index >= 0 && index < slotCount(plan) ? index : undefined;
}

/** A variant's number in the chosen counting; its name where it is labelled. */
export function variantNumber(names: readonly string[], variant: number, counting: Counting): string {
  if (counting === 'zero') return String(variant);
  if (counting === 'one') return String(variant + 1);
  return names[variant] ?? String(variant + 1);
}
