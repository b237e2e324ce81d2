import { writeSheetsPdf } from '../src/core/formats/pdf';
import { fontsOf } from '../src/core/testing/fonts';
import { paperOf } from '../src/core/testing/sheets';
import { size } from './size';
import { wholeSet } from './wholeSet';

/** Cue sheets of the largest show: how many, of how many lines, and milliseconds to make them as data and as PDF. */
export async function printed(): Promise<{
  readonly sheets: number;
  readonly rows: number;
  readonly make: number;
  readonly one: number;
  readonly all: number;
}> {
  const show = wholeSet(size(60, 2), size(400, 20));
  const start = performance.now();
  const sheets = paperOf(show, 'cues');
  const wish = { paper: 'a4', show: 'Whole', asOf: 'today', fonts: fontsOf(sheets, 'Whole') } as const;
  const made = performance.now();
  await writeSheetsPdf(sheets.slice(0, 1), wish);
  const first = performance.now();
  await writeSheetsPdf(sheets, wish);
  const end = performance.now();
  const rows = sheets.flatMap((s) => s.parts).reduce((sum, p) => sum + (p.kind === 'table' ? p.rows.length : 0), 0);
  return { sheets: sheets.length, rows, make: made - start, one: first - made, all: end - first };
}
