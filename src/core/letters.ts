/** Letters that XML has not (XML 1.0, 2.2 Char): most control characters, halves of surrogate pairs, U+FFFE and U+FFFF. No display has them either. */
export const NO_LETTER = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/u;

/** A letter's number in Unicode, as it is written: U+0007. */
export const letterCode = (letter: string): string =>
  `U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`;

/** A letter in a text that no file and no display can carry. */
export interface NoLetter {
  readonly text: string;
  /** Which letter of the text, counted from 1. */
  readonly place: number;
  /** As in U+0007. */
  readonly code: string;
}

/**
 * The first letter that can be carried nowhere among the texts that are in `after` and were not in `before`. Plain data;
 * members of lists are matched by their ids, else by their places. What is the same object in both is not looked through.
 */
export function newNoLetter(before: unknown, after: unknown): NoLetter | undefined {
  if (Object.is(before, after)) return undefined;
  if (typeof after === 'string') return noLetterIn(after);
  if (Array.isArray(after)) return inList(Array.isArray(before) ? before : [], after);
  if (typeof after !== 'object' || after === null) return undefined;
  const old = (typeof before === 'object' && before !== null ? before : {}) as Readonly<Record<string, unknown>>;
  for (const [key, value] of Object.entries(after)) {
    const found = newNoLetter(old[key], value);
    if (found) return found;
  }
  return undefined;
}

function inList(before: readonly unknown[], after: readonly unknown[]): NoLetter | undefined {
  const old = new Map(before.map((member, i) => [keyOf(member, i), member]));
  for (const [i, member] of after.entries()) {
    const found = newNoLetter(old.get(keyOf(member, i)), member);
    if (found) return found;
  }
  return undefined;
}

const keyOf = (member: unknown, i: number): unknown =>
  typeof member === 'object' && member !== null && 'id' in member ? member.id : i;

function noLetterIn(text: string): NoLetter | undefined {
  const found = NO_LETTER.exec(text);
  if (!found) return undefined;
  return { text, place: Array.from(text.slice(0, found.index)).length + 1, code: letterCode(found[0]) };
}
