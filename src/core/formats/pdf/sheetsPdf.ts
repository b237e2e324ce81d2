import { PDFDocument, type PDFPage } from '@cantoo/pdf-lib';
import type { Sheet, SheetTable } from '../../sheets';
import { paginate, type Block } from './blocks';
import type { LoadedFont } from './faces';
import { PdfFonts } from './fonts';
import { Ink, MARGIN, isTurned, rule } from './ink';
import { stripBlocks } from './stripBlocks';
import { leadingOf, tableBlocks, type Tools } from './tableBlocks';
import { Tags, type Tag } from './tags';
import { textsOf } from './textsOf';
import { wrap } from './wrap';

export type PaperSize = 'a4' | 'letter';

export interface PdfWish {
  readonly paper: PaperSize;
  /** The show, at the foot of each page. */
  readonly show: string;
  /** What state of it this is: a date, as one writes it. */
  readonly asOf: string;
  /** The fonts that its texts need, the preferred first. */
  readonly fonts: readonly LoadedFont[];
}

/** So many parts of a structure are packed in no time. */
const PACKED_TAGS = 6000;

/** Points (1/72 inch), upright. */
const SIZES: Readonly<Record<PaperSize, readonly [width: number, height: number]>> = {
  a4: [595.28, 841.89],
  letter: [612, 792],
};
const KIND = 11;
const TITLE = 19;
const FOOT = 8.5;
const FOOT_ROOM = 20;

/**
 * Sheets as a PDF (ISO 32000-1) with the fonts in it, tagged so that it can be read aloud: each sheet begins on a page of
 * its own, wide ones lie across. The type is as large as the sheet has room for without more pages. No row and no strip is
 * cut in two; heads stand again on each page; the foot has the show, the state it is of, and the page of how many. Black on
 * white. Throws where a font is none.
 */
export async function writeSheetsPdf(sheets: readonly Sheet[], wish: PdfWish): Promise<Uint8Array> {
  // Without dates the same sheets are the same bytes.
  const document = await PDFDocument.create({ updateMetadata: false });
  const [only] = sheets;
  document.setTitle(sheets.length === 1 && only ? `${only.kind}: ${only.title}` : wish.show, {
    showInWindowTitleBar: true,
  });
  document.setLanguage('en');
  const fonts = await PdfFonts.for(document, wish.fonts, textsOf(sheets, wish.show, wish.asOf));
  const ink = new Ink(fonts);
  const tags = new Tags(document);
  for (const sheet of sheets) setSheet(document, sheet, ink, tags, wish.paper);
  const pages = document.getPages();
  for (const [i, page] of pages.entries()) tags.artifact(page, () => foot(page, ink, wish, i + 1, pages.length));
  tags.finish();
  // Packed objects are a third of the size, and take a time that grows with their square.
  return document.save({ useObjectStreams: tags.count < PACKED_TAGS });
}

function foot(page: PDFPage, ink: Ink, { show, asOf }: PdfWish, nth: number, of: number): void {
  const width = page.getWidth();
  const y = MARGIN - 4;
  const wide = (text: string): number => ink.fonts.width(text, 'regular', FOOT);
  const middle = `as of ${asOf}`;
  const right = `page ${nth} of ${of}`;
  const [name] = wrap(show, (width - wide(middle)) / 2 - MARGIN - 10, wide, 200);
  ink.text(page, name ?? '', MARGIN, y, FOOT, 'regular');
  ink.text(page, middle, (width - wide(middle)) / 2, y, FOOT, 'regular');
  ink.text(page, right, width - MARGIN - wide(right), y, FOOT, 'regular');
}

/** How a sheet is set. */
interface Setting {
  readonly sheet: Sheet;
  readonly wide: boolean;
  readonly size: number;
  readonly pages: number;
}

/** So many rows are tried in several sizes; a longer sheet fills its pages anyway. */
const TRIED_ROWS = 240;
/** Points by which sizes are tried. */
const STEP = 0.5;

/** Lays a sheet down on pages of its own. */
function setSheet(document: PDFDocument, sheet: Sheet, ink: Ink, tags: Tags, paper: PaperSize): void {
  const setting = settle(sheet, ink, tags, paper);
  const [width, height] = pageSize(paper, setting.wide);
  let within: Tag | undefined;
  const tools: Tools = {
    ink,
    tags,
    within: () => (within ??= tags.add('Sect', tags.document)),
    size: setting.size,
    inner: width - 2 * MARGIN,
  };
  const title = titleOf(setting.sheet, tools);
  const pages = paginate(blocksOf(setting.sheet, tools), roomOf(height, title.height));
  for (const [nth, standing] of pages.entries()) {
    const page = document.addPage([width, height]);
    const top = height - MARGIN;
    title.draw(page, top, nth > 0);
    for (const { block, at, isAgain } of standing) block.draw(page, top - title.height - at, isAgain);
  }
}

const pageSize = (paper: PaperSize, wide: boolean): readonly [width: number, height: number] => {
  const [narrow, long] = SIZES[paper];
  return wide ? [long, narrow] : [narrow, long];
};

/** Points of a page below its title and above its foot. */
const roomOf = (height: number, title: number): number => height - 2 * MARGIN - FOOT_ROOM - title;

/** The way to set a sheet that needs the fewest pages, and of those the one with the largest type; what is named first wins. */
function settle(sheet: Sheet, ink: Ink, tags: Tags, paper: PaperSize): Setting {
  const { least, most } = sheet.type;
  const rows = sheet.parts.reduce((sum, p) => sum + (p.kind === 'table' ? p.rows.length : 0), 0);
  const pagesAt = (own: Sheet, wide: boolean, size: number): number => {
    const [width, height] = pageSize(paper, wide);
    const tools: Tools = { ink, tags, within: () => tags.document, size, inner: width - 2 * MARGIN };
    return paginate(blocksOf(own, tools), roomOf(height, titleOf(own, tools).height)).length;
  };
  const grown = (own: Sheet, wide: boolean): Setting => {
    const pages = pagesAt(own, wide, least);
    let size = least;
    if (rows <= TRIED_ROWS) {
      let steps = Math.round((most - least) / STEP);
      // The largest of the sizes that need no more pages, by halving.
      for (let low = 0; low < steps;) {
        const middle = Math.ceil((low + steps) / 2);
        if (pagesAt(own, wide, least + middle * STEP) > pages) steps = middle - 1;
        else low = middle;
        size = least + low * STEP;
      }
    }
    return { sheet: own, wide, size, pages };
  };
  const ways = sheet.turns === true ? [sheet.wide, !sheet.wide] : [sheet.wide];
  const settings = variantsOf(sheet).flatMap((own) => ways.map((wide) => grown(own, wide)));
  return settings.reduce((best, own) =>
    own.pages < best.pages || (own.pages === best.pages && own.size > best.size * LARGER) ? own : best,
  );
}

/** Type that is so much larger is worth what is left out for it. */
const LARGER = 1.25;

/** A sheet as it is, in fewer letters, and without what is there only where there is room. */
function variantsOf(sheet: Sheet): readonly Sheet[] {
  const tables = sheet.parts.filter((p): p is SheetTable => p.kind === 'table');
  const all = [sheet];
  const changed = (change: (part: SheetTable) => SheetTable): Sheet => ({
    ...sheet,
    parts: sheet.parts.map((p) => (p.kind === 'table' ? change(p) : p)),
  });
  if (tables.some((t) => t.tight)) all.push(changed((t) => ({ ...t, rows: t.tight ?? t.rows })));
  if (tables.some((t) => t.columns.some((c) => c.spare))) {
    all.push(
      changed((t) => ({
        ...t,
        columns: t.columns.filter((c) => c.spare !== true),
        rows: t.rows.map((row) => row.filter((_, i) => t.columns[i]!.spare !== true)),
      })),
    );
  }
  return all;
}

/** What stands below the title of a sheet. */
function blocksOf({ about, parts }: Sheet, tools: Tools): readonly Block[] {
  const named = parts.filter((p) => p.kind === 'table').length > 1;
  return [
    ...(about === '' ? [] : textBlocks(about, { ...tools, size: Math.min(tools.size, 16) })),
    ...parts.flatMap((part) => {
      switch (part.kind) {
        case 'text':
          return textBlocks(part.text, tools);
        case 'table':
          return tableBlocks(part, tools, named);
        case 'strips':
          return stripBlocks(part, tools);
      }
    }),
  ];
}

/** A text, a line a block. */
function textBlocks(text: string, { ink, tags, within, size, inner }: Tools): readonly Block[] {
  const leading = leadingOf(size);
  let tag: Tag | undefined;
  const lines = wrap(text, inner, (t) => ink.fonts.width(t, 'regular', size), 0).map((line): Block => ({
    height: leading,
    draw: (page, top) => {
      tag ??= tags.add('P', within());
      const draw = (): void => ink.text(page, line, MARGIN, top - leading + 3.5, size, 'regular');
      tags.mark(page, tag, draw, isTurned(line) ? line : undefined);
    },
  }));
  return [...lines, { height: 6, draw: () => undefined }];
}

/** The title of a sheet at the top of each of its pages. */
function titleOf({ kind, title }: Sheet, { ink, tags, within, size, inner }: Tools): Block {
  const own = Math.max(TITLE, Math.min(size, 36));
  const draw = (page: PDFPage, top: number, isAgain: boolean): void => {
    const right = isAgain ? `${kind}, continued` : kind;
    const wide = ink.fonts.width(right, 'regular', KIND);
    const y = top - own;
    const titled = (): void => {
      const [line] = wrap(title, inner - wide - 14, (t) => ink.fonts.width(t, 'bold', own), 200);
      ink.text(page, line ?? '', MARGIN, y, own, 'bold');
    };
    const called = (): void => ink.text(page, right, MARGIN + inner - wide, y, KIND, 'regular');
    if (isAgain) {
      tags.artifact(page, () => {
        titled();
        called();
      });
    } else {
      const head = tags.add('H1', within());
      tags.mark(page, head, titled, isTurned(title) ? title : undefined);
      tags.mark(page, tags.add('P', within()), called);
    }
    tags.artifact(page, () => rule(page, y - 7, 1.5));
  };
  return { height: own + 12, draw };
}
