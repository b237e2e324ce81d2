import { describe, expect, it } from 'vitest';
import { CLOCK, CONTINUE, START, STOP, clockMessage, isForEveryUnit, songPosition } from './clockMessages';

describe('messages of a clock', () => {
  it('are read as the standard has them', () => {
    expect([CLOCK, START, CONTINUE, STOP].map((m) => clockMessage(m)?.kind)).toEqual([
      'clock',
      'start',
      'continue',
      'stop',
    ]);
    for (const other of [[0xf3, 4], [0xfe], [0xff], [0x90, 1, 2], []]) expect(clockMessage(other)).toBeNull();
  });

  it('count a position in sixteenths, the low seven bits first', () => {
    // Bar 20 of 4/4: 19 bars of 16 sixteenths are 304 = 48 + 2 x 128.
    expect(songPosition(304)).toEqual([0xf2, 48, 2]);
    expect(clockMessage([0xf2, 48, 2])).toEqual({ kind: 'position', tick: 19 * 4 * 960 });
    expect(songPosition(16_383)).toEqual([0xf2, 127, 127]);
    expect(songPosition(16_384)).toBeNull();
  });

  it('are for every unit, as all real-time messages are', () => {
    for (const bytes of [[0xf8], [0xfe], [0xff], [0xf2, 0, 0]]) expect(isForEveryUnit(bytes)).toBe(true);
    for (const bytes of [
      [0xf3, 1],
      [0xf0, 1, 0xf7],
      [0xc0, 1],
    ])
      expect(isForEveryUnit(bytes)).toBe(false);
  });
});
