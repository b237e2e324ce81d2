import { csvText } from '../csvText';
import type { Sheet } from './sheet';

/** The tables of sheets as CSV (RFC 4180), each under a line with its name; strips are lines of names. */
export function sheetCsv(sheets: readonly Sheet[]): string {
  const lines = sheets.flatMap(({ kind, title, parts }) =>
    parts.flatMap((part): string[][] => {
      if (part.kind === 'text') return [[part.text]];
      const head = [kind, title, part.name];
      if (part.kind === 'strips') return [head, ...part.rows.map((row) => row.map((c) => c.name))];
      return [head, part.columns.map((c) => c.head), ...part.rows.map((r) => [...r])];
    }),
  );
  return csvText(lines);
}
