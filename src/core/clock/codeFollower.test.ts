import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { NO_CODE, codePlace, hearCode, runsBackwards, type FollowedCode } from './codeFollower';
import { CODE_RATES, codeMicros, frameMicros, fullFrame, labelOf, quarterFrames, type CodeRate } from './timeCode';
import type { Bytes } from '../midi';

interface Timed {
  readonly at: number;
  readonly bytes: Bytes;
}

/** Quarter frames of a code from a frame on, at clock times from `from` on. */
function coded(rate: CodeRate, first: number, count: number, from = 0, speed = 1): Timed[] {
  return Array.from({ length: count }, (_, i) => ({
    at: from + (i * frameMicros(rate)) / 4 / speed,
    bytes: quarterFrames(labelOf(first + Math.floor(i / 8) * 2, rate), rate)[i % 8]!,
  }));
}

const heard = (list: readonly Timed[], code: FollowedCode = NO_CODE): FollowedCode =>
  list.reduce((c, { at, bytes }) => hearCode(c, at, bytes)!, code);

/** How far the place of a code is off at a clock time, in milliseconds. */
function off(code: FollowedCode, rate: CodeRate, first: number, now: number, from = 0, speed = 1): number {
  const { place, at, speed: own } = codePlace(code)!;
  return (place + (now - at) * own - (first * frameMicros(rate) + (now - from) * speed)) / 1000;
}

/** Numbers from a seed, normally distributed with deviation 1. */
function normal(seed: number): () => number {
  let state = seed >>> 0;
  const even = (): number => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  return () => Array.from({ length: 12 }, even).reduce((a, b) => a + b, -6);
}

describe('time code from outside', () => {
  it.each(CODE_RATES)('at %s is known from its second label on, to a hundredth of a millisecond', (rate) => {
    const first = 90_000;
    expect(codePlace(heard(coded(rate, first, 15)))).toBeNull();
    for (const count of [24, 40, 400]) {
      const list = coded(rate, first, count);
      expect(Math.abs(off(heard(list), rate, first, list.at(-1)!.at + 300_000))).toBeLessThan(0.01);
    }
  });

  it('is known although it is caught amid a label', () => {
    const list = coded('25', 1000, 60).slice(5);
    expect(Math.abs(off(heard(list), '25', 1000, list.at(-1)!.at))).toBeLessThan(0.01);
  });

  it('is placed within 3 ms in 95 of 100 places where it shakes by 2 ms', () => {
    for (const rate of CODE_RATES) {
      const random = normal(rate.length + 7);
      let code = NO_CODE;
      let last = 0;
      const errors: number[] = [];
      for (const [i, { at, bytes }] of coded(rate, 5000, 2000).entries()) {
        last = Math.max(last + 1, at + 2000 * random());
        code = hearCode(code, last, bytes)!;
        if (i > 40) errors.push(Math.abs(off(code, rate, 5000, at + 100_000)));
      }
      errors.sort((a, b) => a - b);
      expect(errors[Math.floor(errors.length * 0.95)]).toBeLessThan(3);
      expect(errors.at(-1)).toBeLessThan(8);
    }
  });

  it('is followed at a speed that is 1 % off, and when the speed changes', () => {
    for (const speed of [0.99, 1.01]) {
      const list = coded('25', 2000, 600, 0, speed);
      const code = heard(list);
      expect(codePlace(code)!.speed).toBeCloseTo(speed, 4);
      expect(Math.abs(off(code, '25', 2000, list.at(-1)!.at + 300_000, 0, speed))).toBeLessThan(0.5);
    }
    const steady = coded('25', 2000, 400);
    const from = steady.at(-1)!.at + 10_000;
    const faster = coded('25', 2100, 400, from, 1.01);
    let code = heard(steady);
    for (const [i, { at, bytes }] of faster.entries()) {
      code = hearCode(code, at, bytes)!;
      if (i > 2) expect(Math.abs(off(code, '25', 2100, at, from, 1.01))).toBeLessThan(5);
    }
  });

  it('goes on through a drop-out of two seconds, and through pieces that are lost, come twice or overtake each other', () => {
    const all = coded('30', 4000, 1200);
    const gap = all.filter(({ at }) => at < 3e6 || at > 5e6);
    const lost = all.filter((_, i) => i % 37 !== 5);
    const twice = all.flatMap((m, i) => (i % 41 === 3 ? [m, { ...m, at: m.at + 300 }] : [m]));
    const swapped = all.map((m, i) =>
      i % 53 === 10 ? { ...all[i + 1]!, at: m.at } : i % 53 === 11 ? { ...all[i - 1]!, at: m.at } : m,
    );
    for (const list of [gap, lost, twice, swapped]) {
      let code = NO_CODE;
      for (const [i, { at, bytes }] of list.entries()) {
        code = hearCode(code, at, bytes)!;
        if (i > 40) expect(Math.abs(off(code, '30', 4000, at))).toBeLessThan(3);
      }
    }
  });

  it('jumps where two labels agree on another place, and for no single wrong one', () => {
    const before = coded('25', 2000, 200);
    const from = before.at(-1)!.at + 10_000;
    const jumped = heard(coded('25', 9000, 40, from), heard(before));
    expect(Math.abs(off(jumped, '25', 9000, from + 400_000, from))).toBeLessThan(0.5);
    // One nibble of the minutes is another one.
    const list = coded('25', 2000, 400).map((m, i) => (i === 204 ? { ...m, bytes: [0xf1, m.bytes[1]! ^ 4] } : m));
    let code = NO_CODE;
    for (const [i, { at, bytes }] of list.entries()) {
      code = hearCode(code, at, bytes)!;
      if (i > 40) expect(Math.abs(off(code, '25', 2000, at))).toBeLessThan(0.5);
    }
  });

  it('counts anew where the rate becomes another one', () => {
    const before = coded('25', 2000, 200);
    const from = before.at(-1)!.at + 10_000;
    const code = heard(coded('24', 8000, 60, from), heard(before));
    expect(code.rate).toBe('24');
    expect(Math.abs(off(code, '24', 8000, from + 500_000, from))).toBeLessThan(0.5);
  });

  it('stands where a full message says, and runs on from it', () => {
    const label = labelOf(90_000, '25');
    const stood = hearCode(heard(coded('25', 2000, 100)), 5e6, fullFrame(label, '25'))!;
    expect([stood.standing, codePlace(stood)]).toEqual([codeMicros(label, '25'), null]);
    const code = heard(coded('25', 90_000, 40, 6e6), stood);
    expect([code.standing, Math.round(codePlace(code)!.place / 1e6)]).toEqual([null, 3600]);
  });

  it('is no time to play by while it runs backwards or is wound', () => {
    const list = coded('25', 2000, 200);
    const backwards = list.toReversed().map((m, i) => ({ ...m, at: 3e6 + i * 10_000 }));
    const code = heard(backwards, heard(list));
    expect([runsBackwards(code), codePlace(code)]).toEqual([true, null]);
    const again = heard(coded('25', 3000, 40, 9e6), code);
    expect([runsBackwards(again), codePlace(again) !== null]).toEqual([false, true]);
    for (const speed of [4, 400, 0.4]) expect(codePlace(heard(coded('25', 2000, 600, 0, speed)))).toBeNull();
  });

  it('gives a place or none, whatever arrives when', () => {
    const byte = fc.integer({ min: 0, max: 127 });
    const message = fc.oneof(
      byte.map((b): Bytes => [0xf1, b]),
      fc.tuple(byte, byte, byte, byte).map((t): Bytes => [0xf0, 0x7f, 0x7f, 1, 1, ...t, 0xf7]),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: -2e5, max: 2e6 }), message), { maxLength: 120 }), (list) => {
        let [code, at] = [NO_CODE, 0];
        for (const [later, bytes] of list) {
          at += later;
          code = hearCode(code, at, bytes) ?? code;
          const is = codePlace(code);
          if (is) expect(Number.isFinite(is.place) && is.speed > 0.8 && is.speed < 1.2).toBe(true);
        }
      }),
      runs(503, 300),
    );
    expect(hearCode(NO_CODE, 0, [0x90, 1, 2])).toBeNull();
  });
});
