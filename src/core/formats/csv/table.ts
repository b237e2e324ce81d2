import Papa from 'papaparse';
import { LINE_LIMIT, PROBLEM_LIMIT, harmed, madeOf, type MadeNames } from '../../cells';
import { csvText } from '../../csvText';
import { addTo } from '../../groups';
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
import { figureIn, type Range } from '../../show';

/** A line of a table: where it stands in the text, counted from 1, and its cells by the title of their column. */
export interface TableRow {
  readonly row: number;
  readonly cells: Readonly<Record<string, string>>;
  /** What is done with names that a spreadsheet seems to have changed. */
  readonly made: MadeNames;
}

/** Says what is wrong with a cell, or with a whole line. */
export type SayOf = <C extends ProblemCode>(
  row: TableRow,
  column: string | null,
  code: C,
  data: ProblemData[C],
) => void;

/** A table with its titles as CSV. */
export const writeTable = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  csvText([columns, ...rows]);

/**
 * Reads a table whose first line has titles, in any order and any case; `needed` have to be there, others may be left out.
 * Columns are parted by commas, semicolons or tabs. Then `understand` reads its lines, and is told which columns are there; one error refuses the whole table.
 */
export function readTable<T>(
  text: string,
  columns: readonly string[],
  needed: readonly string[],
  made: MadeNames,
  understand: (rows: readonly TableRow[], say: SayOf, has: (column: string) => boolean, warn: SayOf) => T,
): Read<T> {
  const refuse = <C extends ProblemCode>(code: C, place: Place, data: ProblemData[C]): Read<T> => ({
    value: undefined,
    problems: [problem(code, 'error', place, data)],
  });
  const lines = text.replace(/^\ufeff/, '');
  if (lines.trim() === '') return refuse('csv.empty', NOWHERE, {});
  const { data, errors } = Papa.parse<string[]>(lines, {
    preview: LINE_LIMIT + 2,
    delimiter: delimiterOf(lines),
  });
  if (data.length > LINE_LIMIT + 1) return refuse('csv.too-long', NOWHERE, { limit: LINE_LIMIT });
  const quotes = errors.find((e) => e.type === 'Quotes');
  if (quotes) return refuse('list.quotes', { in: 'text', row: (quotes.row ?? 0) + 1, column: 1 }, {});
  const head = (data[0] ?? []).map((t) => t.trim().toLowerCase());
  const missing = needed.filter((c) => !head.includes(c.toLowerCase()));
  if (missing.length > 0) return refuse('csv.columns', { in: 'text', row: 1, column: 1 }, { missing, columns });
  const rows = data.slice(1).flatMap((line, i): TableRow[] => {
    if (line.every((c) => c.trim() === '')) return [];
    const cells = columns.map((c) => [c, harmed((line[head.indexOf(c.toLowerCase())] ?? '').trim())] as const);
    return [{ row: i + 2, cells: Object.fromEntries(cells), made }];
  });
  const problems: Problem[] = [];
  const sayAs =
    (severity: 'error' | 'warning'): SayOf =>
    ({ row }, column, code, about) => {
      if (problems.length >= PROBLEM_LIMIT) return;
      const at = column === null ? 1 : head.indexOf(column.toLowerCase()) + 1;
      problems.push(problem(code, severity, { in: 'text', row, column: Math.max(1, at) }, about));
    };
  const has = (column: string): boolean => head.includes(column.toLowerCase());
  const value = understand(rows, sayAs('error'), has, sayAs('warning'));
  return hasErrors(problems) ? { value: undefined, problems } : { value, problems };
}

/** What parts the titles of the first line: its cells may hold other signs. */
function delimiterOf(text: string): string {
  const head = text
    .slice(0, 4000)
    .split(/[\r\n]/, 1)[0]!
    .replaceAll(/"[^"]*"/g, '');
  const count = (sign: string): number => head.split(sign).length;
  return [',', ';', '\t'].reduce((best, sign) => (count(sign) > count(best) ? sign : best));
}

/** `name=value; name=value`; names and values with signs of their own stand in quotes. */
export const writePairs = (pairs: readonly (readonly [string, string])[]): string =>
  pairs.map(([name, value]) => `${quoted(name)}=${quoted(value)}`).join('; ');

const quoted = (text: string): string => (/[;="]|^\s|\s$/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** The pairs of a cell; undefined where it is not written like that. */
export function readPairs(text: string): readonly (readonly [string, string])[] | undefined {
  const part = /\s*("(?:[^"]|"")*"|[^;="]*?)\s*=\s*("(?:[^"]|"")*"|[^;="]*?)\s*(;|$)/y;
  const pairs: [string, string][] = [];
  let at = 0;
  while (at < text.length) {
    part.lastIndex = at;
    const match = part.exec(text);
    if (!match || match[0].length === 0) return undefined;
    pairs.push([bare(match[1]!), bare(match[2]!)]);
    at += match[0].length;
  }
  return pairs;
}

const bare = (text: string): string =>
  text.startsWith('"') && text.length > 1 ? text.slice(1, -1).replaceAll('""', '"') : text;

interface Names<T> {
  readonly found: ReadonlyMap<string, readonly T[]>;
  readonly written: ReadonlyMap<T, string>;
  /** The names that a spreadsheet may have made another one of. */
  readonly meant: (cell: string) => readonly string[];
}

/** What was worked out for a list: tables ask for it in every line. */
const known = new WeakMap<readonly object[], Names<object>>();

const keyOf = (name: string): string => name.trim().toLowerCase();

function namesOf<T extends object>(list: readonly T[], nameOf: (item: T) => string): Names<T> {
  const there = known.get(list) as Names<T> | undefined;
  if (there) return there;
  const found = new Map<string, T[]>();
  for (const item of list) addTo(found, keyOf(nameOf(item)), item);
  const written = new Map<T, string>();
  // Those that are added meanwhile need no name.
  for (const same of Array.from(found.values())) {
    let n = 1;
    for (const item of same) {
      let name = nameOf(item);
      if (same.length > 1) {
        // "Lead #2" may be a name of its own.
        do name = `${nameOf(item)} #${n++}`;
        while (found.has(keyOf(name)));
        found.set(keyOf(name), [item]);
      }
      written.set(item, name);
    }
  }
  let like: ((cell: string) => readonly string[]) | undefined;
  const meant = (cell: string): readonly string[] => (like ??= madeOf(written.values()))(cell);
  const names = { found, written, meant };
  known.set(list, names);
  return names;
}

/**
 * Things by name, whatever the case; those that share a name are all there. With the number that tells it from them,
 * as `writtenName` has it, each is found alone.
 */
export function byName<T extends object>(
  list: readonly T[],
  nameOf: (item: T) => string,
): (name: string) => readonly T[] {
  const { found } = namesOf(list, nameOf);
  return (name) => found.get(keyOf(name)) ?? [];
}

/**
 * The name that a cell means, among those that a list has. Where it has none such but one that a spreadsheet makes this
 * of ("7" for "007"), it is that one, or it is asked about, as the reader was told; undefined where it is asked about.
 */
export function nameIn<T extends object>(
  list: readonly T[],
  nameOf: (item: T) => string,
  column: string,
  row: TableRow,
  say: SayOf,
): string | undefined {
  const name = row.cells[column] ?? '';
  const { found, meant } = namesOf(list, nameOf);
  if (found.has(keyOf(name))) return name;
  return asMeant(name, meant(name), column, row, say);
}

/** What a cell says, given what a spreadsheet may have made it of; undefined where that is asked about. */
export function asMeant(
  name: string,
  meant: readonly string[],
  column: string,
  row: TableRow,
  say: SayOf,
): string | undefined {
  if (meant.length === 0 || row.made === 'take') return name;
  if (meant.length === 1 && row.made === 'keep') return meant[0]!;
  say(row, column, 'csv.made-of', { found: name, meant });
  return undefined;
}

/** What a table calls a thing of a list: its name; of several of one name "Lead #1", "Lead #2". Empty for what is not in it. */
export function writtenName<T extends object>(
  list: readonly T[],
  nameOf: (item: T) => string,
): (item: T | undefined) => string {
  const { written } = namesOf(list, nameOf);
  return (item) => (item && written.get(item)) ?? '';
}

/** The one thing of the name that a cell has; else it is said what is wrong with it. `of`: the unit that should have it, where it is a unit's. */
export function theOne<T extends object>(
  list: readonly T[],
  nameOf: (item: T) => string,
  what: string,
  column: string,
  row: TableRow,
  say: SayOf,
  of = '',
): T | undefined {
  const name = nameIn(list, nameOf, column, row, say);
  if (name === undefined) return undefined;
  const found = byName(list, nameOf)(name);
  if (found.length === 1) return found[0];
  if (found.length === 0) say(row, column, 'csv.no-such', { of, what, name });
  else say(row, column, 'csv.many', { of, what, name, count: found.length });
  return undefined;
}

/** A figure in a cell, with a comma or a point; `otherwise` where the cell is empty. */
export function figureOf(row: TableRow, column: string, otherwise: number, range: Range, say: SayOf): number {
  const text = row.cells[column] ?? '';
  const value = text === '' ? otherwise : figureIn(range, text);
  if (value === undefined) say(row, column, 'csv.value', { found: text, expected: [`${range[0]} to ${range[1]}`] });
  return value ?? otherwise;
}

/** One of a few words in a cell; the first where it is empty. */
export function wordIn<W extends string>(row: TableRow, column: string, words: readonly [W, ...W[]], say: SayOf): W {
  const text = (row.cells[column] ?? '').toLowerCase();
  if (text === '') return words[0];
  const found = words.find((w) => w === text);
  if (found === undefined) say(row, column, 'csv.value', { found: row.cells[column]!, expected: words });
  return found ?? words[0];
}
