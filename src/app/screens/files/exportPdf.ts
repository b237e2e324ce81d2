import type { PaperSize, Typeface } from '../../../core/formats/pdf';
import type { Sheet } from '../../../core/sheets';
import type { Show } from '../../../core/show';
import { download, fileName } from '../../adapters/download';
import { pdfInWorker } from '../../adapters/workers';
import { today } from './today';

export type { PaperSize };

const files = import.meta.glob<string>(
  '/node_modules/@fontsource/ibm-plex-sans/files/ibm-plex-sans-{latin,latin-ext,greek,cyrillic}-{400,700}-normal.woff',
  { query: '?url', import: 'default', eager: true },
);

/** The common letters first. */
const RANGES = ['latin', 'latin-ext', 'greek', 'cyrillic'];

async function fetched(range: string, weight: number): Promise<Uint8Array> {
  const url = files[`/node_modules/@fontsource/ibm-plex-sans/files/ibm-plex-sans-${range}-${weight}-normal.woff`];
  const answer = await fetch(url!);
  if (!answer.ok) throw new Error('its fonts could not be fetched');
  return new Uint8Array(await answer.arrayBuffer());
}

async function typeface(): Promise<Typeface> {
  const [regular, bold] = await Promise.all(
    [400, 700].map((weight) => Promise.all(RANGES.map((range) => fetched(range, weight)))),
  );
  return { regular: regular!, bold: bold! };
}

/** Sheets as a PDF that is handed to the user. It is made beside everything else. */
export async function exportPdf(show: Show, sheets: readonly Sheet[], kind: string, paper: PaperSize): Promise<void> {
  const fonts = await typeface();
  const bytes = await pdfInWorker(sheets, { paper, show: show.title, asOf: today(), typeface: fonts });
  const [only] = sheets;
  const title =
    sheets.length === 1 && only && only.title !== show.title ? `${only.title} ${kind}` : `${show.title} ${kind}`;
  download(fileName(title, 'pdf'), bytes, 'application/pdf');
}

/** Letter where people write on it, A4 everywhere else. */
export const usualPaper = (): PaperSize => (/-(US|CA|MX|PH|CL|CO)\b/i.test(navigator.language) ? 'letter' : 'a4');
