import type { Verdict } from './verdict';

/** Hollow: not proven. Lit: proven. Cracked: a dry run says no. */
export type Lantern = 'hollow' | 'lit' | 'cracked';

/** The mark of something from the marks below it: one crack shows, one hollow leaves it unproven. Nothing below proves nothing. */
export function sumLanterns(marks: Iterable<Lantern>): Lantern {
  let sum: Lantern | undefined;
  for (const mark of marks) {
    if (mark === 'cracked') return 'cracked';
    if (sum !== 'hollow') sum = mark;
  }
  return sum ?? 'hollow';
}

/** A cue's mark from what a dry run found for each of its units. */
export const lanternOf = (verdicts: readonly Pick<Verdict, 'outcome'>[]): Lantern =>
  sumLanterns(verdicts.map((v) => (v.outcome === 'on-time' ? 'lit' : 'cracked')));
