import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DIN_BYTE_MICROS, type TimedBytes } from '../midi';
import { CableLoad } from './cableLoad';
import { runs } from '../testing/runs';

const event = (at: number, length: number): TimedBytes => ({
  at,
  portId: 'p',
  bytes: Array.from({ length }, () => 0),
  cueId: 'c',
  unitId: 'u',
});

describe('the load of a cable', () => {
  it('is spread over the seconds that a long message takes', () => {
    // 5000 bytes take 1.6 s: from 0.7 s on, 0.3 s of the first second, all of the next, 0.3 s of the third.
    const load = new CableLoad([event(700_000, 5000)]);
    expect(load.perSecond(3e6).map((s) => Math.round(s * 1000))).toEqual([300, 1000, 300]);
    expect(load.fullest().share).toBe(1);
  });

  it('finds the fullest second wherever it begins', () => {
    const load = new CableLoad([event(0, 100), event(900_000, 1000), event(1_300_000, 1500)]);
    // From 0.9 s: 0.32 s and 0.48 s, the whole of both.
    const { share, from } = load.fullest();
    expect(share).toBeCloseTo(0.8, 6);
    expect(from).toBeGreaterThanOrEqual(780_000);
    expect(from).toBeLessThanOrEqual(900_000);
  });

  it('is nothing without messages', () => {
    expect(new CableLoad([]).fullest()).toEqual({ share: 0, from: 0 });
    expect(new CableLoad([]).perSecond(0)).toEqual([0]);
  });

  it('loses no byte and is never over full', () => {
    const lists = fc.array(fc.tuple(fc.nat(300_000), fc.integer({ min: 1, max: 900 })), { maxLength: 60 });
    fc.assert(
      fc.property(lists, (list) => {
        let at = 0;
        const events = list.map(([pause, length]) => {
          const start = at + pause;
          at = start + length * DIN_BYTE_MICROS;
          return event(start, length);
        });
        const load = new CableLoad(events);
        const seconds = load.perSecond(at + 1);
        const bytes = list.reduce((sum, [, length]) => sum + length, 0);
        expect(seconds.reduce((sum, s) => sum + s, 0)).toBeCloseTo((bytes * DIN_BYTE_MICROS) / 1e6, 6);
        const most = load.fullest().share;
        expect(most).toBeLessThanOrEqual(1 + 1e-9);
        for (const share of seconds) expect(most).toBeGreaterThanOrEqual(share - 1e-9);
      }),
      runs(51, 200),
    );
  });
});
