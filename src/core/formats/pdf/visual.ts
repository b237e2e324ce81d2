import bidiFactory from 'bidi-js';

const bidi = bidiFactory();

/** A stretch of a line in the order in which it is drawn. */
export interface Stretch {
  /** In the order in which it is read. */
  readonly text: string;
  readonly rightToLeft: boolean;
}

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefe]/;

/** Marks that say how others are ordered, and are not drawn themselves. */
export const UNDRAWN = /[\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff]|[\ufe00-\ufe0f]/gu;

/** A line as it is drawn from left to right (the Unicode bidirectional algorithm, UAX 9). Most lines are one stretch. */
export function visual(line: string): readonly Stretch[] {
  if (!RIGHT_TO_LEFT.test(line)) return [{ text: line, rightToLeft: false }];
  const { levels } = bidi.getEmbeddingLevels(line, 'auto');
  const stretches: { text: string; level: number }[] = [];
  for (let i = 0; i < line.length; i++) {
    const last = stretches.at(-1);
    if (last && last.level === levels[i]) last.text += line[i];
    else stretches.push({ text: line[i]!, level: levels[i]! });
  }
  // Rule L2: from the highest level to the lowest odd one, what stands side by side at it or above is turned about.
  const highest = Math.max(...stretches.map((s) => s.level));
  let order = stretches;
  for (let level = highest; level > 0; level--) {
    const turned: typeof stretches = [];
    let group: typeof stretches = [];
    for (const stretch of order) {
      if (stretch.level >= level) group.unshift(stretch);
      else {
        turned.push(...group, stretch);
        group = [];
      }
    }
    order = [...turned, ...group];
  }
  return order.map(({ text, level }) => ({ text, rightToLeft: level % 2 === 1 }));
}

/** What a sign such as a bracket looks like where it is read from right to left (rule L4). */
export const mirrored = (sign: string): string => bidi.getMirroredCharacter(sign) ?? sign;
