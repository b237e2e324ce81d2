import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { CLOCK_TICKS } from './clockMessages';
import {
  NO_CLOCK,
  WOBBLE,
  hearClock,
  periodAt as period,
  placeOf,
  silent,
  wobble,
  type FollowedClock,
} from './follower';

/** Clocks at times, after a start. */
function clocked(
  times: readonly number[],
  from: FollowedClock = hearClock(NO_CLOCK, times[0]! - 1, [0xfa])!,
): FollowedClock {
  return times.reduce((clock, at) => hearClock(clock, at, [0xf8])!, from);
}
const even = (count: number, bpm: number, from = 1e6): number[] =>
  Array.from({ length: count }, (_, i) => from + i * period(bpm));

describe('a clock from outside', () => {
  it('says where it is and how fast, from its second clock on', () => {
    expect(placeOf(NO_CLOCK)).toBeNull();
    expect(placeOf(clocked(even(1, 120)))).toEqual({ tick: 0, at: 1e6, bpm: null });
    const { tick, at, bpm } = placeOf(clocked(even(30, 126)))!;
    expect(tick).toBe(29 * CLOCK_TICKS);
    expect(at).toBeCloseTo(1e6 + 29 * period(126), 3);
    expect(bpm).toBeCloseTo(126, 6);
  });

  it('goes on from a song position, and counts only while it runs', () => {
    const standing = clocked(even(5, 120), NO_CLOCK);
    expect([standing.count, standing.running]).toEqual([-1, false]);
    // Bar 3 of 4/4: 32 sixteenths.
    const placed = hearClock(standing, 2e6, [0xf2, 32, 0])!;
    expect(placeOf(placed)!.tick).toBe((32 * 6 - 1) * CLOCK_TICKS);
    const on = hearClock(placed, 2e6, [0xfb])!;
    expect(on.running).toBe(true);
    expect(clocked([2.01e6], on).count).toBe(32 * 6);
    const far = hearClock(placed, 2e6, [0xf2, 127, 127])!;
    expect(clocked([2.01e6], { ...far, running: true }).count).toBe(16383 * 6);
    const stopped = hearClock(clocked(even(5, 120)), 3e6, [0xfc])!;
    expect(stopped.running).toBe(false);
    expect(hearClock(NO_CLOCK, 0, [0x90, 1, 2])).toBeNull();
  });

  it('reads a position of two bytes, and a tempo that is 1 % off another', () => {
    // Bar 20 of 4/4: 304 sixteenths are 48 and 2 × 128.
    const placed = hearClock(NO_CLOCK, 1e6, [0xf2, 48, 2])!;
    expect(clocked([1.01e6], { ...placed, running: true }).count).toBe(304 * 6);
    for (const bpm of [120, 121.2, 118.8]) expect(placeOf(clocked(even(60, bpm)))!.bpm).toBeCloseTo(bpm, 6);
  });

  it('is told exactly where it is although its clocks shake by a millisecond either way', () => {
    const shaken = fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 60, maxLength: 60 });
    fc.assert(
      fc.property(shaken, fc.integer({ min: 60, max: 200 }), (shakes, bpm) => {
        const clock = clocked(even(60, bpm).map((t, i) => t + shakes[i]!));
        const { at, bpm: own } = placeOf(clock)!;
        // A third of a second ahead it is still told to less than two milliseconds.
        const ahead = Math.round(350_000 / period(bpm));
        expect(Math.abs(at + ahead * period(own!) - (1e6 + (59 + ahead) * period(bpm)))).toBeLessThan(2500);
      }),
      runs(240, 300),
    );
  });

  it('follows another tempo within half a beat, and one that changes by and by', () => {
    const first = even(48, 120);
    const then = even(13, 140, first.at(-1)! + period(140));
    expect(placeOf(clocked([...first, ...then]))!.bpm).toBeCloseTo(140, 0);
    const times = [1e6];
    for (let i = 0; i < 96; i++) times.push(times.at(-1)! + period(120 + i * 0.125));
    const { at, bpm } = placeOf(clocked(times))!;
    expect(Math.abs(at + period(bpm!) - (times.at(-1)! + period(132)))).toBeLessThan(1000);
  });

  it('wobbles where its beats go to and fro, not where the tempo changes', () => {
    const beats = (bpms: readonly number[]): FollowedClock => {
      const times = [1e6];
      for (const bpm of bpms) for (let i = 0; i < 24; i++) times.push(times.at(-1)! + period(bpm));
      return clocked(times);
    };
    expect(wobble(beats([120, 120, 120, 120, 120]))).toBe(0);
    expect(wobble(beats([120, 120, 140, 140, 140]))).toBe(0);
    expect(wobble(beats([120, 122, 124, 126, 128]))).toBe(0);
    expect(wobble(beats([120, 123, 120, 123, 120, 123]))).toBeGreaterThan(WOBBLE);
    expect(wobble(beats([120, 120.5, 120, 120.5, 120]))).toBe(0);
  });

  it('is silent when nothing has come for half a second while it ran', () => {
    const clock = clocked(even(30, 120));
    const last = clock.heard;
    expect([silent(clock, last + 400_000), silent(clock, last + 600_000)]).toEqual([false, true]);
    expect(silent(hearClock(clock, last, [0xfc])!, last + 9e6)).toBe(false);
  });

  it('never gives a tempo that is none, whatever arrives when', () => {
    const message = fc.tuple(
      fc.integer({ min: -1e6, max: 1e6 }),
      fc.constantFrom([0xf8], [0xfa], [0xfb], [0xfc], [0xf2, 3, 4], [0xf2], [0xf8]),
    );
    fc.assert(
      fc.property(fc.array(message, { maxLength: 80 }), (messages) => {
        let at = 0;
        let clock = NO_CLOCK;
        for (const [later, bytes] of messages) {
          at += later;
          clock = hearClock(clock, at, bytes)!;
          const bpm = placeOf(clock)?.bpm ?? 20;
          expect(bpm).toBeGreaterThanOrEqual(20 - 1e-6);
          expect(bpm).toBeLessThanOrEqual(400 + 1e-6);
          expect(Number.isFinite(wobble(clock))).toBe(true);
        }
      }),
      runs(241, 200),
    );
  });
});
