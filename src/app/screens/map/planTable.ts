import { indexOfLabel, labelOf, slotCount, type AddressPlan } from '../../../core/addressing';

type Rows = NonNullable<AddressPlan['table']>;

/** A plan's own table as text: bank, program and label, a line each. */
export const planTableText = (plan: AddressPlan): string =>
  (plan.table ?? [])
    .map(({ bank, program, index }) => `${bank} ${program} ${index < slotCount(plan) ? labelOf(plan, index) : index}`)
    .join('\n');

/** The table from its text, or the first line that is not one, in a sentence. */
export function readPlanTable(text: string, plan: AddressPlan): { readonly rows: Rows } | { readonly problem: string } {
  const rows: Rows[number][] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === '') continue;
    const [, bank, program, label] = /^\s*(\d{1,5})[\s,;]+(\d{1,3})[\s,;]+(.+?)\s*$/.exec(line) ?? [];
    if (bank === undefined)
      return { problem: `Line ${i + 1}: expected bank, program and slot, as in "0 12 ${labelOf(plan, 0)}".` };
    const index = indexOfLabel(plan, label!);
    if (index === undefined) return { problem: `Line ${i + 1}: there is no slot "${label}".` };
    if (Number(bank) > 16383 || Number(program) > 127) {
      return { problem: `Line ${i + 1}: banks go up to 16383 and programs up to 127, counted from 0.` };
    }
    rows.push({ bank: Number(bank), program: Number(program), index });
  }
  return { rows };
}
