import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import {
  CODE_RATES,
  codeMessage,
  codeMicros,
  codeText,
  frameOf,
  fromPieces,
  fullFrame,
  labelFrames,
  labelOf,
  quarterFrames,
  readCode,
  type CodeLabel,
  type CodeRate,
} from './timeCode';

const label = (hours: number, minutes: number, seconds: number, frames: number): CodeLabel => ({
  hours,
  minutes,
  seconds,
  frames,
});
const rate = fc.constantFrom(...CODE_RATES);

describe('labels of time code', () => {
  it.each([
    ['24', 86_400],
    ['25', 90_000],
    ['29.97', 107_892],
    ['30', 108_000],
  ] as const)('at %s an hour has %i frames', (fps, frames) => {
    expect(frameOf(label(1, 0, 0, 0), fps)).toBe(frames);
  });

  it('leave out two a minute at 29.97, but for every tenth minute, and keep to the wall clock by that', () => {
    const next = (l: CodeLabel): string => codeText(labelOf(frameOf(l, '29.97') + 1, '29.97'), '29.97');
    expect(next(label(0, 0, 59, 29))).toBe('00:01:00;02');
    expect(next(label(0, 9, 59, 29))).toBe('00:10:00;00');
    expect(next(label(0, 1, 59, 29))).toBe('00:02:00;02');
    // An hour of labels is 3.6 ms off an hour.
    expect(codeMicros(label(1, 0, 0, 0), '29.97') / 1000).toBeCloseTo(3_599_996.4, 1);
    expect(codeMicros(label(10, 0, 0, 0), '25')).toBe(36_000_000_000);
  });

  it('are those of their frames, all through the day and round it', () => {
    fc.assert(
      fc.property(rate, fc.integer({ min: 0, max: 24 * 3600 * 24 - 1 }), (fps: CodeRate, frame) => {
        const read = labelOf(frame, fps);
        expect(frameOf(read, fps)).toBe(frame);
        expect(readCode(codeText(read, fps), fps)).toEqual(read);
        expect(read.frames).toBeLessThan(labelFrames(fps));
      }),
      runs(501, 500),
    );
    expect(labelOf(-1, '25')).toEqual(label(23, 59, 59, 24));
    expect(labelOf(24 * 3600 * 25, '25')).toEqual(label(0, 0, 0, 0));
  });

  it('are read as they are typed, and refused where there is no such frame', () => {
    expect(readCode('1:2:3', '25')).toEqual(label(1, 2, 3, 0));
    expect(readCode(' 01.00.00.12 ', '24')).toEqual(label(1, 0, 0, 12));
    expect(readCode('01:00:00;00', '29.97')).toEqual(label(1, 0, 0, 0));
    const none = ['', '1', '1:2', '24:00:00:00', '00:60:00:00', '00:00:60:00', '00:00:00:25', '1:2:3:4:5', '-1:0:0:0'];
    for (const text of none) expect(readCode(text, '25')).toBeNull();
    expect(readCode('00:01:00;01', '29.97')).toBeNull();
    expect(readCode('00:10:00;01', '29.97')).not.toBeNull();
  });
});

describe('messages of time code', () => {
  it('are as the standard has them', () => {
    // 01:37:52:16 at 30 frames a second.
    const bytes = quarterFrames(label(1, 37, 52, 16), '30');
    expect(bytes.map((b) => b[1]!.toString(16).padStart(2, '0'))).toEqual([
      '00',
      '11',
      '24',
      '33',
      '45',
      '52',
      '61',
      '76',
    ]);
    expect(bytes.every((b) => b[0] === 0xf1)).toBe(true);
    expect(fullFrame(label(1, 37, 52, 16), '30')).toEqual([0xf0, 0x7f, 0x7f, 1, 1, 0x61, 37, 52, 16, 0xf7]);
    expect(fullFrame(label(23, 0, 0, 0), '29.97')[5]).toBe(0x57);
  });

  it('give the label back that they were made of', () => {
    fc.assert(
      fc.property(rate, fc.integer({ min: 0, max: 24 * 3600 * 24 - 1 }), (fps: CodeRate, frame) => {
        const made = labelOf(frame, fps);
        const nibbles = quarterFrames(made, fps).map((b) => codeMessage(b));
        expect(nibbles.map((m) => m?.kind === 'piece' && m.piece)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
        const read = fromPieces(nibbles.map((m) => (m?.kind === 'piece' ? m.nibble : 0)));
        expect(read).toMatchObject({ label: made, rate: fps });
        expect(codeMessage(fullFrame(made, fps))).toEqual({ kind: 'full', label: made, rate: fps });
      }),
      runs(502, 300),
    );
  });

  it('are no other messages, and no labels that there are not', () => {
    for (const other of [[0xf1], [0xf2, 1, 2], [0xf8], [0xf0, 0x7f, 0x7f, 1, 2, 0, 0, 0, 0, 0xf7], []]) {
      expect(codeMessage(other)).toBeNull();
    }
    expect(codeMessage([0xf0, 0x7f, 0x7f, 1, 1, 0x3e, 0, 0, 0, 0xf7])).toBeNull();
    expect(codeMessage([0xf0, 0x7f, 0x7f, 1, 1, 0x20, 60, 0, 0, 0xf7])).toBeNull();
    expect(fromPieces([15, 1, 0, 0, 0, 0, 0, 0])).toBeNull();
  });
});
