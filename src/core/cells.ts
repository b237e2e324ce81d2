/** The most lines that a list or a table may have: one for each slot that a unit can have at all. */
export const LINE_LIMIT = 65536;
/** Problems that one answer lists; what has more of them is not mended line by line. */
export const PROBLEM_LIMIT = 20;

/** Signs by which a spreadsheet knows a formula; a plain number may begin with its own. */
const isFormula = (cell: string): boolean => /^[=+\-@\t\r\n]/.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell);

const bare = (cell: string): string => cell.replace(/^'+/, '');

/** A cell of a table as it is written to CSV: one that a spreadsheet would take for a formula is led by an apostrophe. */
export const harmless = (cell: string): string => (isFormula(bare(cell)) ? `'${cell}` : cell);

/** What a cell said before that. */
export const harmed = (cell: string): string => (cell.startsWith("'") && isFormula(bare(cell)) ? cell.slice(1) : cell);

/** The names of each month in the languages that a spreadsheet may speak, without accents. */
const MONTHS: readonly string[] = [
  'january januar janvier januari janeiro gennaio enero styczen',
  'february februar fevrier februari fevereiro febbraio febrero luty',
  'march marz maerz mars maart mrt marco marzo marzec',
  'april avril abril aprile kwiecien',
  'may mai mei maj maio maggio mayo',
  'june juni juin junho giugno junio czerwiec',
  'july juli juillet julho luglio julio lipiec',
  'august aout augustus augusti agosto sierpien',
  'september septembre setembro settembre septiembre wrzesien',
  'october oktober octobre outubro ottobre octubre pazdziernik',
  'november novembre novembro noviembre listopad',
  'december dezember decembre dezembro dicembre diciembre grudzien',
];
const NUMBER = /^[+-]?\d+([.,]\d+)?(e[+-]?\d+)?$/i;

/** What stands in a cell as a number; undefined where it is none. */
const numberOf = (cell: string): number | undefined => (NUMBER.test(cell) ? Number(cell.replace(',', '.')) : undefined);

/** The month that a word names or shortens, from 1; 0 for none. */
function monthOf(word: string): number {
  const plain = word.toLowerCase().normalize('NFD').replaceAll(/\p{M}/gu, '');
  if (plain.length < 3) return 0;
  return MONTHS.findIndex((names) => names.split(' ').some((name) => name.startsWith(plain))) + 1;
}

interface MadeDate {
  /** What may be day, month or a short year. */
  readonly parts: readonly number[];
  /** Whether the month stands there as a word. */
  readonly inWords: boolean;
}

/** The date that a text may be: "1/2", "1-Feb", "1. März", "2026-02-01". */
function dateOf(text: string): MadeDate | undefined {
  const figures = text.match(/\d+/g)?.map(Number) ?? [];
  const small = figures.filter((f) => f >= 1 && f <= 31);
  const words = text.match(/\p{L}[\p{L}\p{M}]*/gu) ?? [];
  const month = words.length === 1 ? monthOf(words[0]) : 0;
  if (month > 0 && (figures.length === 1 || figures.length === 2)) return { parts: [month, ...small], inWords: true };
  const plain = words.length === 0 && /^\d{1,4}[-/.] ?\d{1,2}([-/.] ?\d{1,4})?\.?$/.test(text);
  return plain ? { parts: small, inWords: false } : undefined;
}

/** The time of day that a text may be, with seconds or without. */
function timeOf(text: string): string | undefined {
  const [, hour, minute, second = '0', half = ''] =
    /^(\d{1,3}):(\d{1,2})(?::(\d{1,2}))?(?: ?([AP])M)?$/i.exec(text) ?? [];
  if (hour === undefined) return undefined;
  const from = half === '' ? Number(hour) : (Number(hour) % 12) + (half.toUpperCase() === 'P' ? 12 : 0);
  return `time ${from} ${Number(minute)} ${Number(second)}`;
}

const pairKey = (a: number, b: number): string => `date ${Math.min(a, b)} ${Math.max(a, b)}`;

/** What a text may be to a spreadsheet that is none to us: a figure, a time, yes and no. */
function plainKeys(text: string): readonly string[] {
  const number = numberOf(text);
  const time = timeOf(text);
  const truth = /^(true|false)$/i.test(text) ? [text.toLowerCase()] : [];
  return [...(number === undefined ? [] : [`number ${number}`]), ...(time === undefined ? [] : [time]), ...truth];
}

/** What a spreadsheet may take a text for. */
function takenFor(was: string): readonly string[] {
  const text = was.trim();
  const date = dateOf(text);
  // A day and a month, and whatever year the spreadsheet thinks of.
  const [day, month, more] = date?.parts ?? [];
  if (!date || day === undefined || month === undefined || more !== undefined) return plainKeys(text);
  return [...plainKeys(text), `${date.inWords ? 'in words ' : ''}${pairKey(day, month)}`];
}

/** What a cell may have been taken for before it came to look so. */
function lookingLike(cell: string): readonly string[] {
  const text = cell.trim();
  const date = dateOf(text);
  const parts = date?.parts ?? [];
  const pairs = parts.flatMap((a, i) => parts.slice(i + 1).map((b) => pairKey(a, b)));
  // A month in words is not made of another one in words: "Mars 1" is no "Mar 1".
  return [...plainKeys(text), ...pairs, ...(date?.inWords ? [] : pairs.map((key) => `in words ${key}`))];
}

/**
 * Whether a cell is what a spreadsheet makes of another text: a figure without its zeros ("007" is 7), a power of ten
 * ("1E3" is 1000), a date ("1/2" is 1-Feb, or 01. Feb).
 */
export function isMadeOf(cell: string, was: string): boolean {
  if (cell.trim() === was.trim()) return false;
  const before = new Set(takenFor(was));
  return before.size > 0 && lookingLike(cell).some((key) => before.has(key));
}

/** For cells that name something: those of these texts that a spreadsheet may have made the cell of; none where it is one of them. */
export function madeOf(texts: Iterable<string>): (cell: string) => readonly string[] {
  const known = new Map<string, Set<string>>();
  for (const text of texts) {
    for (const key of takenFor(text)) known.set(key, (known.get(key) ?? new Set()).add(text));
  }
  return (cell) => {
    if (known.size === 0) return [];
    const found = new Set(lookingLike(cell).flatMap((key) => [...(known.get(key) ?? [])]));
    return found.has(cell.trim()) ? [] : [...found];
  };
}

/**
 * What is done with a name that looks like what a spreadsheet made of another: refuse it and ask, keep the name that was
 * there, or take what is written.
 */
export type MadeNames = 'ask' | 'keep' | 'take';
