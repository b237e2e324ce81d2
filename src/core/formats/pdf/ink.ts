import {
  PDFNumber,
  PDFOperator,
  PDFOperatorNames,
  rgb,
  type PDFFont,
  type PDFName,
  type PDFPage,
} from '@cantoo/pdf-lib';
import type { Weight } from './faces';
import { plain, runWidth, type PdfFonts, type Run } from './fonts';

export const BLACK = rgb(0, 0, 0);
export const GREY = rgb(0.33, 0.33, 0.33);

/** Points (1/72 inch). */
export const MILLIMETRE = 72 / 25.4;
export const MARGIN = 12 * MILLIMETRE;

const { BeginText, EndText, SetFontAndSize, SetTextMatrix, ShowText } = PDFOperatorNames;
const n = (value: number): PDFNumber => PDFNumber.of(Math.round(value * 1000) / 1000);

/** Writes texts on pages. */
export class Ink {
  private readonly keys = new WeakMap<PDFPage, Map<PDFFont, PDFName>>();

  constructor(readonly fonts: PdfFonts) {}

  /** A line at a place, as it is read: what is read from right to left is drawn so. */
  text(page: PDFPage, line: string, x: number, y: number, size: number, weight: Weight): void {
    let at = x;
    const operators: PDFOperator[] = [];
    for (const run of this.fonts.runs(line, weight)) {
      operators.push(PDFOperator.of(SetFontAndSize, [this.key(page, run.font), n(size)]));
      if (run.placed?.some((p) => p.x !== 0 || p.y !== 0)) {
        const hex = run.font.encodeText(run.text).asString().match(/.{4}/g) ?? [];
        let pen = at;
        for (const [i, { advance, x: right, y: up }] of run.placed.entries()) {
          operators.push(
            PDFOperator.of(SetTextMatrix, [n(1), n(0), n(0), n(1), n(pen + right * size), n(y + up * size)]),
            PDFOperator.of(ShowText, [`<${hex[i]!}>`]),
          );
          pen += advance * size;
        }
      } else {
        operators.push(
          PDFOperator.of(SetTextMatrix, [n(1), n(0), n(0), n(1), n(at), n(y)]),
          PDFOperator.of(ShowText, [run.placed ? run.font.encodeText(run.text) : this.codes(run)]),
        );
      }
      at += (run.placed ? runWidth(run) : this.fonts.width(run.text, weight, 1)) * size;
    }
    if (operators.length > 0) page.pushOperators(PDFOperator.of(BeginText), ...operators, PDFOperator.of(EndText));
  }

  private readonly known = new Map<PDFFont, Map<string, string>>();

  /** Signs that stand beside each other, as numbers of their font: each is looked up once. */
  private codes({ text, font }: Run): string {
    const known = this.known.get(font) ?? new Map<string, string>();
    this.known.set(font, known);
    let codes = '';
    for (const sign of plain(text)) {
      let code = known.get(sign);
      if (code === undefined) known.set(sign, (code = font.encodeText(sign).asString()));
      codes += code;
    }
    return `<${codes}>`;
  }

  private key(page: PDFPage, font: PDFFont): PDFName {
    const keys = this.keys.get(page) ?? new Map<PDFFont, PDFName>();
    this.keys.set(page, keys);
    const key = keys.get(font) ?? page.node.newFontDictionary(font.name, font.ref);
    keys.set(font, key);
    return key;
  }
}

/** What is read differs from what is drawn from left to right. */
export const isTurned = (line: string): boolean => /[\u0590-\u097f\ufb1d-\ufdff\ufe70-\ufefe]/.test(line);

/** A rule across a page. */
export function rule(page: PDFPage, y: number, thickness: number): void {
  page.drawLine({
    start: { x: MARGIN, y },
    end: { x: page.getWidth() - MARGIN, y },
    thickness,
    color: thickness < 1 ? GREY : BLACK,
  });
}
