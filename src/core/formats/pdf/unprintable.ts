import type { Sheet } from '../../sheets';
import { fontFilesFor, type FontFile, type LoadedFont } from './faces';
import { Typeface } from './fonts';
import { textsOf } from './textsOf';

/** A text with signs that no font has. */
export interface Unprintable {
  readonly text: string;
  /** The signs, each once, in their order. */
  readonly signs: readonly string[];
}

/** The font files that some sheets need, the preferred first. */
export const fontFilesOf = (sheets: readonly Sheet[], show: string): readonly FontFile[] =>
  fontFilesFor(textsOf(sheets, show, ''));

/** What of some sheets cannot be printed: "?" stands for it. Each text once. Throws where a font is none. */
export function unprintable(
  sheets: readonly Sheet[],
  show: string,
  fonts: readonly LoadedFont[],
): readonly Unprintable[] {
  const typeface = new Typeface(fonts);
  const texts = new Set(textsOf(sheets, show, ''));
  return [...texts].flatMap((text) => {
    const signs = typeface.missing(text);
    return signs.length === 0 ? [] : [{ text, signs }];
  });
}
