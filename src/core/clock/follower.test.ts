import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { CLOCK_TICKS } from './clockMessages';
import { NO_CLOCK, hearClock, periodAt as period, placeOf, silent, wobble, type FollowedClock } from './follower';

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
    const wobbles = (bpms: readonly number[], margin = 7000): number => wobble(beats(bpms), margin);
    expect(wobbles([120, 120, 120, 120, 120])).toBe(0);
    expect(wobbles([120, 120, 140, 140, 140])).toBe(0);
    expect(wobbles([120, 122, 124, 126, 128])).toBe(0);
    // A beat of 120 is 500 ms, one of 123 is 487.8: that moves a change by more than it bears, unless it bears 15 ms.
    expect(wobbles([120, 123, 120, 123, 120, 123])).toBeCloseTo(12_195, 0);
    expect(wobbles([120, 123, 120, 123, 120, 123], 15_000)).toBe(0);
    expect(wobbles([120, 120.5, 120, 120.5, 120])).toBe(0);
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
          expect(Number.isFinite(wobble(clock, 1000))).toBe(true);
        }
      }),
      runs(241, 200),
    );
  });
});

/** Numbers from a seed, normally distributed with deviation 1: sums of twelve even ones. */
function normal(seed: number): () => number {
  let state = seed >>> 0;
  const even = (): number => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return () => Array.from({ length: 12 }, even).reduce((a, b) => a + b, -6);
}

/** Clocks that should be even, each moved; `skip` leaves clocks out, `twice` sends them again half a millisecond later. */
function shaken(
  bpms: readonly number[],
  move: (at: number) => number,
  { skip = () => false, twice = () => false }: { skip?: (i: number) => boolean; twice?: (i: number) => boolean } = {},
) {
  let clock = hearClock(NO_CLOCK, 0, [0xfa])!;
  let due = 1e6;
  let last = 0;
  const dues: number[] = [];
  const errors: number[] = [];
  for (const [i, bpm] of bpms.entries()) {
    dues.push(due);
    if (!skip(i)) {
      last = Math.max(last + 1, move(due));
      clock = hearClock(clock, last, [0xf8])!;
      if (twice(i)) clock = hearClock(clock, (last += 500), [0xf8])!;
    }
    const { tick, at } = placeOf(clock)!;
    // Where the clock says that it is, against where it should be.
    errors.push(Math.abs(at - (dues[tick / CLOCK_TICKS] ?? Number.NaN)) / 1000);
    due += period(bpm);
  }
  return { clock, errors };
}

const same = (count: number, bpm: number): number[] => Array.from({ length: count }, () => bpm);
const share = (errors: readonly number[], of: number): number =>
  errors.toSorted((a, b) => a - b)[Math.floor((errors.length - 1) * of)]!;

describe('a steady clock that shakes', () => {
  // Deviation, and how many milliseconds off it may be in 95 of 100 places, and at the worst.
  it.each([
    [1000, 0.5, 1.5],
    [3000, 1.5, 4],
  ])('by %i µs is placed within %f ms, at the worst %f', (deviation, most, worst) => {
    for (const [seed, bpm] of [120, 97, 133, 60, 160].entries()) {
      const random = normal(seed + 11);
      const { clock, errors } = shaken(same(1500, bpm), (at) => at + deviation * random());
      expect(clock.count).toBe(1499);
      const settled = errors.slice(96);
      expect(share(settled, 0.95)).toBeLessThan(most);
      expect(share(settled, 1)).toBeLessThan(worst);
    }
  });

  it('because its port sends on whole milliseconds is placed within half of one', () => {
    for (const bpm of [120, 97, 133]) {
      const { errors } = shaken(same(1000, bpm), (at) => Math.round(at / 1000) * 1000);
      expect(share(errors.slice(96), 0.95)).toBeLessThan(0.5);
      expect(share(errors.slice(96), 1)).toBeLessThan(1);
    }
  });
});

describe('a clock from outside', () => {
  it.each([0, 1000])('is followed to another tempo within a beat, where it shakes by %i µs', (deviation) => {
    for (let seed = 1; seed <= 20; seed++) {
      const random = normal(seed);
      const { errors, clock } = shaken([...same(200, 120), ...same(200, 128)], (at) => at + deviation * random());
      expect(clock.count).toBe(399);
      expect(Math.max(...errors.slice(200))).toBeLessThan(10);
      expect(Math.max(...errors.slice(200 + 24))).toBeLessThan(3);
      expect(placeOf(clock)!.bpm).toBeCloseTo(128, 0);
    }
  });

  it('is not moved by clocks that are lost or come twice', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const random = normal(seed * 3);
      const odd = new Set(Array.from({ length: 12 }, (_, i) => 60 + i * 55 + (seed % 7)));
      const which = (i: number): boolean => odd.has(i);
      for (const deviation of [0, 1000]) {
        const move = (at: number): number => at + deviation * random();
        const lost = shaken(same(800, 120), move, { skip: which });
        const twice = shaken(same(800, 120), move, { twice: which });
        for (const { clock, errors } of [lost, twice]) {
          expect(clock.count).toBe(799);
          expect(Math.max(...errors.slice(48))).toBeLessThan(3);
        }
      }
    }
  });

  it('keeps its count in nearly all cases although it shakes so much that a lost clock is not known at once', () => {
    let wrong = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const random = normal(seed * 7);
      const odd = new Set(Array.from({ length: 10 }, (_, i) => 60 + i * 65 + (seed % 9)));
      const move = (at: number): number => at + 3000 * random();
      const which = (i: number): boolean => odd.has(i);
      for (const how of [{ skip: which }, { twice: which }]) {
        const off = Math.abs(shaken(same(800, 120), move, how).clock.count - 799);
        expect(off).toBeLessThanOrEqual(1);
        wrong += off;
      }
    }
    // Of 1,200 lost or doubled clocks. Who looks for none later has more than a hundred wrong.
    expect(wrong).toBeLessThan(12);
  });

  it('keeps its count in nearly all cases although clocks overtake each other', () => {
    let wrong = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const random = normal(seed * 77);
      wrong += Math.abs(shaken(same(2400, 180), (at) => at + 3000 * random()).clock.count - 2399);
    }
    // Of 96,000 clocks. One that seems to come twice is looked at again when the next has come, or there are more.
    expect(wrong).toBeLessThan(8);
  });

  it('goes half as fast from one clock to the next, and none was lost by that', () => {
    const { clock, errors } = shaken([...same(100, 140), ...same(100, 70)], (at) => at);
    expect(clock.count).toBe(199);
    expect(errors.at(-1)).toBeLessThan(0.01);
    expect(placeOf(clock)!.bpm).toBeCloseTo(70, 3);
  });

  it('begins anew after a silence', () => {
    const first = clocked(even(50, 120));
    const after = clocked(even(3, 90, first.heard + 400_000), first);
    expect(after.marks).toHaveLength(3);
    expect(placeOf(after)!.bpm).toBeCloseTo(90, 3);
  });
});
