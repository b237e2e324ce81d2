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

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'] as const;
const NUMBER = /^[+-]?\d+([.,]\d+)?(e[+-]?\d+)?$/i;

/** What stands in a cell as a number; undefined where it is none. */
const numberOf = (cell: string): number | undefined => (NUMBER.test(cell) ? Number(cell.replace(',', '.')) : undefined);

/** Days and months that a cell may stand for: those of "1/2", "1-Feb", "2026-02-01". */
function dateParts(cell: string): readonly number[] | undefined {
  const word = cell.toLowerCase();
  const month = MONTHS.findIndex((m) => new RegExp(`(^|[^a-z])${m}[a-z]*\\.?($|[^a-z])`).test(word));
  const figures = word.match(/\d+/g)?.map(Number) ?? [];
  const small = figures.filter((f) => f >= 1 && f <= 31);
  if (month >= 0) return [month + 1, ...small];
  return /^\d{1,4}[-/.]\d{1,2}([-/.]\d{1,4})?\.?$/.test(word) ? small : undefined;
}

/**
 * Whether a cell is what a spreadsheet makes of another text: a figure without its zeros ("007" is 7), a power of ten
 * ("1E3" is 1000), a date ("1/2" is 1-Feb).
 */
export function isMadeOf(cell: string, was: string): boolean {
  const [now, before] = [cell.trim(), was.trim()];
  if (now === before) return false;
  const number = numberOf(before);
  if (number !== undefined && numberOf(now) === number) return true;
  // A day and a month, and whatever year the spreadsheet thought of.
  const [old, date] = [/^\d{1,2}[-/.]\d{1,2}\.?$/.test(before) ? dateParts(before) : undefined, dateParts(now)];
  return old !== undefined && date !== undefined && old.length === 2 && old.every((part) => date.includes(part));
}
