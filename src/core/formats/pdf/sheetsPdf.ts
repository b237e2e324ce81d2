import { PDFDocument, rgb, type PDFPage } from '@cantoo/pdf-lib';
import type { Sheet, SheetPart, SheetTable } from '../../sheets';
import { PdfFonts, type Typeface, type Weight } from './pdfFonts';
import { wrap } from './wrap';

export type PaperSize = 'a4' | 'letter';

export interface PdfWish {
  readonly paper: PaperSize;
  /** The show, at the foot of each page. */
  readonly show: string;
  /** What state of it this is: a date, as one writes it. */
  readonly asOf: string;
  readonly typeface: Typeface;
}

/** Points (1/72 inch), upright. */
const SIZES: Readonly<Record<PaperSize, readonly [width: number, height: number]>> = {
  a4: [595.28, 841.89],
  letter: [612, 792],
};
const MILLIMETRE = 72 / 25.4;
const MARGIN = 12 * MILLIMETRE;
/** Read on a music stand in bad light. */
const BODY = 11;
const LINE = 14.5;
const HEAD = 9;
const TITLE = 19;
const FOOT = 8.5;
const FOOT_ROOM = 20;
const PAD = 4;
/** Between the lines of a row and its rule. */
const ROOM = 6;
const STRIP_HEIGHT = 14 * MILLIMETRE;
const SHOWN = 7.5;
const BLACK = rgb(0, 0, 0);
const GREY = rgb(0.33, 0.33, 0.33);

/**
 * Sheets as a PDF (ISO 32000-1) with the fonts in it: each sheet begins on a page of its own, wide ones lie across. No row
 * and no strip is cut in two; heads stand again on each page; the foot has the show, the state it is of, and the page of how
 * many. Black on white.
 */
export async function writeSheetsPdf(sheets: readonly Sheet[], wish: PdfWish): Promise<Uint8Array> {
  // Without dates the same sheets are the same bytes.
  const document = await PDFDocument.create({ updateMetadata: false });
  document.setTitle(sheets.length === 1 ? `${sheets[0]!.kind}: ${sheets[0]!.title}` : wish.show);
  document.setLanguage('en');
  const fonts = await PdfFonts.for(document, wish.typeface, textsOf(sheets, wish));
  for (const sheet of sheets) new SheetWriter(document, fonts, sheet, wish).write();
  const pages = document.getPages();
  for (const [i, page] of pages.entries()) foot(page, fonts, wish, i + 1, pages.length);
  return document.save();
}

function* textsOf(sheets: readonly Sheet[], { show, asOf }: PdfWish): Generator<string> {
  yield `${show} ${asOf} as of page of 0123456789 continued`;
  for (const { kind, title, about, parts } of sheets) {
    yield `${kind} ${title} ${about}`;
    for (const part of parts) {
      if (part.kind === 'text') yield part.text;
      else if (part.kind === 'strips') {
        yield part.name;
        for (const row of part.rows) for (const cell of row) yield `${cell.name} ${cell.shown}`;
      } else {
        yield part.name;
        for (const c of part.columns) yield c.head;
        for (const row of part.rows) for (const cell of row) yield cell;
      }
    }
  }
}

function put(page: PDFPage, fonts: PdfFonts, text: string, x: number, y: number, size: number, weight: Weight): number {
  let at = x;
  for (const run of fonts.runs(text, weight)) {
    page.drawText(run.text, { x: at, y, size, font: run.font, color: BLACK });
    at += fonts.width(run.text, weight, size);
  }
  return at;
}

function foot(page: PDFPage, fonts: PdfFonts, { show, asOf }: PdfWish, nth: number, of: number): void {
  const { width } = page.getSize();
  const y = MARGIN - 4;
  put(page, fonts, show, MARGIN, y, FOOT, 'regular');
  const middle = `as of ${asOf}`;
  put(page, fonts, middle, (width - fonts.width(middle, 'regular', FOOT)) / 2, y, FOOT, 'regular');
  const right = `page ${nth} of ${of}`;
  put(page, fonts, right, width - MARGIN - fonts.width(right, 'regular', FOOT), y, FOOT, 'regular');
}

/** Lays a sheet down, from the top of a page to its foot, and on. */
class SheetWriter {
  private page!: PDFPage;
  private y = 0;
  private readonly width: number;
  private readonly height: number;
  private pages = 0;

  constructor(
    private readonly document: PDFDocument,
    private readonly fonts: PdfFonts,
    private readonly sheet: Sheet,
    { paper }: PdfWish,
  ) {
    const [narrow, long] = SIZES[paper];
    [this.width, this.height] = sheet.wide ? [long, narrow] : [narrow, long];
  }

  private get inner(): number {
    return this.width - 2 * MARGIN;
  }

  write(): void {
    this.next();
    const { about, parts } = this.sheet;
    if (about !== '') {
      this.lines(about);
      this.y -= 6;
    }
    const named = parts.filter((p) => p.kind === 'table').length > 1;
    for (const part of parts) this.part(part, named);
  }

  /** A new page, with the title of the sheet at its top. */
  private next(): void {
    this.page = this.document.addPage([this.width, this.height]);
    this.pages += 1;
    this.y = this.height - MARGIN;
    const { kind, title } = this.sheet;
    const right = this.pages === 1 ? kind : `${kind}, continued`;
    const room = this.inner - this.fonts.width(right, 'regular', BODY) - 14;
    const [line] = wrap(title, room, (t) => this.fonts.width(t, 'bold', TITLE), 200);
    this.y -= TITLE;
    put(this.page, this.fonts, line ?? '', MARGIN, this.y, TITLE, 'bold');
    const x = this.width - MARGIN - this.fonts.width(right, 'regular', BODY);
    put(this.page, this.fonts, right, x, this.y, BODY, 'regular');
    this.y -= 7;
    this.rule(1.5);
    this.y -= 5;
  }

  private rule(thickness: number): void {
    const { page, y } = this;
    page.drawLine({
      start: { x: MARGIN, y },
      end: { x: this.width - MARGIN, y },
      thickness,
      color: thickness < 1 ? GREY : BLACK,
    });
  }

  private get left(): number {
    return this.y - MARGIN - FOOT_ROOM;
  }

  private lines(text: string): void {
    for (const line of wrap(text, this.inner, (t) => this.fonts.width(t, 'regular', BODY), 0)) {
      if (this.left < LINE) this.next();
      this.y -= LINE;
      put(this.page, this.fonts, line, MARGIN, this.y + 3.5, BODY, 'regular');
    }
  }

  private part(part: SheetPart, named: boolean): void {
    switch (part.kind) {
      case 'text':
        this.lines(part.text);
        this.y -= 6;
        return;
      case 'table':
        this.table(part, named);
        return;
      case 'strips':
        this.strips(part);
    }
  }

  private table({ name, columns, rows }: SheetTable, named: boolean): void {
    const whole = columns.reduce((sum, c) => sum + c.width, 0);
    const widths = columns.map((c) => (this.inner * c.width) / whole);
    const weight = (i: number): Weight => (columns[i]!.strong === true ? 'bold' : 'regular');
    const heads = columns.map((c, i) => wrap(c.head, widths[i]! - PAD, (t) => this.fonts.width(t, 'bold', HEAD), 0));
    const headHeight = Math.max(...heads.map((l) => l.length)) * (HEAD + 2) + ROOM;
    const head = (): void => {
      this.cells(heads, widths, HEAD, HEAD + 2, () => 'bold');
      this.y -= headHeight;
      this.rule(1.2);
    };
    const laid = rows.map((row) =>
      row.map((cell, i) => wrap(cell, widths[i]! - PAD, (t) => this.fonts.width(t, weight(i), BODY))),
    );
    const heightOf = (row: readonly (readonly string[])[]): number =>
      Math.max(1, ...row.map((l) => l.length)) * LINE + ROOM;
    // A name and a head are not left alone at the foot of a page.
    const begin = (named ? 24 : 0) + headHeight + (laid[0] ? heightOf(laid[0]) : 0);
    if (this.left < begin) this.next();
    const naming = (text: string): void => {
      if (!named) return;
      this.y -= 20;
      put(this.page, this.fonts, text, MARGIN, this.y + 4, BODY + 1, 'bold');
    };
    naming(name);
    head();
    for (const row of laid) {
      for (const piece of this.pieces(row, headHeight)) {
        const height = heightOf(piece);
        if (this.left < height) {
          this.next();
          naming(`${name}, continued`);
          head();
        }
        this.cells(piece, widths, BODY, LINE, weight);
        this.y -= height;
        this.rule(0.5);
      }
    }
    this.y -= 12;
  }

  /** A row as it is; one that is higher than a whole page in pieces that are not. */
  private pieces(row: readonly (readonly string[])[], headHeight: number): (readonly (readonly string[])[])[] {
    const room = this.height - 2 * MARGIN - FOOT_ROOM - TITLE - 12 - 20 - headHeight - ROOM;
    const most = Math.max(1, Math.floor(room / LINE));
    const lines = Math.max(1, ...row.map((l) => l.length));
    const count = Math.ceil(lines / most);
    return Array.from({ length: count }, (_, i) => row.map((l) => l.slice(i * most, (i + 1) * most)));
  }

  private cells(
    row: readonly (readonly string[])[],
    widths: readonly number[],
    size: number,
    leading: number,
    weight: (column: number) => Weight,
  ): void {
    let x = MARGIN;
    for (const [i, lines] of row.entries()) {
      for (const [k, line] of lines.entries()) {
        put(this.page, this.fonts, line, x, this.y - 2 - size - k * leading, size, weight(i));
      }
      x += widths[i]!;
    }
  }

  private strips({ name, pitch, rows }: Extract<SheetPart, { kind: 'strips' }>): void {
    const gap = 1.5 * MILLIMETRE;
    const height = 20 + rows.length * (STRIP_HEIGHT + gap);
    if (this.left < height && this.left < this.height - 2 * MARGIN - 60) this.next();
    this.y -= 19;
    put(this.page, this.fonts, name, MARGIN, this.y + 6, BODY + 1, 'bold');
    const step = pitch * MILLIMETRE;
    for (const row of rows) {
      if (this.left < STRIP_HEIGHT) this.next();
      const bottom = this.y - STRIP_HEIGHT;
      this.page.drawRectangle({
        x: MARGIN,
        y: bottom,
        width: step * row.length,
        height: STRIP_HEIGHT,
        borderColor: BLACK,
        borderWidth: 0.85,
      });
      for (const [i, cell] of row.entries()) this.stripCell(cell, MARGIN + i * step, bottom, step, i > 0);
      this.y = bottom - gap;
    }
    this.y -= 8;
  }

  private stripCell(
    { name, shown, clash }: { readonly name: string; readonly shown: string; readonly clash: boolean },
    x: number,
    bottom: number,
    step: number,
    cut: boolean,
  ): void {
    const { page, fonts } = this;
    if (cut) {
      page.drawLine({
        start: { x, y: bottom },
        end: { x, y: bottom + STRIP_HEIGHT },
        thickness: 0.5,
        color: GREY,
        dashArray: [2, 2],
      });
    }
    const room = step - 2 * MILLIMETRE;
    const linesAt = (z: number): readonly string[] => wrap(name, room, (t) => fonts.width(t, 'bold', z), 0);
    // As large as two lines of it go into the strip.
    const size = [15, 13, 12, 11, 10, 9, 8, 7].find((z) => linesAt(z).length <= 2) ?? 7;
    const lines = linesAt(size).slice(0, 2);
    const leading = size * 1.1;
    const below = shown === '' ? 0 : SHOWN * 1.5;
    // The block of lines stands in the middle; a line's base is four fifths down.
    let top = bottom + (STRIP_HEIGHT + lines.length * leading + below) / 2;
    for (const line of lines) {
      put(page, fonts, line, x + (step - fonts.width(line, 'bold', size)) / 2, top - size * 0.85, size, 'bold');
      top -= leading;
    }
    if (shown === '') return;
    const wide = fonts.width(shown, 'regular', SHOWN);
    const at = x + (step - wide) / 2;
    const base = top - SHOWN * 1.25;
    put(page, fonts, shown, at, base, SHOWN, 'regular');
    if (clash) {
      const y = base - 1.8;
      page.drawLine({ start: { x: at, y }, end: { x: at + wide, y }, thickness: 0.8, color: BLACK });
    }
  }
}
