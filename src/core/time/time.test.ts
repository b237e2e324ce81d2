import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barAt, barOfTick, barStart, buildBarMap, printedNumber } from './metre';
import { formatPosition, parsePosition, snap } from './positions';
import { buildTempoMap, secondsToTicks, tempoAt, ticksToSeconds, type TempoMark } from './tempo';
import { runs } from '../testing/runs';

const q = 960;
const ramp = (from: number, to: number, quarters: number) =>
  buildTempoMap([
    { at: 0, bpm: from, beat: 1, rampTo: to },
    { at: quarters * q, bpm: to, beat: 1 },
  ]);

describe('tempo map', () => {
  it.each([
    [96, 144, 12, 12, 6.081977],
    [96, 144, 12, 6, 3.347153],
    [132, 66, 7, 7, 4.410937],
  ])('ramps %i to %i over %i quarters: the first %i take %f s', (from, to, length, quarters, seconds) => {
    expect(ticksToSeconds(ramp(from, to, length), quarters * q)).toBeCloseTo(seconds, 6);
  });

  it('counts a dotted beat as one and a half quarters', () => {
    const map = buildTempoMap([{ at: 0, bpm: 84, beat: 1.5 }]);
    expect(tempoAt(map, 0)).toBe(126);
    expect(ticksToSeconds(map, 3 * q)).toBeCloseTo((2 * 60) / 84, 12);
  });

  it('steps after a ramp to any tempo, and runs steady before and after the marks', () => {
    const map = buildTempoMap([
      { at: 0, bpm: 132, beat: 1, rampTo: 66 },
      { at: 7 * q, bpm: 120, beat: 1 },
    ]);
    expect(tempoAt(map, 7 * q - 1)).toBeCloseTo(66, 1);
    expect(tempoAt(map, 7 * q)).toBe(120);
    expect(ticksToSeconds(map, 9 * q) - ticksToSeconds(map, 7 * q)).toBeCloseTo(1, 12);
    expect(ticksToSeconds(map, -q)).toBeCloseTo(-60 / 132, 12);
  });

  it('anchors at tick 0 when the first mark comes later', () => {
    const map = buildTempoMap([{ at: 2 * q, bpm: 60, beat: 1 }]);
    expect(ticksToSeconds(map, 0)).toBeCloseTo(0, 12);
    expect(ticksToSeconds(map, 2 * q)).toBeCloseTo(2, 12);
  });

  it('goes both ways to better than a microsecond over an hour', () => {
    const mark = fc.record({
      gap: fc.integer({ min: 1, max: 200000 }),
      bpm: fc.double({ min: 20, max: 400, noNaN: true }),
      beat: fc.constantFrom(0.5, 1, 1.5, 2),
      rampTo: fc.option(fc.double({ min: 20, max: 400, noNaN: true }), { nil: undefined }),
    });
    fc.assert(
      fc.property(
        fc.array(mark, { minLength: 1, maxLength: 12 }),
        fc.double({ min: -2, max: 3600, noNaN: true }),
        (list, t) => {
          let at = -list[0]!.gap;
          const marks: TempoMark[] = list.map((m) => ({
            at: (at += m.gap),
            bpm: m.bpm,
            beat: m.beat,
            rampTo: m.rampTo,
          }));
          const map = buildTempoMap(marks);
          expect(Math.abs(ticksToSeconds(map, secondsToTicks(map, t)) - t)).toBeLessThan(1e-6);
        },
      ),
      runs(11, 300),
    );
  });
});

describe('bars', () => {
  // A quarter's pickup, two bars of 7/8, then 5/4.
  const map = buildBarMap(
    [
      { bar: 1, beats: 7, unit: 8 },
      { bar: 3, beats: 5, unit: 4 },
    ],
    q,
  );

  it('finds bars before, at and after each line', () => {
    expect(barStart(map, 1)).toBe(q);
    expect(barStart(map, 3)).toBe(q + 2 * 7 * 480);
    expect(barStart(map, 4)).toBe(q + 2 * 7 * 480 + 5 * q);
    const line = barStart(map, 3);
    expect(barOfTick(map, line - 1).bar).toBe(2);
    expect(barOfTick(map, line).bar).toBe(3);
    expect(barOfTick(map, line + 1).bar).toBe(3);
    expect(barOfTick(map, 0).bar).toBe(0);
    expect(barOfTick(map, q).bar).toBe(1);
    expect(barOfTick(map, -1).bar).toBe(-1);
    expect(barAt(map, 0).length).toBe(q);
  });

  it('counts the pickup as the end of a full bar', () => {
    expect(formatPosition(map, 0, 10)).toBe('0|6');
    expect(parsePosition(map, '0|6', 10)).toEqual({ ok: true, ticks: 0 });
    expect(parsePosition(map, '0|2', 10)).toMatchObject({ ok: false, problem: { code: 'beat', from: 6, to: 7 } });
  });

  it('reads fractions of a beat', () => {
    const plain = buildBarMap([{ bar: 1, beats: 4, unit: 4 }]);
    const at = (text: string) => parsePosition(plain, text, 100);
    expect(at('17|3')).toEqual({ ok: true, ticks: 16 * 4 * q + 2 * q });
    expect(at('17|3.5')).toEqual({ ok: true, ticks: 16 * 4 * q + 2.5 * q });
    expect(at('17|3+1/3')).toMatchObject({ ok: true, ticks: 16 * 4 * q + 2 * q + 320 });
    expect(at('17|3|480')).toEqual({ ok: true, ticks: 16 * 4 * q + 2.5 * q });
    expect(at('17')).toEqual({ ok: true, ticks: 16 * 4 * q });
    expect(at('101')).toMatchObject({ ok: false, problem: { code: 'bar' } });
    expect(at('3|5')).toMatchObject({ ok: false, problem: { code: 'beat', to: 4 } });
    expect(at('3|1|960')).toMatchObject({ ok: false, problem: { code: 'tick' } });
    expect(at('3|1+1/0')).toMatchObject({ ok: false, problem: { code: 'form' } });
    expect(at('soon')).toMatchObject({ ok: false, problem: { code: 'form' } });
  });

  it('prints numbers that restart and skip', () => {
    const printed = buildBarMap([{ bar: 1, beats: 4, unit: 4 }], 0, [
      { bar: 9, number: 1 },
      { bar: 13, number: 20 },
    ]);
    expect([8, 9, 12, 13].map((b) => printedNumber(printed, b))).toEqual([8, 1, 4, 20]);
    expect(formatPosition(printed, barStart(printed, 10), 16)).toBe('2(2)|1');
    expect(parsePosition(printed, '2', 16)).toEqual({ ok: true, ticks: barStart(printed, 2) });
    expect(parsePosition(printed, '2(2)|1', 16)).toEqual({ ok: true, ticks: barStart(printed, 10) });
    // Bars 1 to 8, 1 to 4, 20 to 23: what is not printed is counted from the start.
    const bar = (text: string) => parsePosition(printed, text, 16);
    expect(bar('10')).toEqual({ ok: false, problem: { code: 'bar', number: 10, last: 23, meant: '2(2)' } });
    expect(bar('13|2')).toMatchObject({ problem: { number: 13, meant: '20' } });
    expect(bar('17')).toEqual({ ok: false, problem: { code: 'bar', number: 17, last: 23, meant: '' } });
    expect(parsePosition(printed, '2(3)', 16)).toMatchObject({ ok: false, problem: { code: 'time', times: 2 } });
  });

  it('writes positions that read back to the same tick', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            gap: fc.integer({ min: 1, max: 9 }),
            beats: fc.integer({ min: 1, max: 13 }),
            unit: fc.constantFrom(2, 4, 8, 16),
          }),
          { minLength: 1, maxLength: 8 },
        ),
        fc.integer({ min: 0, max: 1919 }),
        fc.integer({ min: 0, max: 200000 }),
        (list, pickup, tick) => {
          let bar = 0;
          const marks = list.map((m, i) => ({ bar: (bar = i === 0 ? 1 : bar + m.gap), beats: m.beats, unit: m.unit }));
          const first = (marks[0]!.beats * 3840) / marks[0]!.unit;
          const map = buildBarMap(marks, pickup % first, [{ bar: 5, number: 2 }]);
          const last = 5000;
          const read = parsePosition(map, formatPosition(map, tick, last), last);
          expect(read).toEqual({ ok: true, ticks: tick });
        },
      ),
      runs(5, 400),
    );
  });

  it('snaps to a grid that starts anew in each bar', () => {
    expect(snap(map, q + 490, 480)).toBe(q + 480);
    expect(snap(map, q + 3300, 960)).toBe(q + 7 * 480);
  });
});
