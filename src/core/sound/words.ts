import type { Sound } from './soundLine';

/** Quieter than this share of a word's loudest moment is the silence around it. */
const SILENT = 0.02;

/**
 * A text as the voice reads it: it knows the letters of English alone. Accents are left out, typographic marks
 * become plain ones. Empty where nothing is left that can be said.
 */
export const speakable = (text: string): string => {
  const plain = text
    .normalize('NFKD')
    .replaceAll(/[‘’ʼ′]/g, "'")
    .replaceAll(/[–—]/g, ', ')
    .replaceAll('&', ' and ')
    .replaceAll(/[^\x20-\x7E]/g, '')
    .replaceAll(/\s+/g, ' ')
    .trim();
  return /[a-z0-9]/i.test(plain) ? plain : '';
};

/** What the voice has to say of a line of sounds, each once, in the order of time. */
export const wordsOf = (sounds: readonly Sound[]): readonly string[] => [
  ...new Set(sounds.map((sound) => wordOf(sound)).filter((word) => word !== '')),
];

/** What the voice says for a sound; empty where it says nothing. */
export function wordOf(sound: Sound): string {
  if (sound.kind === 'count') return sound.spoken ? String(sound.beat) : '';
  return sound.kind === 'call' && sound.call.how === 'voice' ? speakable(sound.text) : '';
}

/** A word without the silence before and behind it, so that it begins where it is put. Silence alone stays as it is. */
export function withoutSilence(samples: Float32Array): Float32Array {
  const loudest = samples.reduce((most, s) => Math.max(most, Math.abs(s)), 0);
  const heard = (s: number): boolean => Math.abs(s) > loudest * SILENT;
  const from = samples.findIndex(heard);
  return from < 0 ? samples : samples.slice(from, samples.findLastIndex(heard) + 1);
}
