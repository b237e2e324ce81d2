/** A cell of a table as it is written to CSV: one that a spreadsheet would take for a formula is led by an apostrophe. */
export const harmless = (cell: string): string => (/^'*[=+@]/.test(cell) ? `'${cell}` : cell);

/** What a cell said before that. */
export const harmed = (cell: string): string => (/^'+[=+@]/.test(cell) ? cell.slice(1) : cell);
