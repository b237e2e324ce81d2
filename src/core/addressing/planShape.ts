import { PLAN_LIMITS, slotCount, type AddressPlan, type SlotGroup } from './plan';

/** Programs in sequence as a table, for somebody to change: the first 128. */
export const countedTable = (plan: AddressPlan): NonNullable<AddressPlan['table']> =>
  Array.from({ length: Math.min(128, slotCount(plan)) }, (_, index) => ({
    bank: Math.floor(index / plan.perBank),
    program: index % plan.perBank,
    index,
  }));

/** A plan with one group more, like the last; null where it has as many as there can be. */
export const withGroup = (plan: AddressPlan): AddressPlan | null =>
  plan.groups.length >= PLAN_LIMITS.groups ? null : { ...plan, groups: [...plan.groups, freshGroup(plan.groups)] };

/** A group whose label has one part more, a number; null where it has as many as there can be. */
export const withDigit = (group: SlotGroup): SlotGroup | null =>
  group.digits.length >= PLAN_LIMITS.digits
    ? null
    : { ...group, digits: [...group.digits, { kind: 'number', start: 1, count: 4, width: 1 }] };

/** A group like the last, told apart by a word before its labels. */
function freshGroup(groups: readonly SlotGroup[]): SlotGroup {
  const name = groups.length === 1 ? 'factory' : `group ${groups.length + 1}`;
  const { digits, count } = groups.at(-1)!;
  const bare = digits[0]?.kind === 'text' && digits.length > 1 ? digits.slice(1) : digits;
  return { name, count, readOnly: name === 'factory', digits: [{ kind: 'text', text: `${name} ` }, ...bare] };
}

/** Slots at the edges of the plan: the first and last of each group and each bank, and one that is asked for. */
export function edgeSlots(plan: AddressPlan): number[] {
  const edges = new Set<number>();
  let first = 0;
  for (const { count } of plan.groups) {
    edges
      .add(first)
      .add(first + 1)
      .add(first + count - 1);
    first += count;
  }
  for (let index = plan.perBank; index < first && edges.size < 14; index += plan.perBank)
    edges.add(index - 1).add(index);
  return [...edges].filter((i) => i >= 0 && i < first).sort((a, b) => a - b);
}
