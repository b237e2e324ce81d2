import * as fontkit from 'fontkit';
import type { PDFDocument, PDFFont } from '@cantoo/pdf-lib';

/** A typeface as it comes: a file for each range of letters (latin, latin-ext, greek, cyrillic …), the first with the common ones. */
export interface Typeface {
  readonly regular: readonly Uint8Array[];
  readonly bold: readonly Uint8Array[];
}

export type Weight = keyof Typeface;

/** A stretch of text in one font. */
export interface Run {
  readonly text: string;
  readonly font: PDFFont;
}

/** Letters one by one: what is measured is what is drawn. */
const PLAIN = { liga: false, kern: false, calt: false, clig: false };

/** What stands for a letter that no font has. */
const MISSING = '?';

/** Signs that fonts seldom have, and how they are written without. */
const WRITTEN: Readonly<Record<string, string>> = {
  '→': '->',
  '←': '<-',
  '↑': 'up',
  '↓': 'down',
  '♩': 'quarter',
  '♪': 'eighth',
  '☐': '[  ]',
  '☑': '[x]',
  '\u00a0': ' ',
  '\u202f': ' ',
  '\u2009': ' ',
  '\u2011': '-',
};

/** The letters that a font has. */
type Letters = ReadonlySet<number>;

/** What is asked of the font kit; its own types want a Buffer, and it takes any bytes. */
interface FontKit {
  readonly create: (bytes: Uint8Array) => { readonly characterSet: readonly number[] };
}

/** The letters that a font file has. Throws where it is none. */
export const lettersOf = (bytes: Uint8Array): Letters =>
  new Set((fontkit as unknown as FontKit).create(bytes).characterSet);

/** The fonts of a document: those of a typeface that its text needs, as far as it needs them. */
export class PdfFonts {
  private readonly letters = new Map<Uint8Array, Letters>();
  private readonly embedded = new Map<Uint8Array, PDFFont>();

  private constructor(private readonly typeface: Typeface) {}

  /** Embeds what a set of texts needs, and no more. */
  static async for(document: PDFDocument, typeface: Typeface, texts: Iterable<string>): Promise<PdfFonts> {
    document.registerFontkit(fontkit);
    const fonts = new PdfFonts(typeface);
    for (const bytes of [...typeface.regular, ...typeface.bold]) {
      fonts.letters.set(bytes, lettersOf(bytes));
    }
    const used = new Set<string>();
    for (const text of texts) for (const sign of plain(text)) used.add(sign);
    for (const weight of ['regular', 'bold'] as const) {
      const wanted = new Set([...used].map((sign) => fonts.fileOf(sign, weight)));
      wanted.add(typeface[weight][0]);
      for (const bytes of wanted) {
        if (bytes) fonts.embedded.set(bytes, await document.embedFont(bytes, { subset: true, features: PLAIN }));
      }
    }
    return fonts;
  }

  private fileOf(sign: string, weight: Weight): Uint8Array | undefined {
    const code = sign.codePointAt(0)!;
    return this.typeface[weight].find((bytes) => this.letters.get(bytes)!.has(code));
  }

  /** A text as stretches, each in a font that has its letters. */
  runs(text: string, weight: Weight): readonly Run[] {
    const runs: { text: string; font: PDFFont }[] = [];
    for (const sign of plain(text)) {
      const file = this.fileOf(sign, weight);
      const font = this.embedded.get(file ?? this.typeface[weight][0]!)!;
      const shown = file ? sign : MISSING;
      const last = runs.at(-1);
      if (last?.font === font) last.text += shown;
      else runs.push({ text: shown, font });
    }
    return runs;
  }

  private readonly widths: Readonly<Record<Weight, Map<string, number>>> = { regular: new Map(), bold: new Map() };

  /** Points; letters stand beside each other as they are wide, without ligatures and kerning, so each is measured once. */
  width(text: string, weight: Weight, size: number): number {
    const known = this.widths[weight];
    let sum = 0;
    for (const sign of text) {
      let width = known.get(sign);
      if (width === undefined) {
        width = this.runs(sign, weight).reduce((all, r) => all + r.font.widthOfTextAtSize(r.text, 1), 0);
        known.set(sign, width);
      }
      sum += width;
    }
    return sum * size;
  }
}

/** Letters one by one, composed, with signs written out that fonts seldom have. */
export function* plain(text: string): Generator<string> {
  for (const sign of text.normalize('NFC')) {
    const written = WRITTEN[sign];
    if (written !== undefined) yield* written;
    else if (sign >= ' ') yield sign;
  }
}
