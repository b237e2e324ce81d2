import { compareShows } from '../src/core/meaning';
import { showJsonSchema } from '../src/core/formats/show-file';
import { SHEET_KINDS, sheetCsv, sheetsOf, type SheetKind } from '../src/core/sheets';
import { showDifferenceWords } from '../src/wording';
import type { Outcome } from './commands';
import { Failure } from './failure';
import { readShow, writeWhole } from './files';

const isKind = (text: string): text is SheetKind => SHEET_KINDS.some((k) => k === text);

/** Sheets of a kind: as a table with commas, or as data. */
export function sheet(path: string, kind: string, asJson: boolean): Outcome {
  if (!isKind(kind)) throw new Failure(`There is no sheet "${kind}"; there are ${SHEET_KINDS.join(', ')}.`);
  const show = readShow(path);
  const sheets = sheetsOf(show, kind);
  if (asJson) return { lines: [JSON.stringify({ show: show.title, sheets }, null, 2)], code: 0 };
  return { lines: [sheetCsv(sheets).trimEnd()], code: 0 };
}

/** In what the second file differs from the first. */
export function compare(first: string, second: string, asJson: boolean): Outcome {
  const found = compareShows(readShow(first), readShow(second));
  if (asJson) {
    const differences = found.map((d) => ({ ...d, sentence: showDifferenceWords(d) }));
    return { lines: [JSON.stringify({ first, second, differences }, null, 2)], code: 0 };
  }
  return { lines: found.length === 0 ? ['Nothing differs.'] : found.map(showDifferenceWords), code: 0 };
}

/** The shape of a show file, on standard output or into a file. */
export function schema(out: string | undefined): Outcome {
  const text = JSON.stringify(showJsonSchema(), null, 1);
  if (out === undefined) return { lines: [text], code: 0 };
  writeWhole(out, `${text}\n`);
  return { lines: [`${out}: the shape of a show file`], code: 0 };
}
