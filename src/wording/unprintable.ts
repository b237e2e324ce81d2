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
