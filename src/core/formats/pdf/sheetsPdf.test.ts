import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { PDFArray, PDFDocument, PDFRawStream, decodePDFRawStream, type PDFPage } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { demoShow, faultyDemo } from '../../demo';
import { SHEET_KINDS, sheetsOf, type Sheet } from '../../sheets';
import { runs } from '../../testing/runs';
import { writeSheetsPdf, type PaperSize, type Typeface } from './';
import { lettersOf, plain } from './pdfFonts';
import { piecesOf, wrap } from './wrap';
import { tonightOf } from '../../tonight';

const file = (range: string, weight: number): Uint8Array =>
  new Uint8Array(
    readFileSync(`node_modules/@fontsource/ibm-plex-sans/files/ibm-plex-sans-${range}-${weight}-normal.woff`),
  );
const ranges = ['latin', 'latin-ext', 'greek', 'cyrillic'];
const typeface: Typeface = { regular: ranges.map((r) => file(r, 400)), bold: ranges.map((r) => file(r, 700)) };
const demo = demoShow();
const make = (sheets: readonly Sheet[], paper: PaperSize = 'a4'): Promise<Uint8Array> =>
  writeSheetsPdf(sheets, { paper, show: demo.title, asOf: '26 November 2026', typeface });

/** What a page draws, as the operators of its content stream. */
function drawn(page: PDFPage): string {
  const contents = page.node.Contents();
  const streams =
    contents instanceof PDFArray ? contents.asArray().map((ref) => page.doc.context.lookup(ref)) : [contents];
  return streams
    .map((s) => (s instanceof PDFRawStream ? Buffer.from(decodePDFRawStream(s).decode()).toString('latin1') : ''))
    .join('\n');
}

/** Where lines of text stand on a page. */
const places = (page: PDFPage): { x: number; y: number }[] =>
  [...drawn(page).matchAll(/1 0 0 1 (-?[\d.]+) (-?[\d.]+) Tm/g)].map(([, x, y]) => ({ x: Number(x), y: Number(y) }));

const long = (rows: number, cell: (i: number) => string): Sheet => ({
  id: 'long',
  kind: 'Test',
  title: 'Long',
  about: '',
  parts: [
    {
      kind: 'table',
      name: 'Rows',
      columns: [
        { head: 'A', width: 1 },
        { head: 'B', width: 2 },
      ],
      rows: Array.from({ length: rows }, (_, i) => [`r${i}`, cell(i)]),
    },
  ],
  wide: false,
});

describe('sheets as a PDF', () => {
  it.each(SHEET_KINDS)('lays %s down within its pages', async (kind) => {
    for (const paper of ['a4', 'letter'] as const) {
      const sheets = sheetsOf(tonightOf(demo), kind);
      const document = await PDFDocument.load(await make(sheets, paper));
      const pages = document.getPages();
      expect(pages.length).toBeGreaterThanOrEqual(sheets.length);
      for (const page of pages) {
        const { width, height } = page.getSize();
        const [short, side] = [Math.min(width, height), Math.max(width, height)].map(Math.round);
        expect([short, side]).toEqual(paper === 'a4' ? [595, 842] : [612, 792]);
        expect(width > height).toBe(sheets[0]!.wide);
        const all = places(page);
        expect(all.length).toBeGreaterThan(3);
        for (const { x, y } of all) {
          expect(x).toBeGreaterThanOrEqual(34);
          expect(x).toBeLessThan(width - 34);
          expect(y).toBeGreaterThanOrEqual(29.9);
          expect(y).toBeLessThan(height - 34);
        }
        // Nothing but the foot stands at the foot.
        const foot = all.filter((p) => p.y < 34 + 12);
        expect(new Set(foot.map((p) => p.y)).size).toBe(1);
      }
    }
  });

  it('brings its fonts along, as far as they are used', async () => {
    const bytes = await make(sheetsOf(tonightOf(demo), 'set'));
    const text = Buffer.from(bytes).toString('latin1');
    expect(bytes.length).toBeLessThan(60_000);
    const document = await PDFDocument.load(bytes);
    const embedded = document.context.enumerateIndirectObjects().filter(([, o]) => String(o).includes('/FontFile'));
    expect(embedded).toHaveLength(2);
    expect(text).not.toContain('/Helvetica');
  });

  it('is the same bytes for the same sheets', async () => {
    expect(await make(sheetsOf(tonightOf(demo), 'patch'))).toEqual(await make(sheetsOf(tonightOf(demo), 'patch')));
  });

  it('stands all rows, none cut in two, with its head again on each page', async () => {
    const pages = (await PDFDocument.load(await make([long(100, (i) => `Sound ${i}`)]))).getPages();
    expect(pages.length).toBeGreaterThan(1);
    const rowLines = pages.map((p) => places(p).filter((at) => at.x < 34.02).length);
    // On each page: the title, the head of the first column, the show at the foot.
    expect(rowLines.reduce((sum, n) => sum + n - 3, 0)).toBe(100);
  });

  it('goes on where one row is higher than a page', async () => {
    const text = Array.from({ length: 1500 }, (_, i) => `word${i}`).join(' ');
    const pages = (await PDFDocument.load(await make([long(2, () => text)]))).getPages();
    expect(pages.length).toBeGreaterThan(2);
    for (const page of pages) for (const { y } of places(page)) expect(y).toBeGreaterThanOrEqual(29.9);
  });

  it('takes any letters, also such as no font has', async () => {
    const odd = 'Łódź Ἀθῆναι Ночь 夜 → ♩ \u0007 e\u0301 \ud83c\udfb8';
    const pages = (await PDFDocument.load(await make([long(3, () => odd)]))).getPages();
    expect(pages).toHaveLength(1);
  });

  it('has all letters of all sheets of the demo, also of the one with faults', () => {
    const known = new Set(typeface.regular.flatMap((bytes) => [...lettersOf(bytes)]));
    const missing = new Set<string>();
    for (const show of [demo, faultyDemo()]) {
      for (const kind of SHEET_KINDS) {
        for (const sign of plain(JSON.stringify(sheetsOf(tonightOf(show), kind)))) {
          if (!known.has(sign.codePointAt(0)!)) missing.add(sign);
        }
      }
    }
    expect([...missing]).toEqual([]);
  });

  it('begins each sheet on a page of its own', async () => {
    const sheets = sheetsOf(tonightOf(demo), 'cues');
    expect((await PDFDocument.load(await make(sheets))).getPageCount()).toBe(sheets.length);
    expect((await PDFDocument.load(await make([]))).getPageCount()).toBeLessThanOrEqual(1);
  });
});

describe('lines of a cell', () => {
  const measure = (text: string): number => text.length;

  it('keep what is called in a unit on one line', () => {
    expect(wrap('QB A3 Dry, HA 001, TE 01-1', 18, measure)).toEqual(['QB A3 Dry, HA 001,', 'TE 01-1']);
    expect(piecesOf('bank 1 look 08', 18)).toEqual(['bank 1 look 08']);
  });

  it('are never too wide, and lose nothing', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), fc.integer({ min: 1, max: 30 }), (text, width) => {
        const lines = wrap(text, width, (t) => Array.from(t).length);
        for (const line of lines) expect(Array.from(line).length).toBeLessThanOrEqual(Math.max(1, width));
        const bare = (t: string): string => t.replaceAll(/[ \n]/g, '');
        expect(bare(lines.join(''))).toBe(bare(text));
      }),
      runs(620, 300),
    );
  });
});
