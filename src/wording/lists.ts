const inEnglish = new Intl.ListFormat('en-GB', { style: 'long', type: 'conjunction' });

/** Words as a sentence: with a capital, and a full stop. */
export const sentenceOf = (words: string): string =>
  words === '' ? '' : `${words[0]!.toUpperCase()}${words.slice(1)}.`;

/** Names one after the other: "Quillback, Tarn and Wick Four". */
export const listWords = (names: readonly string[]): string => inEnglish.format(names);
