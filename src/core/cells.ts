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
