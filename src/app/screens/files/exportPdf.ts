import type { PaperSize, Typeface } from '../../../core/formats/pdf';
import { fileName } from '../../../core/formats/fileName';
import type { Show } from '../../../core/show';
import { download } from '../../adapters/download';
import { askFiles } from '../../state/desk';
import type { ChosenSheets } from './useSheets';
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

/** Sheets as a PDF that is handed to the user. It is made beside everything else. `name`: what the kind is called. */
export async function exportPdf(
  show: Show,
  { kind, counting, sheets }: ChosenSheets,
  name: string,
  paper: PaperSize,
): Promise<void> {
  const fonts = await typeface();
  const wish = { paper, show: show.title, asOf: today(), typeface: fonts };
  const ids = sheets.map((s) => s.id);
  const bytes = await askFiles((w) => w.pdf(kind, counting, ids, wish));
  const [only] = sheets;
  const title =
    sheets.length === 1 && only && only.title !== show.title ? `${only.title} ${name}` : `${show.title} ${name}`;
  download(fileName(title, 'pdf'), bytes, 'application/pdf');
}

/** Letter where people write on it, A4 everywhere else. */
export const usualPaper = (): PaperSize => (/-(US|CA|MX|PH|CL|CO)\b/i.test(navigator.language) ? 'letter' : 'a4');
