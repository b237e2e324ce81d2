import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  fontFilesOf,
  fontPath,
  unprintable,
  writeSheetsPdf,
  type FontFile,
  type LoadedFont,
  type PaperSize,
  type Unprintable,
} from '../src/core/formats/pdf';
import {
  FLOOR_KINDS,
  SHEET_KINDS,
  sheetCsv,
  sheetsOf,
  usualSheets,
  type Sheet,
  type SheetKind,
  type SheetUse,
} from '../src/core/sheets';
import type { Show } from '../src/core/show';
import { tonightOf } from '../src/core/tonight';
import { sheetWords, unprintableSentence } from '../src/wording';
import type { Outcome } from './commands';
import { Failure } from './failure';
import { readShow, writeWhole } from './files';

const isKind = (text: string): text is SheetKind => SHEET_KINDS.some((k) => k === text);

/** The sheets of a kind that a show has tonight, for the desk or the floor. */
const sheetsFor = (show: Show, kind: SheetKind, use: SheetUse): readonly Sheet[] =>
  sheetsOf(tonightOf(show), { ...usualSheets(kind), use }, sheetWords);

/** Which sheets are asked for. Throws where there are none of that name. */
function wanted(kind: string, use: SheetUse): SheetKind {
  if (!isKind(kind)) throw new Failure(`There is no sheet "${kind}"; there are ${SHEET_KINDS.join(', ')}.`);
  if (use === 'floor' && !FLOOR_KINDS.has(kind)) {
    throw new Failure(`There is no sheet "${kind}" for the floor; there are ${[...FLOOR_KINDS].join(', ')}.`);
  }
  return kind;
}

/** Sheets of a kind: as a table with commas, or as data. */
export function sheet(path: string, kind: string, use: SheetUse, asJson: boolean): Outcome {
  const own = wanted(kind, use);
  const show = readShow(path);
  const sheets = sheetsFor(show, own, use);
  if (asJson) return { lines: [JSON.stringify({ show: show.title, sheets }, null, 2)], code: 0 };
  return { lines: [sheetCsv(sheets).trimEnd()], code: 0 };
}

/** Sheets of a kind as a PDF. */
export async function sheetPdf(
  path: string,
  kind: string,
  use: SheetUse,
  out: string,
  paper: string,
): Promise<Outcome> {
  const own = wanted(kind, use);
  const size = paperSize(paper);
  const show = readShow(path);
  const sheets = sheetsFor(show, own, use);
  if (sheets.length === 0) throw new Failure(`The show has nothing for a sheet of this kind (${kind}).`);
  const { bytes, odd } = await pdfOf(show, sheets, size);
  writeWhole(out, bytes);
  const lines = [`${out}: ${sheets.length === 1 ? '1 sheet' : `${sheets.length} sheets`}`];
  return { lines: odd.length > 0 ? [...lines, unprintableSentence(odd)] : lines, code: 0 };
}

/** Paper by its name. Throws where there is none. */
export function paperSize(paper: string): PaperSize {
  if (paper !== 'a4' && paper !== 'letter') throw new Failure(`There is no paper "${paper}"; there are a4, letter.`);
  return paper;
}

/** Font files as they are installed. */
export const loadFonts = (files: readonly FontFile[]): readonly LoadedFont[] =>
  files.map((file) => ({
    ...file,
    bytes: new Uint8Array(readFileSync(fileURLToPath(import.meta.resolve(fontPath(file))))),
  }));

/** The day of a sheet. */
export const todayWords = (): string =>
  new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** A PDF of some sheets of a show, and what no font has letters for. The date at its foot is today's. */
async function pdfOf(
  show: Show,
  sheets: readonly Sheet[],
  paper: PaperSize,
): Promise<{ readonly bytes: Uint8Array; readonly odd: readonly Unprintable[] }> {
  const fonts = loadFonts(fontFilesOf(sheets, show.title));
  const bytes = await writeSheetsPdf(sheets, { paper, show: show.title, asOf: todayWords(), fonts });
  return { bytes, odd: unprintable(sheets, show.title, fonts) };
}
