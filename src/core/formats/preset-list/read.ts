import Papa from 'papaparse';
import { LINE_LIMIT, PROBLEM_LIMIT, harmed, isMadeOf, type MadeNames } from '../../cells';
import { madeLabel } from '../madeLabel';
import { indexOfLabel, labelOf, slotCount, type AddressPlan } from '../../addressing';
import {
  NOWHERE,
  hasErrors,
  problem,
  type Place,
  type Problem,
  type ProblemCode,
  type ProblemData,
  type Read,
} from '../../problems';
import type { ListedName, Slot } from '../../show';

export const NAME_LIMIT = 120;

export interface PresetListOptions {
  readonly plan: AddressPlan;
  /** The unit's name, for what is said about it. */
  readonly unit: string;
  /** The slot that a list of names alone begins with. */
  readonly first: number;
  /** The slots with the names that they have already: a spreadsheet may have changed those in the list. */
  readonly slots: readonly Slot[];
  /** What is done with what a spreadsheet seems to have changed. */
  readonly made: MadeNames;
}

/**
 * Names from a pasted column, lines of "label, name", or a table with a head. An empty line
 * of a bare column is a slot without a name. Columns are parted by tabs, commas or
 * semicolons (RFC 4180 quoting). One error refuses the whole list; each has its line.
 */
export function readPresetList(text: string, options: PresetListOptions): Read<readonly ListedName[]> {
  const problems: Problem[] = [];
  const whole = new Set<ProblemCode>(['list.empty', 'list.gaps']);
  const say = <C extends ProblemCode>(
    code: C,
    row: number,
    data: ProblemData[C],
    severity: 'error' | 'note' = 'error',
  ): void => {
    if (problems.length < PROBLEM_LIMIT)
      problems.push(problem(code, severity, whole.has(code) ? NOWHERE : at(row), data));
  };
  const lines = linesOf(text);
  if (lines.length > LINE_LIMIT) {
    say('list.too-long', LINE_LIMIT + 1, { rows: lines.length, limit: LINE_LIMIT });
    return { value: undefined, problems };
  }
  const table = tableOf(lines, options.plan);
  if (table.quoteAt !== undefined) say('list.quotes', table.quoteAt, {});
  const entries = 'columns' in table ? tableEntries(table, options, say) : columnEntries(lines, options);
  if (!entries) return { value: undefined, problems };
  const seen = new Map<number, number>();
  const names = new Map<string, number>();
  const named: ListedName[] = [];
  const there = new Map(options.slots.map((s) => [s.index, s.name]));
  const count = slotCount(options.plan);
  for (const { index, name: written, row } of entries) {
    const name = nameOf(written, there.get(index), options.made, row, say);
    if (index < count) named.push({ index, name });
    const odd = Array.from(name).find((c) => c.codePointAt(0)! < 32 || c === '\u007f' || c === '\ufffd');
    if (odd !== undefined) say('list.not-text', row, { code: odd.codePointAt(0)! });
    if (name.length > NAME_LIMIT) say('list.name-long', row, { length: name.length, limit: NAME_LIMIT });
    if (index >= count) {
      if (name !== '') say('list.past-end', row, { name, slots: count });
      continue;
    }
    const twice = seen.get(index);
    if (twice !== undefined) say('list.slot-twice', row, { label: labelOf(options.plan, index), row: twice });
    seen.set(index, row);
    const key = name.toLowerCase();
    if (name !== '' && names.has(key)) say('list.same-name', row, { name, row: names.get(key)! }, 'note');
    if (!names.has(key)) names.set(key, row);
  }
  if (!hasErrors(problems) && ![...names.keys()].some((name) => name !== '')) say('list.empty', 1, {});
  if (hasErrors(problems)) return { value: undefined, problems };
  const between = seen.size === 0 ? 0 : Math.max(...seen.keys()) - Math.min(...seen.keys()) + 1 - seen.size;
  if (between > 0) say('list.gaps', 1, { count: between }, 'note');
  return { value: named.toSorted((a, b) => a.index - b.index), problems };
}

/** The name that a line means for a slot, as it was told to read what a spreadsheet changed. */
function nameOf(name: string, meant: string | undefined, made: MadeNames, row: number, say: Say): string {
  if (made === 'take' || meant === undefined || name === '' || !isMadeOf(name, meant)) return name;
  if (made === 'ask') say('csv.made-of', row, { found: name, meant: [meant] });
  return meant;
}

type Say = <C extends ProblemCode>(code: C, row: number, data: ProblemData[C]) => void;
type Entry = ListedName & { readonly row: number };

const at = (row: number): Place => ({ in: 'text', row, column: 1 });

/** Lines without the blank ones at the end, which every copied column brings along. */
function linesOf(text: string): string[] {
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);
  while (lines.length > 0 && lines.at(-1)!.trim() === '') lines.pop();
  return lines;
}

interface Table {
  readonly rows: readonly (readonly string[])[];
  /** What each column is; null where nothing says so. */
  readonly columns: readonly (Column | null)[];
  /** Titles, where the first row is a head. */
  readonly head: readonly string[] | null;
  readonly quoteAt?: number | undefined;
}

type Column = 'label' | 'from0' | 'from1' | 'name';

const TITLES: Readonly<Record<string, Column>> = {
  label: 'label',
  slot: 'label',
  place: 'label',
  preset: 'label',
  'from 0': 'from0',
  index: 'from0',
  'from 1': 'from1',
  number: 'from1',
  name: 'name',
  title: 'name',
};

/** A table, where the text is one; a column of names may hold commas and stays a column. */
function tableOf(lines: readonly string[], plan: AddressPlan): Table | { readonly quoteAt?: number | undefined } {
  const filled = lines.filter((l) => l.trim() !== '');
  for (const delimiter of ['\t', ';', ',']) {
    if (!filled.some((l) => l.includes(delimiter))) continue;
    const parsed = Papa.parse<string[]>(lines.join('\n'), { delimiter, newline: '\n' });
    const rows = parsed.data.map((r) => r.map((c) => harmed(c.trim())));
    const quoteAt = parsed.errors.find((e) => e.type === 'Quotes');
    const first = rows.find((r) => r.some((c) => c !== '')) ?? [];
    const titled = first.map((c) => TITLES[c.toLowerCase()] ?? null);
    const quoted = quoteAt && (quoteAt.row ?? 0) + 1;
    if (titled.some((c) => c !== null) && first.length > 1) {
      return { rows, columns: titled, head: first, quoteAt: quoted };
    }
    const labelled = rows.every(
      (r) =>
        r.every((c) => c === '') ||
        (r.length >= 2 && (indexOfLabel(plan, r[0]!) !== undefined || madeLabel(plan, r[0]!).length > 0)),
    );
    if (delimiter === '\t' || labelled) {
      const columns = first.map((_, i): Column | null =>
        i === 0 && first.length > 1 ? 'label' : i === Math.min(1, first.length - 1) ? 'name' : null,
      );
      return { rows, columns, head: null, quoteAt: quoted };
    }
  }
  return {};
}

function tableEntries(table: Table, options: PresetListOptions, say: Say): Entry[] | undefined {
  const { plan, unit, made } = options;
  const { columns, head, rows } = table;
  const nameAt = columns.indexOf('name');
  if (nameAt < 0) {
    say('list.no-names', 1, { columns: head ?? [] });
    return undefined;
  }
  const keys = (['label', 'from0', 'from1'] as const).map((c) => columns.indexOf(c)).filter((i) => i >= 0);
  const [keyAt] = keys;
  const count = slotCount(plan);
  const entries: Entry[] = [];
  let next = 0;
  let headPassed = head === null;
  for (const [i, cells] of rows.entries()) {
    if (cells.every((c) => c === '')) continue;
    if (!headPassed) {
      headPassed = true;
      continue;
    }
    const row = i + 1;
    const name = cells[nameAt] ?? '';
    const key = keyAt === undefined ? undefined : (cells[keyAt] ?? '');
    // A label that a spreadsheet made into a date may have its number beside it.
    const found = keys.map((k) => slotOfKey(plan, columns[k]!, cells[k] ?? '')).find((i) => i !== undefined);
    const meant = key !== undefined && found === undefined && made !== 'take' ? madeLabel(plan, key) : [];
    if (meant.length > 1 || (meant.length === 1 && made === 'ask')) {
      say('csv.made-of', row, { found: key!, meant });
      continue;
    }
    const index =
      key === undefined ? next : (found ?? (meant.length === 0 ? undefined : indexOfLabel(plan, meant[0]!)));
    next += 1;
    if (index === undefined || index < 0 || (key !== undefined && index >= count)) {
      say('list.no-such-slot', row, { label: key ?? '', example: labelOf(plan, 0), unit });
    } else entries.push({ index, name, row });
  }
  return entries;
}

function slotOfKey(plan: AddressPlan, column: Column, key: string): number | undefined {
  if (column === 'label') return indexOfLabel(plan, key);
  if (!/^\d{1,6}$/.test(key)) return undefined;
  return Number(key) - (column === 'from1' ? 1 : 0);
}

const columnEntries = (lines: readonly string[], { first }: PresetListOptions): Entry[] =>
  lines.map((line, i) => ({ index: first + i, name: line.trim(), row: i + 1 }));
