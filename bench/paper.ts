import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { writeSheetsPdf } from '../src/core/formats/pdf';
import { sheetsOf } from '../src/core/sheets';
import { tonightOf } from '../src/core/tonight';
import { size } from './size';
import { wholeSet } from './wholeSet';

const font = (range: string, weight: number): Uint8Array => {
  const name = `@fontsource/ibm-plex-sans/files/ibm-plex-sans-${range}-${weight}-normal.woff`;
  return new Uint8Array(readFileSync(fileURLToPath(import.meta.resolve(name))));
};
const RANGES = ['latin', 'latin-ext'];

/** Cue sheets of the largest show: how many, of how many lines, and milliseconds to make them as data and as PDF. */
export async function printed(): Promise<{
  readonly sheets: number;
  readonly rows: number;
  readonly make: number;
  readonly one: number;
  readonly all: number;
}> {
  const typeface = { regular: RANGES.map((r) => font(r, 400)), bold: RANGES.map((r) => font(r, 700)) };
  const wish = { paper: 'a4', show: 'Whole', asOf: 'today', typeface } as const;
  const show = wholeSet(size(60, 2), size(400, 20));
  const start = performance.now();
  const sheets = sheetsOf(tonightOf(show), 'cues');
  const made = performance.now();
  await writeSheetsPdf(sheets.slice(0, 1), wish);
  const first = performance.now();
  await writeSheetsPdf(sheets, wish);
  const end = performance.now();
  const rows = sheets.flatMap((s) => s.parts).reduce((sum, p) => sum + (p.kind === 'table' ? p.rows.length : 0), 0);
  return { sheets: sheets.length, rows, make: made - start, one: first - made, all: end - first };
}
