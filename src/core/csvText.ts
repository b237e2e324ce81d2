import Papa from 'papaparse';
import { harmless } from './cells';

/**
 * Lines as CSV (RFC 4180), each ended by CR LF: the one door for every table that leaves. A cell that a
 * spreadsheet would take for a formula is led by an apostrophe, heads too.
 */
export const csvText = (lines: readonly (readonly (string | number)[])[]): string =>
  lines.length === 0
    ? ''
    : `${Papa.unparse(
        lines.map((line) => line.map((cell) => harmless(String(cell)))),
        { newline: '\r\n' },
      )}\r\n`;
