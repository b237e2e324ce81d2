import * as fontkit from 'fontkit';
import type { PDFDocument, PDFFont } from '@cantoo/pdf-lib';
import { isShaped, WEIGHTS, type LoadedFont, type Weight } from './faces';
import { UNDRAWN, mirrored, visual } from './visual';

/** A stretch of text in one font, as it is given to it. */
export interface Run {
  readonly text: string;
  readonly font: PDFFont;
  /** Where each of its signs stands, in thousandths of the size; undefined where each is beside the other. */
  readonly placed: readonly Placed[] | undefined;
}

/** One drawn sign of a shaped run, in units of the size: how far it goes on, and how far it is off. */
export interface Placed {
  readonly advance: number;
  readonly x: number;
  readonly y: number;
}

/** Letters one by one: what is measured is what is drawn. */
const PLAIN = { liga: false, kern: false, calt: false, clig: false };

/** What stands for a letter that no font has. */
const MISSING = '?';

/** How signs that no font has are written without. */
const WRITTEN: Readonly<Record<string, string>> = {
  '\u00a0': ' ',
  '\u202f': ' ',
  '\u2009': ' ',
  '\u2011': '-',
};

/** What is asked of the font kit; its own types want a Buffer, and it takes any bytes. */
interface KitFont {
  readonly characterSet: readonly number[];
  readonly unitsPerEm: number;
  readonly layout: (text: string) => {
    readonly glyphs: readonly { readonly advanceWidth: number }[];
    readonly positions: readonly { readonly xAdvance: number; readonly xOffset: number; readonly yOffset: number }[];
  };
}
const opened = (bytes: Uint8Array): KitFont =>
  (fontkit as unknown as { readonly create: (bytes: Uint8Array) => KitFont }).create(bytes);

const clusters = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Signs as one reads them: a letter with its accents is one. Control characters are none. */
export function* plain(text: string): Generator<string> {
  const whole = text.normalize('NFC');
  if (!/[^\n -\u02ff]/.test(whole)) {
    for (const sign of whole) if (sign >= ' ') yield sign;
    return;
  }
  for (const { segment } of clusters.segment(whole)) if (segment >= ' ') yield segment;
}

/** A font file that is open. */
interface Opened {
  readonly file: LoadedFont;
  readonly kit: KitFont;
  readonly letters: ReadonlySet<number>;
}

/** Which font files have the letters of a text: the preferred first. */
export class Typeface {
  private readonly fonts: Readonly<Record<Weight, readonly Opened[]>>;
  private readonly found: Readonly<Record<Weight, Map<string, Opened | undefined>>> = {
    regular: new Map(),
    bold: new Map(),
  };

  /** Throws where a file is no font. */
  constructor(files: readonly LoadedFont[]) {
    const all = files.map((file): Opened => {
      const kit = opened(file.bytes);
      return { file, kit, letters: new Set(kit.characterSet) };
    });
    const regular = all.filter((f) => f.file.weight === 'regular');
    const bold = all.filter((f) => f.file.weight === 'bold');
    // Better thin than not at all.
    this.fonts = { regular, bold: [...bold, ...regular] };
  }

  /** The font of the common letters. */
  first(weight: Weight): Opened {
    return this.fonts[weight][0]!;
  }

  /** The font that has a sign with all that belongs to it. Undefined where none has. */
  of(sign: string, weight: Weight): Opened | undefined {
    const known = this.found[weight];
    if (!known.has(sign)) {
      const codes = Array.from(sign.replaceAll(UNDRAWN, '').replaceAll(/[\u200c\u200d]/g, ''), (s) =>
        s.codePointAt(0)!,
      );
      known.set(
        sign,
        codes.length === 0 ? undefined : this.fonts[weight].find(({ letters }) => codes.every((c) => letters.has(c))),
      );
    }
    return known.get(sign);
  }

  /** The signs of a text that no font has. */
  missing(text: string): readonly string[] {
    // What most texts are made of is in every font.
    if (/^[\n -~]*$/.test(text)) return [];
    const none = [...plain(text)].filter(
      (s) => this.of(s, 'regular') === undefined && WRITTEN[s] === undefined && s.replaceAll(UNDRAWN, '') !== '',
    );
    return [...new Set(none)];
  }
}

/** A letter of a script whose letters join or move, or a mark on one. */
const IN_SCRIPT = /\p{L}|\p{M}|\u200c|\u200d|\u0640/u;

/** The fonts of a document: those of a typeface that its text needs, as far as it needs them. */
export class PdfFonts {
  private readonly embedded = new Map<LoadedFont, PDFFont>();

  private constructor(private readonly typeface: Typeface) {}

  /** Embeds what a set of texts needs, and no more. */
  static async for(document: PDFDocument, files: readonly LoadedFont[], texts: Iterable<string>): Promise<PdfFonts> {
    document.registerFontkit(fontkit);
    const typeface = new Typeface(files);
    const fonts = new PdfFonts(typeface);
    const used = new Set<string>();
    for (const text of texts) for (const sign of plain(text)) used.add(sign);
    for (const weight of WEIGHTS) {
      const wanted = new Set([...used].flatMap((sign) => typeface.of(sign, weight)?.file ?? []));
      wanted.add(typeface.first(weight).file);
      for (const file of wanted) {
        if (fonts.embedded.has(file)) continue;
        const features = isShaped(file.face) ? {} : { features: PLAIN };
        fonts.embedded.set(file, await document.embedFont(file.bytes, { subset: true, ...features }));
      }
    }
    return fonts;
  }

  /** A line as stretches from left to right, each in a font that has its letters. */
  runs(line: string, weight: Weight): readonly Run[] {
    return visual(line.normalize('NFC')).flatMap(({ text, rightToLeft }) => {
      const pieces = this.pieces(text, weight, rightToLeft);
      return (rightToLeft ? pieces.toReversed() : pieces).map(({ text: own, from, shaped }): Run => {
        const font = this.embedded.get(from.file)!;
        if (shaped) return { text: own, font, placed: placesOf(from.kit, own) };
        return { text: rightToLeft ? turned(own) : own, font, placed: undefined };
      });
    });
  }

  /** A stretch in the order in which it is read, cut where the font changes, and where letters of a script begin and end. */
  private pieces(
    text: string,
    weight: Weight,
    rightToLeft: boolean,
  ): { text: string; from: Opened; shaped: boolean }[] {
    const pieces: { text: string; from: Opened; shaped: boolean }[] = [];
    for (const sign of plain(text)) {
      const own = this.typeface.of(sign, weight);
      if (!own && sign.replaceAll(UNDRAWN, '') === '') continue;
      const from = own ?? this.typeface.first(weight);
      const shaped = own !== undefined && isShaped(own.file.face) && IN_SCRIPT.test(sign);
      const shown = own ? sign.replaceAll(UNDRAWN, '') : (WRITTEN[sign] ?? MISSING);
      const last = pieces.at(-1);
      // Figures of a script that is read from right to left are drawn one by one, from left to right.
      const alone = own !== undefined && isShaped(own.file.face) && !shaped && !rightToLeft;
      if (last?.from === from && last.shaped === shaped && !alone) last.text += shown;
      else pieces.push({ text: shown, from, shaped });
    }
    return pieces;
  }

  private readonly widths: Readonly<Record<Weight, Map<string, number>>> = { regular: new Map(), bold: new Map() };

  /** Points. Letters stand beside each other as they are wide, so each is measured once; a shaped line is measured whole. */
  width(text: string, weight: Weight, size: number): number {
    if (/[\u0590-\u097f\ufb1d-\ufdff\ufe70-\ufefe]/.test(text)) return this.known(text, weight) * size;
    let sum = 0;
    for (const sign of plain(text)) sum += this.known(sign, weight);
    return sum * size;
  }

  private known(text: string, weight: Weight): number {
    const known = this.widths[weight];
    let width = known.get(text);
    if (width === undefined) {
      width = this.runs(text, weight).reduce((all, run) => all + runWidth(run), 0);
      known.set(text, width);
    }
    return width;
  }
}

/** How wide a run is at size 1. */
export const runWidth = ({ text, font, placed }: Run): number =>
  placed ? placed.reduce((sum, p) => sum + p.advance, 0) : font.widthOfTextAtSize(text, 1);

/** Where the signs of a shaped text stand. */
function placesOf(kit: KitFont, text: string): readonly Placed[] {
  const { positions } = kit.layout(text);
  const at = (n: number): number => n / kit.unitsPerEm;
  return positions.map((p) => ({ advance: at(p.xAdvance), x: at(p.xOffset), y: at(p.yOffset) }));
}

/** Signs between words that are read from right to left, as they stand from left to right. */
const turned = (text: string): string => [...plain(text)].toReversed().map(mirrored).join('');
