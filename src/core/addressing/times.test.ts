import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { exactly, guess, isWorstBelow, measured, readTime, timeSchema, timeText, typed, type Time } from './times';

describe('a time that is typed', () => {
  it.each<[string, number, number | null]>([
    ['180', 180, null],
    ['180 ms', 180, null],
    ['180-210', 180, 210],
    ['180 – 210 ms', 180, 210],
    ['180..210', 180, 210],
    ['180 to 210', 180, 210],
    ['0,5', 0.5, null],
    ['12.5-12.5', 12.5, 12.5],
  ])('"%s" is read', (text, typical, worst) => {
    expect(readTime(text, '2026-12-01')).toEqual(typed(typical, worst, '2026-12-01'));
  });

  it.each(['', 'fast', '-5', '180-', '180-210-230', '70000', '1-70000', '1e3', '180 210'])('"%s" is none', (text) => {
    expect(readTime(text, null)).toBeNull();
  });

  it('is refused where the worst is below the typical', () => {
    expect(readTime('210-180', null)).toBe('below');
    expect(isWorstBelow(typed(210, 180, null))).toBe(true);
    expect(isWorstBelow(guess(210))).toBe(false);
  });

  it('is shown as it is typed, and whatever is typed is none or fits the schema', () => {
    for (const time of [guess(180), exactly(4), measured([10, 12.4, 11], null)]) {
      const again = readTime(timeText(time), null) as Time;
      expect([again.typical, again.worst]).toEqual([time.typical, time.worst]);
    }
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0123456789-–.,ms to '.split('')) }), (text) => {
        const time = readTime(text, null);
        if (time !== null && time !== 'below') expect(timeSchema.safeParse(time).success).toBe(true);
      }),
      runs(71, 500),
    );
  });
});
