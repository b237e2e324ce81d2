import type { PaperSize } from '../../../core/formats/pdf';
import { fileName } from '../../../core/formats/fileName';
import type { Show } from '../../../core/show';
import { download } from '../../adapters/download';
import { askFiles } from '../../state/desk';
import type { ChosenSheets } from './useSheets';
import { today } from './today';

export type { PaperSize };

/** Sheets as a PDF that is handed to the user. It is made beside everything else. `name`: what the kind is called. */
export async function exportPdf(
  show: Show,
  { wish, sheets }: ChosenSheets,
  name: string,
  paper: PaperSize,
): Promise<void> {
  const ids = sheets.map((s) => s.id);
  const bytes = await askFiles((w) => w.pdf(wish, ids, { paper, asOf: today() }));
  const [only] = sheets;
  const title =
    sheets.length === 1 && only && only.title !== show.title ? `${only.title} ${name}` : `${show.title} ${name}`;
  download(fileName(title, 'pdf'), bytes, 'application/pdf');
}

export const PAPERS = [
  { id: 'a4', name: 'A4' },
  { id: 'letter', name: 'Letter' },
] as const;

/** Letter where people write on it, A4 everywhere else. */
export const usualPaper = (): PaperSize => (/-(US|CA|MX|PH|CL|CO)\b/i.test(navigator.language) ? 'letter' : 'a4');
