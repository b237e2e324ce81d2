import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unprintable, writeSheetsPdf } from '../src/core/formats/pdf';
import { SHEET_KINDS, type Sheet } from '../src/core/sheets';
import { fontsOf } from '../src/core/testing/fonts';
import { inScripts } from '../src/core/testing/scripts';
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

/** Letters as they are copied and searched for: points and accents stand beside them by themselves. */
const letters = (text: string): string => text.normalize('NFD').replaceAll(/[\p{M}\p{Cf}\s]/gu, '');

/** The first letters of everything that a sheet's cells say, which no line end parts. */
const beginnings = (sheet: Sheet): readonly string[] =>
  sheet.parts.flatMap((part) =>
    part.kind === 'table' ? part.rows.flatMap((row) => row.map((cell) => letters(cell.split(/[\s/,]/)[0]!))) : [],
  );

export interface Printed {
  readonly kind: string;
  readonly sheets: number;
  readonly pages: number;
  readonly seconds: number;
  /** Signs without a font, and cells that are not to be found in what was printed. */
  readonly odd: number;
  readonly lost: number;
}

/** Every kind of sheet of the largest show, called in eight scripts, as a PDF that Debian's poppler reads back. */
export async function printedInScripts(told: (one: Printed) => void): Promise<boolean> {
  const show = inScripts(wholeSet(size(60, 2), size(400, 20)));
  const folder = mkdtempSync(join(tmpdir(), 'lantern-paper-'));
  const path = join(folder, 'sheets.pdf');
  let well = true;
  try {
    for (const kind of SHEET_KINDS) {
      const sheets = paperOf(show, kind);
      if (sheets.length === 0) continue;
      const fonts = fontsOf(sheets, show.title);
      const start = performance.now();
      writeFileSync(path, await writeSheetsPdf(sheets, { paper: 'a4', show: show.title, asOf: 'today', fonts }));
      const seconds = (performance.now() - start) / 1000;
      const read = spawnSync('pdftotext', [path, '-'], { encoding: 'utf8', maxBuffer: 2 ** 30 });
      if (read.status !== 0)
        throw new Error(`pdftotext (Debian's poppler-utils): ${read.error?.message ?? read.stderr}`);
      const text = letters(read.stdout);
      const lost = [...new Set(sheets.flatMap(beginnings))].filter((word) => !text.includes(word));
      if (lost.length > 0) console.log(`    not found: ${lost.slice(0, 8).join(' · ')}`);
      const odd = unprintable(sheets, show.title, fonts).length;
      well = well && lost.length === 0 && odd === 0;
      told({ kind, sheets: sheets.length, pages: read.stdout.split('\f').length - 1, seconds, odd, lost: lost.length });
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
  return well;
}
