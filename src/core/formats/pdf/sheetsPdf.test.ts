import fc from 'fast-check';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFRawStream,
  decodePDFRawStream,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { demoShow, faultyDemo } from '../../demo';
import { FLOOR_KINDS, SHEET_KINDS, SHEET_USES, type Sheet, type SheetTable } from '../../sheets';
import { fontsOf } from '../../testing/fonts';
import { paperOf } from '../../testing/sheets';
import { runs } from '../../testing/runs';
import { unprintable, writeSheetsPdf, type PaperSize } from './';
import { piecesOf, wrap } from './wrap';

const demo = demoShow();
const make = (sheets: readonly Sheet[], paper: PaperSize = 'a4'): Promise<Uint8Array> =>
  writeSheetsPdf(sheets, { paper, show: demo.title, asOf: '26 November 2026', fonts: fontsOf(sheets, demo.title) });

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

/** What the demo has paper of, for the desk and for the floor. */
const LAID = SHEET_USES.flatMap((use) =>
  SHEET_KINDS.filter((k) => (use === 'desk' || FLOOR_KINDS.has(k)) && paperOf(demo, k).length > 0).map(
    (kind) => [kind, use] as const,
  ),
);

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
  type: { least: 11, most: 15 },
});

describe('sheets as a PDF', () => {
  it.each(LAID)('lays %s down within its pages, for the %s', async (kind, use) => {
    for (const paper of ['a4', 'letter'] as const) {
      const sheets = paperOf(demo, kind, { use });
      const document = await PDFDocument.load(await make(sheets, paper));
      const pages = document.getPages();
      expect(pages.length).toBeGreaterThanOrEqual(sheets.length);
      for (const page of pages) {
        const { width, height } = page.getSize();
        const [short, side] = [Math.min(width, height), Math.max(width, height)].map(Math.round);
        expect([short, side]).toEqual(paper === 'a4' ? [595, 842] : [612, 792]);
        if (!sheets[0]!.turns) expect(width > height).toBe(sheets[0]!.wide);
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
    const bytes = await make(paperOf(demo, 'set'));
    const text = Buffer.from(bytes).toString('latin1');
    expect(bytes.length).toBeLessThan(60_000);
    const document = await PDFDocument.load(bytes);
    const embedded = document.context.enumerateIndirectObjects().filter(([, o]) => String(o).includes('/FontFile'));
    expect(embedded).toHaveLength(2);
    expect(text).not.toContain('/Helvetica');
  });

  it('is the same bytes for the same sheets', async () => {
    expect(await make(paperOf(demo, 'patch'))).toEqual(await make(paperOf(demo, 'patch')));
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
    for (const show of [demo, faultyDemo()]) {
      for (const kind of SHEET_KINDS) {
        const sheets = paperOf(show, kind);
        expect(unprintable(sheets, show.title, fontsOf(sheets, show.title))).toEqual([]);
      }
    }
  });

  it('begins each sheet on a page of its own', async () => {
    const sheets = paperOf(demo, 'cues');
    expect((await PDFDocument.load(await make(sheets))).getPageCount()).toBe(sheets.length);
    expect((await PDFDocument.load(await make([]))).getPageCount()).toBeLessThanOrEqual(1);
  });
});

/** Everything that a part of a document's structure has below it, by kind. */
interface Told {
  readonly kind: string;
  readonly kids: readonly Told[];
  /** Pieces of pages that are drawn for it: the page's number and the piece's. */
  readonly pieces: readonly string[];
}

function told(document: PDFDocument, ref: unknown, pages: readonly string[]): Told {
  const dict = document.context.lookup(ref as PDFRef, PDFDict);
  const kids = dict.lookupMaybe(PDFName.of('K'), PDFArray)?.asArray() ?? [];
  const pieces: string[] = [];
  const below: Told[] = [];
  for (const kid of kids) {
    if (kid instanceof PDFDict) {
      pieces.push(`${pages.indexOf(String(kid.get(PDFName.of('Pg'))))} ${String(kid.get(PDFName.of('MCID')))}`);
    } else below.push(told(document, kid, pages));
  }
  return { kind: String(dict.get(PDFName.of('S'))), kids: below, pieces };
}

describe('a PDF that is read aloud', () => {
  it.each(LAID)('has a structure for all that is drawn of %s, for the %s', async (kind, use) => {
    const sheets = paperOf(demo, kind, { use });
    const document = await PDFDocument.load(await make(sheets));
    const pages = document.getPages();
    const root = document.catalog.lookup(PDFName.of('StructTreeRoot'), PDFDict);
    const [top] = root.lookup(PDFName.of('K'), PDFArray).asArray();
    const structure = told(
      document,
      top,
      pages.map((p) => String(p.ref)),
    );
    expect(String(document.catalog.get(PDFName.of('MarkInfo')))).toContain('/Marked true');
    expect(structure.kind).toBe('/Document');
    expect(structure.kids.map((k) => k.kind)).toEqual(sheets.map(() => '/Sect'));
    for (const sheet of structure.kids) expect(sheet.kids[0]!.kind).toBe('/H1');
    const all = (t: Told): readonly Told[] => [t, ...t.kids.flatMap(all)];
    const heads = all(structure).filter((t) => t.kind === '/Table');
    for (const table of heads) {
      const width = table.kids[0]!.kids.length;
      expect(new Set(table.kids[0]!.kids.map((k) => k.kind))).toEqual(new Set(['/TH']));
      for (const row of table.kids) expect(row.kids).toHaveLength(width);
    }
    // Each marked piece belongs to one part, and nothing is drawn outside of a mark.
    const owned = all(structure).flatMap((t) => t.pieces);
    const marked = pages.flatMap((page, i) => [...drawn(page).matchAll(/MCID (\d+)/g)].map(([, id]) => `${i} ${id}`));
    expect([...owned].sort()).toEqual([...marked].sort());
    for (const page of pages) {
      let depth = 0;
      for (const line of drawn(page).split('\n')) {
        if (/ (BDC|BMC)$/.test(line)) depth += 1;
        if (line === 'EMC') depth -= 1;
        if (line === 'BT') expect(depth).toBe(1);
      }
      expect(depth).toBe(0);
    }
  });

  it('says what is read from right to left in the order in which it is read', async () => {
    const sheet = { ...long(1, () => 'שיר 12'), title: 'أغنية' };
    const [page] = (await PDFDocument.load(await make([sheet]))).getPages();
    const said = [...drawn(page!).matchAll(/ActualText <([0-9A-F]+)>/gi)].map(([, hex]) =>
      Buffer.from(hex!, 'hex').swap16().toString('utf16le').slice(1),
    );
    expect(said).toEqual(['أغنية', 'שיר 12']);
  });
});

describe('the size of type', () => {
  const sizes = async (sheet: Sheet): Promise<number[]> => {
    const pages = (await PDFDocument.load(await make([sheet]))).getPages();
    return [...drawn(pages[0]!).matchAll(/\/\S+ ([\d.]+) Tf/g)].map(([, size]) => Number(size));
  };
  const floor = (rows: number): Sheet => ({
    ...long(rows, (i) => `Sound ${i}`),
    wide: false,
    turns: true,
    type: { least: 30, most: 64 },
  });

  it('is as large as the page has room for, and never smaller than a sheet says', async () => {
    const [few, some, many] = await Promise.all([sizes(floor(4)), sizes(floor(12)), sizes(floor(60))]);
    expect(few).toContain(64);
    expect(Math.max(...some)).toBeGreaterThan(30);
    expect(Math.max(...some)).toBeLessThan(64);
    expect(many).toContain(30);
  });

  it('leaves out what is there only where there is room, for type that is much larger', async () => {
    const sheet = floor(10);
    const [table] = sheet.parts as SheetTable[];
    const noted: Sheet = {
      ...sheet,
      parts: [
        {
          ...table!,
          columns: [...table!.columns, { head: 'Notes', width: 1, spare: true }],
          rows: table!.rows.map((r) => [...r, 'a note that is as long as three of its titles together']),
        },
      ],
    };
    expect(Math.max(...(await sizes(noted)))).toBe(Math.max(...(await sizes(sheet))));
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
