/** Letters that the application's own faces have: Latin, Greek, Cyrillic and what stands between words. */
const OWN = /[\u0020-\u052f\n\t\u1e00-\u1fff\u2000-\u206f\u20a0-\u20bf]/gu;

/** Parts of shows that were looked through: what an edit leaves is the same object. */
const seen = new WeakSet();
const letters = new Set<string>();
/** Long lists of a song in which nothing has a name. */
const NAMELESS: ReadonlySet<string> = new Set(['cues', 'sweeps', 'tempo', 'meter']);

/** Letters in all texts of some data that no face of the application has; those that were told before are not told again. */
export function strangeLetters(data: unknown): readonly string[] {
  if (typeof data === 'string') return [...new Set(data.replaceAll(OWN, ''))].filter((letter) => !letters.has(letter));
  if (typeof data !== 'object' || data === null || seen.has(data)) return [];
  seen.add(data);
  const parts = Object.entries(data).filter(([key]) => !NAMELESS.has(key));
  return [...new Set(parts.flatMap(([, part]) => strangeLetters(part)))];
}

/** Those that were told of up to now, with some that are fresh. */
export function toldLetters(fresh: readonly string[]): string {
  for (const letter of fresh) letters.add(letter);
  return [...letters].join('');
}
