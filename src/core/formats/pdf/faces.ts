import arabic from '@fontsource/ibm-plex-sans-arabic/unicode.json' with { type: 'json' };
import devanagari from '@fontsource/ibm-plex-sans-devanagari/unicode.json' with { type: 'json' };
import hebrew from '@fontsource/ibm-plex-sans-hebrew/unicode.json' with { type: 'json' };
import japanese from '@fontsource/ibm-plex-sans-jp/unicode.json' with { type: 'json' };
import korean from '@fontsource/ibm-plex-sans-kr/unicode.json' with { type: 'json' };
import latin from '@fontsource/ibm-plex-sans/unicode.json' with { type: 'json' };
import music from '@fontsource/noto-music/unicode.json' with { type: 'json' };
import maths from '@fontsource/noto-sans-math/unicode.json' with { type: 'json' };
import chinese from '@fontsource/noto-sans-sc/unicode.json' with { type: 'json' };
import accented from '@fontsource/noto-sans/unicode.json' with { type: 'json' };
import signs from '@fontsource/noto-sans-symbols-2/unicode.json' with { type: 'json' };
import symbols from '@fontsource/noto-sans-symbols/unicode.json' with { type: 'json' };

/** A file of a face: some of its letters in one weight. */
export interface FontFile {
  /** The face, as its package is called: "ibm-plex-sans". */
  readonly face: string;
  /** Which of its letters: "latin-ext", or the number of a slice. */
  readonly subset: string;
  readonly weight: Weight;
}

export type Weight = 'regular' | 'bold';

export const WEIGHTS = ['regular', 'bold'] as const;

/** A font file with what is in it: a WOFF. */
export interface LoadedFont extends FontFile {
  readonly bytes: Uint8Array;
}

interface Face {
  readonly name: string;
  /** Ranges of code points by subset, as style sheets write them: "U+0000-00FF,U+0131". */
  readonly ranges: Readonly<Record<string, string>>;
  readonly bold: boolean;
  /** What letters look like depends on their neighbours. */
  readonly shaped?: boolean;
  /** Below this code point it has just what it says that it has: what comes behind it is not asked for the same. */
  readonly exactBelow?: number;
  /** Signs beyond that which it has for certain. */
  readonly alsoExact?: string;
}

/** A face of a script beside Latin: its own letters, and not what it has of others. */
const only = (name: string, ranges: Readonly<Record<string, string>>, rest: Partial<Face> = {}): Face => ({
  name,
  ranges: Object.fromEntries(
    Object.entries(ranges).filter(
      ([subset]) => !/^(latin|latin-ext|cyrillic|cyrillic-ext|greek|vietnamese)$/.test(subset),
    ),
  ),
  bold: true,
  ...rest,
});

const JAPANESE = only('ibm-plex-sans-jp', japanese, { exactBelow: Infinity });
const KOREAN = only('ibm-plex-sans-kr', korean, { exactBelow: Infinity });
// One of its slices cannot be read, and all of them in one file are not large.
const CHINESE = only('noto-sans-sc', { 'chinese-simplified': Object.values(chinese).join(',') }, {});
/** Dashes, quotation marks, dots and the like that the file of the common letters has, in both weights. */
export const SURE_SIGNS = '–—‘’‚“”„•…′″‹›⁄€™↑↓−∕';
const { latin: common, ...others } = latin;
const BEFORE: readonly Face[] = [
  // The common letters first: blanks are taken from the first file that has them.
  // Of signs beyond letters it says more than it has: without these a dash would ask for the letters of China.
  {
    name: 'ibm-plex-sans',
    ranges: { latin: common, ...others },
    bold: true,
    exactBelow: 0x2000,
    alsoExact: SURE_SIGNS,
  },
  only('ibm-plex-sans-arabic', arabic, { shaped: true }),
  only('ibm-plex-sans-hebrew', hebrew, { shaped: true }),
  only('ibm-plex-sans-devanagari', devanagari, { shaped: true }),
  { name: 'noto-sans', ranges: { 'greek-ext': accented['greek-ext'] }, bold: true },
  // Signs of music stand before the large scripts, where they are as wide as a letter of those.
  only('noto-sans-symbols', symbols),
  only('noto-sans-symbols-2', signs, { bold: false }),
  { name: 'noto-sans-math', ranges: maths, bold: false },
  only('noto-music', music, { bold: false }),
];

const SHAPED: ReadonlySet<string> = new Set(BEFORE.filter((f) => f.shaped).map((f) => f.name));

/** Whether what letters of a face look like depends on their neighbours. */
export const isShaped = (face: string): boolean => SHAPED.has(face);

/** The faces that a text is set in, the preferred first. A sign that several languages write is drawn as that of the text draws it. */
function facesFor(text: string): readonly Face[] {
  const han = /\p{Script=Hiragana}|\p{Script=Katakana}/u.test(text)
    ? [JAPANESE, CHINESE, KOREAN]
    : /\p{Script=Hangul}/u.test(text)
      ? [KOREAN, CHINESE, JAPANESE]
      : [CHINESE, JAPANESE, KOREAN];
  return [...BEFORE, ...han];
}

type Range = readonly [low: number, high: number];

const read = new Map<Face, ReadonlyMap<string, readonly Range[]>>();

function rangesOf(face: Face): ReadonlyMap<string, readonly Range[]> {
  let ranges = read.get(face);
  if (!ranges) {
    ranges = new Map(
      Object.entries(face.ranges).map(([subset, text]) => [
        subset.replaceAll(/[[\]]/g, ''),
        text.split(',').map((part): Range => {
          const [low = '', high = low] = part.replace('U+', '').split('-');
          return [Number.parseInt(low, 16), Number.parseInt(high, 16)];
        }),
      ]),
    );
    read.set(face, ranges);
  }
  return ranges;
}

/**
 * The font files that some texts may need, the preferred first. The common letters are always among them. What a file
 * says that it has is more than it has: several may be named for one sign.
 */
export function fontFilesFor(texts: Iterable<string>): readonly FontFile[] {
  const whole = [...texts].join('\n').normalize('NFC');
  const codes = new Set(Array.from(whole, (sign) => sign.codePointAt(0)!));
  const taken = new Set<number>();
  return facesFor(whole).flatMap((face) => {
    const own: number[] = [];
    const subsets = [...rangesOf(face)].filter(([subset, ranges]) => {
      const wanted = [...codes].filter((c) => !taken.has(c) && ranges.some(([a, b]) => c >= a && c <= b));
      own.push(
        ...wanted.filter((c) => c < (face.exactBelow ?? 0) || face.alsoExact?.includes(String.fromCodePoint(c))),
      );
      return wanted.length > 0 || (face.name === 'ibm-plex-sans' && subset === 'latin');
    });
    for (const code of own) taken.add(code);
    const weights = face.bold ? WEIGHTS : (['regular'] as const);
    return subsets.flatMap(([subset]) => weights.map((weight) => ({ face: face.name, subset, weight })));
  });
}

/** Where a font file lies within the packages of the fonts. */
export const fontPath = ({ face, subset, weight }: FontFile): string =>
  `@fontsource/${face}/files/${face}-${subset}-${weight === 'bold' ? 700 : 400}-normal.woff`;
