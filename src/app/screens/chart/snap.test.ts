import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newSong, songTime, type Song } from '../../../core/show';
import { runs } from '../../../core/testing/runs';
import { SNAPS, snapped } from './snap';

const Q = 960;
/** Four bars of 7/8 behind a pickup of a quarter, then 4/4. */
const song: Song = {
  ...newSong('s', 'S', { bars: 8, beats: 7, unit: 8 }),
  pickup: Q,
  metre: [
    { bar: 1, beats: 7, unit: 8 },
    { bar: 5, beats: 4, unit: 4 },
  ],
};
const SEVEN = 7 * (Q / 2);

describe('snapping', () => {
  it.each([
    ['bar', Q + 10, Q],
    ['bar', Q + SEVEN - 10, Q + SEVEN],
    ['beat', Q + 300, Q + Q / 2],
    ['half', Q + 300, Q + Q / 4],
    ['free', Q + 301, Q + 301],
    ['beat', Q + 4 * SEVEN + 500, Q + 4 * SEVEN + Q],
    ['half', Q + 4 * SEVEN + 500, Q + 4 * SEVEN + Q / 2],
  ] as const)('%s: %i is %i', (to, tick, at) => {
    expect(snapped(song, tick, to)).toBe(at);
  });

  it('never leaves the song, and once snapped, stays', () => {
    const { end } = songTime(song);
    fc.assert(
      fc.property(
        fc.integer({ min: -5000, max: end + 9000 }),
        fc.constantFrom(...SNAPS.map((s) => s.id)),
        (tick, to) => {
          const at = snapped(song, Math.max(0, tick), to);
          expect(at).toBeGreaterThanOrEqual(0);
          expect(at).toBeLessThan(end);
          if (at < end - 1) expect(snapped(song, at, to)).toBe(at);
        },
      ),
      runs(91, 400),
    );
  });
});
