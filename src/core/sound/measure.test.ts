import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { guess } from '../addressing';
import { findGap, standInGap, timeFromPresses } from './measure';
import { runs } from '../testing/runs';

describe('a time by ear', () => {
  it('is the middle of the presses less the time that pressing takes', () => {
    expect(timeFromPresses([400, 420, 410, 405, 415], [220, 230, 225])).toEqual({
      millis: 185,
      spread: 6,
      trials: [175, 195, 185, 180, 190],
    });
    expect(timeFromPresses([400, 410, 1900, 405, 402], [220, 225, 230])!.millis).toBe(180);
  });

  it('is never less than nothing, and nothing from too few', () => {
    expect(timeFromPresses([200, 210, 190], [230, 230, 230])!.millis).toBe(0);
    expect(timeFromPresses([200, 210], [230, 230, 230])).toBeNull();
    expect(timeFromPresses([200, 210, 220], [])).toBeNull();
  });
});

const RATE = 8000;
const tone = (seconds: number, silent: readonly (readonly [number, number])[], level = 0.5): Float32Array =>
  Float32Array.from({ length: Math.round(seconds * RATE) }, (_, i) => {
    const t = i / RATE;
    const hush = silent.some(([a, b]) => t >= a && t < b);
    return (hush ? 0.002 : level) * Math.sin(2 * Math.PI * 196 * t);
  });

describe('a gap in a recording', () => {
  it('is found to a few milliseconds, wherever it is and however loud the sound', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 900 }),
        fc.integer({ min: 25, max: 700 }),
        fc.constantFrom(0.02, 0.3, 0.9),
        (start, length, level) => {
          const [from, to] = [start / 1000, (start + length) / 1000];
          const gap = findGap(tone(3, [[from, to]], level), RATE);
          expect(Math.abs(gap!.from - from)).toBeLessThan(0.011);
          expect(Math.abs(gap!.to - to)).toBeLessThan(0.011);
        },
      ),
      runs(61, 60),
    );
  });

  it('is the longest where there are several, and takes no breath between notes for one', () => {
    const gap = findGap(
      tone(2, [
        [0.3, 0.31],
        [0.6, 0.65],
        [1, 1.2],
      ]),
      RATE,
    )!;
    expect(gap.from).toBeCloseTo(1, 1);
    expect(gap.to).toBeCloseTo(1.2, 1);
  });

  it('is none in silence, in unbroken sound, or where the sound does not come back', () => {
    expect(findGap(new Float32Array(RATE), RATE)).toBeNull();
    expect(findGap(new Float32Array(0), RATE)).toBeNull();
    expect(findGap(tone(2, []), RATE)).toBeNull();
    expect(findGap(tone(2, [[1.4, 2]]), RATE)).toBeNull();
    expect(findGap(tone(2, [[0, 0.4]]), RATE)).toBeNull();
  });
});

describe('a stand-in that is measured', () => {
  it('has a gap as long as its preset loads, from typical to worst', () => {
    for (const [share, takes] of [
      [0, 180],
      [1, 198],
    ] as const) {
      const gap = findGap(standInGap(guess(180), 3, 0.4, share), 8000)!;
      expect(gap.from * 1000).toBeCloseTo(400, -1);
      expect((gap.to - gap.from) * 1000).toBeGreaterThan(takes - 6);
      expect((gap.to - gap.from) * 1000).toBeLessThan(takes + 6);
    }
  });
});
