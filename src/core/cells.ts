/** The most lines that a list or a table may have: one for each slot that a unit can have at all. */
export const LINE_LIMIT = 65536;
/** Problems that one answer lists; what has more of them is not mended line by line. */
export const PROBLEM_LIMIT = 20;

/** A cell of a table as it is written to CSV: one that a spreadsheet would take for a formula is led by an apostrophe. */
export const harmless = (cell: string): string => (/^'*[=+@]/.test(cell) ? `'${cell}` : cell);

/** What a cell said before that. */
export const harmed = (cell: string): string => (/^'+[=+@]/.test(cell) ? cell.slice(1) : cell);
