import { z } from 'zod';
import { BANK_LSB, BANK_MSB, controlChange, programChange, type Bytes } from '../midi';
import type { Deep } from './readonly';

/** The most groups of a plan, and parts of a label. */
export const PLAN_LIMITS = { groups: 16, digits: 8 } as const;

const digitSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('number'),
    start: z.int().min(0).max(16383),
    count: z.int().min(1).max(16384),
    width: z.int().min(1).max(5),
  }),
  z.strictObject({
    kind: z.literal('letter'),
    from: z.string().regex(/^[A-Z]$/),
    count: z.int().min(1).max(26),
  }),
  z.strictObject({ kind: z.literal('text'), text: z.string().min(1).max(24) }),
]);

const groupSchema = z.strictObject({
  name: z.string().min(1).max(40),
  /** Slots in the group; at most what its digits can tell apart. */
  count: z.int().min(1),
  digits: z.array(digitSchema).min(1).max(PLAN_LIMITS.digits),
  /** Nothing can be stored in its slots: they are as the maker made them. */
  readOnly: z.boolean(),
});

/**
 * How a unit names its slots and which messages call them. Groups follow each other on
 * one line of indexes; in a group the last digit turns fastest.
 */
export const addressPlanSchema = z.strictObject({
  groups: z.array(groupSchema).min(1).max(PLAN_LIMITS.groups),
  /** Programs in a bank: 128 unless the unit says less. */
  perBank: z.int().min(1).max(128),
  bank: z.strictObject({
    send: z.enum(['none', 'msb', 'lsb', 'both']),
    when: z.enum(['always', 'differs']),
  }),
  /** Set where the unit has a table of its own instead of arithmetic; several programs may call one slot. */
  table: z
    .array(
      z.strictObject({
        bank: z.int().min(0).max(16383),
        program: z.int().min(0).max(127),
        index: z.int().min(0),
      }),
    )
    .nullable(),
});

export type Digit = Deep<z.infer<typeof digitSchema>>;
export type SlotGroup = Deep<z.infer<typeof groupSchema>>;
export type AddressPlan = Deep<z.infer<typeof addressPlanSchema>>;

/** What calls a slot on the wire: a bank (0 where the unit has none) and a program, both from 0. */
export interface Address {
  readonly bank: number;
  readonly program: number;
}

export type PlanProblem =
  | { readonly code: 'group-too-long'; readonly group: number; readonly count: number; readonly room: number }
  | { readonly code: 'letters-run-out'; readonly group: number; readonly from: string; readonly count: number }
  | { readonly code: 'same-label'; readonly label: string; readonly first: number; readonly second: number }
  | { readonly code: 'table-index'; readonly row: number; readonly index: number; readonly slots: number }
  | { readonly code: 'table-twice'; readonly row: number; readonly bank: number; readonly program: number }
  | { readonly code: 'bank-out-of-reach'; readonly slots: number; readonly reach: number };

/** How many slots a unit has by its address plan. */
export const slotCount = (plan: AddressPlan): number => plan.groups.reduce((sum, g) => sum + g.count, 0);

const places = (digit: Digit): number => (digit.kind === 'text' ? 1 : digit.count);
const groupRoom = (group: SlotGroup): number => group.digits.reduce((room, d) => room * places(d), 1);

function writeDigit(digit: Digit, value: number): string {
  if (digit.kind === 'text') return digit.text;
  if (digit.kind === 'letter') return String.fromCharCode(digit.from.charCodeAt(0) + value);
  return String(digit.start + value).padStart(digit.width, '0');
}

/** The slot's label as the unit writes it. Throws when there is no such slot. */
export function labelOf(plan: AddressPlan, index: number): string {
  const { group, offset } = groupOf(plan, index);
  let rest = offset;
  let label = '';
  for (let i = group.digits.length - 1; i >= 0; i--) {
    const digit = group.digits[i]!;
    const n = places(digit);
    label = writeDigit(digit, rest % n) + label;
    rest = Math.floor(rest / n);
  }
  return label;
}

/** The group that a slot belongs to, and its place in it. Throws when there is no such slot. */
export function groupOf(plan: AddressPlan, index: number): { group: SlotGroup; number: number; offset: number } {
  let offset = index;
  for (const [number, group] of plan.groups.entries()) {
    if (offset >= 0 && offset < group.count) return { group, number, offset };
    offset -= group.count;
  }
  throw new RangeError(`slot index ${index} is outside the plan's ${slotCount(plan)} slots`);
}

/** Letters of the longest label: eight parts of up to 24. */
const LONGEST_LABEL = 200;

/** Index of the slot that the unit writes as `label`; capitals and outer blanks do not matter. */
export function indexOfLabel(plan: AddressPlan, label: string): number | undefined {
  const text = label.trim().toLowerCase();
  if (text.length > LONGEST_LABEL) return undefined;
  let first = 0;
  for (const group of plan.groups) {
    const offset = offsetOfLabel(group, text);
    if (offset !== undefined && offset < group.count) return first + offset;
    first += group.count;
  }
  return undefined;
}

function offsetOfLabel(group: SlotGroup, text: string): number | undefined {
  // Tries all lengths that a number can have, because 1-12 and 11-2 may both be cut in two ways.
  const read = (at: number, digit: number, offset: number): number | undefined => {
    const d = group.digits[digit];
    if (!d) return at === text.length ? offset : undefined;
    if (d.kind === 'text') {
      const wanted = d.text.toLowerCase();
      return text.startsWith(wanted, at) ? read(at + wanted.length, digit + 1, offset) : undefined;
    }
    if (d.kind === 'letter') {
      const value = text.charCodeAt(at) - d.from.toLowerCase().charCodeAt(0);
      return value >= 0 && value < d.count ? read(at + 1, digit + 1, offset * d.count + value) : undefined;
    }
    for (let end = at + 1; end <= text.length && /[0-9]/.test(text[end - 1]!); end++) {
      const value = Number(text.slice(at, end)) - d.start;
      if (value < 0 || value >= d.count) continue;
      const found = read(end, digit + 1, offset * d.count + value);
      if (found !== undefined) return found;
    }
    return undefined;
  };
  return read(0, 0, 0);
}

/** What calls a slot, or undefined where the plan's table has no program for it. */
export function addressOf(plan: AddressPlan, index: number): Address | undefined {
  if (plan.table) {
    const row = plan.table.find((r) => r.index === index);
    return row && { bank: row.bank, program: row.program };
  }
  return { bank: Math.floor(index / plan.perBank), program: index % plan.perBank };
}

/** The slot that a bank and program call, or undefined where they call none. */
export function indexOfAddress(plan: AddressPlan, { bank, program }: Address): number | undefined {
  if (plan.table) return plan.table.find((r) => r.bank === bank && r.program === program)?.index;
  if (program >= plan.perBank) return undefined;
  const index = bank * plan.perBank + program;
  return index < slotCount(plan) ? index : undefined;
}

/** The bank select messages for a bank, in the parts that the unit wants (MIDI 1.0, controls 0 and 32). */
export function bankMessages(plan: AddressPlan, channel: number, bank: number): Bytes[] {
  switch (plan.bank.send) {
    case 'none':
      return [];
    case 'msb':
      return [controlChange(channel, BANK_MSB, bank & 127)];
    case 'lsb':
      return [controlChange(channel, BANK_LSB, bank & 127)];
    case 'both':
      return [controlChange(channel, BANK_MSB, bank >> 7), controlChange(channel, BANK_LSB, bank & 127)];
  }
}

/**
 * The messages that call a slot. `currentBank` is the bank that the unit has now, or null
 * where nobody knows; undefined when the plan's table has no program for the slot.
 */
export function slotMessages(
  plan: AddressPlan,
  channel: number,
  index: number,
  currentBank: number | null,
): Bytes[] | undefined {
  const address = addressOf(plan, index);
  if (!address) return undefined;
  const select = plan.bank.when === 'always' || currentBank !== address.bank;
  return [...(select ? bankMessages(plan, channel, address.bank) : []), programChange(channel, address.program)];
}

/** Everything that is wrong with a plan, in the order in which one would mend it. */
export function planProblems(plan: AddressPlan): PlanProblem[] {
  const problems: PlanProblem[] = [];
  for (const [i, group] of plan.groups.entries()) {
    for (const d of group.digits) {
      if (d.kind === 'letter' && d.from.charCodeAt(0) + d.count - 1 > 'Z'.charCodeAt(0)) {
        problems.push({ code: 'letters-run-out', group: i, from: d.from, count: d.count });
      }
    }
    const room = groupRoom(group);
    if (group.count > room) problems.push({ code: 'group-too-long', group: i, count: group.count, room });
  }
  if (problems.length > 0) return problems;
  const same = firstSameLabel(plan);
  if (same) problems.push(same);
  const slots = slotCount(plan);
  if (plan.table) problems.push(...tableProblems(plan.table, slots));
  else {
    const banks = { none: 1, msb: 128, lsb: 128, both: 16384 }[plan.bank.send];
    if (slots > banks * plan.perBank) {
      problems.push({ code: 'bank-out-of-reach', slots, reach: banks * plan.perBank });
    }
  }
  return problems;
}

/** Slots whose labels are compared one by one; plans beyond that are generated and have one digit a place. */
const LABELS_COMPARED = 20000;

function firstSameLabel(plan: AddressPlan): PlanProblem | undefined {
  const seen = new Map<string, number>();
  const count = Math.min(slotCount(plan), LABELS_COMPARED);
  for (let index = 0; index < count; index++) {
    const label = labelOf(plan, index).toLowerCase();
    const first = seen.get(label);
    if (first !== undefined) return { code: 'same-label', label: labelOf(plan, index), first, second: index };
    seen.set(label, index);
  }
  return undefined;
}

function tableProblems(table: NonNullable<AddressPlan['table']>, slots: number): PlanProblem[] {
  const problems: PlanProblem[] = [];
  const seen = new Set<number>();
  for (const [row, { bank, program, index }] of table.entries()) {
    if (index >= slots) problems.push({ code: 'table-index', row, index, slots });
    if (seen.has(bank * 128 + program)) problems.push({ code: 'table-twice', row, bank, program });
    seen.add(bank * 128 + program);
  }
  return problems;
}
