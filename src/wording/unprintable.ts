import { NO_LETTER, type NoLetter } from '../core/letters';
import { listWords } from './lists';

/** So many texts are named; more are counted. */
const NAMED = 6;

/** What cannot be printed, by name: for each text the signs that no font has. */
export function unprintableSentence(
  odd: readonly { readonly text: string; readonly signs: readonly string[] }[],
): string {
  const named = odd.slice(0, NAMED).map(({ text, signs }) => `${signs.join(' ')} in “${text}”`);
  const rest = odd.length - named.length;
  return `No font has these signs, and “?” is printed for them: ${listWords(rest > 0 ? [...named, `${rest} more`] : named)}.`;
}

/** A letter that no file and no display can carry, where it was typed. */
export const noLetterSentence = ({ text, place, code }: NoLetter): string =>
  `Letter ${place} of “${text.replaceAll(new RegExp(NO_LETTER.source, 'gu'), '□').slice(0, 60)}” is ${code}: no file and no display has it. Nothing was changed.`;
