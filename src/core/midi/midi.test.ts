import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromHex, toHex } from './hex';
import { channelOf, controlChange, dataLength, decodeMessage, programChange, type Bytes } from './messages';
import { StreamParser, wholeMessages } from './parser';
import { dinMicros } from './wire';
import { runs } from '../testing/runs';

function parse(stream: readonly number[]): Bytes[] {
  const found: Bytes[] = [];
  const parser = new StreamParser((m) => found.push(m));
  for (const byte of stream) parser.push(byte);
  return found;
}

describe('messages', () => {
  it('write channels 1-16 as 0-15', () => {
    expect(programChange(1, 47)).toEqual([0xc0, 47]);
    expect(controlChange(16, 85, 2)).toEqual([0xbf, 85, 2]);
    expect(channelOf([0xbf, 1, 2])).toBe(16);
    expect(channelOf([0xf8])).toBeUndefined();
  });

  it.each([
    [[0x80, 60, 1], { kind: 'note-off', channel: 1, note: 60, velocity: 1 }],
    [[0x91, 60, 0], { kind: 'note-on', channel: 2, note: 60, velocity: 0 }],
    [[0xa2, 60, 5], { kind: 'key-pressure', channel: 3, note: 60, value: 5 }],
    [[0xb3, 85, 2], { kind: 'control', channel: 4, control: 85, value: 2 }],
    [[0xc4, 47], { kind: 'program', channel: 5, program: 47 }],
    [[0xd5, 9], { kind: 'channel-pressure', channel: 6, value: 9 }],
    [[0xe6, 0, 64], { kind: 'pitch-bend', channel: 7, value: 8192 }],
    [[0xf0, 0x7d, 1, 0xf7], { kind: 'exclusive', bytes: [0xf0, 0x7d, 1, 0xf7] }],
    [[0xf2, 1, 2], { kind: 'system', bytes: [0xf2, 1, 2] }],
    [[0xf8], { kind: 'system', bytes: [0xf8] }],
  ])('decodes %j', (bytes, message) => {
    expect(decodeMessage(bytes)).toEqual(message);
  });

  it.each([
    [[]],
    [[5]],
    [[0xc0]],
    [[0xc0, 1, 2]],
    [[0xb0, 1]],
    [[0xb0, 128, 1]],
    [[0xf0, 1]],
    [[0xf0, 200, 0xf7]],
    [[0x190, 1, 1]],
  ])('makes nothing of %j', (bytes) => {
    expect(decodeMessage(bytes)).toBeUndefined();
  });

  it('know how many data bytes follow a status', () => {
    expect([0x90, 0xc0, 0xd0, 0xe0, 0xf0, 0xf1, 0xf2, 0xf3, 0xf6, 0xf8].map(dataLength)).toEqual([
      2, 1, 1, 2, -1, 1, 2, 1, 0, 0,
    ]);
  });
});

describe('cable', () => {
  it.each([
    ['a program change', [programChange(1, 5)], false, 640],
    ['a control change', [controlChange(1, 85, 2)], false, 960],
    ['bank and program', [controlChange(1, 0, 0), controlChange(1, 32, 0), programChange(1, 5)], false, 2560],
    [
      'bank and program with running status',
      [controlChange(1, 0, 0), controlChange(1, 32, 0), programChange(1, 5)],
      true,
      2240,
    ],
    [
      'controls with a clock between them, running',
      [controlChange(1, 1, 0), [0xf8], controlChange(1, 1, 1)],
      true,
      320 * 6,
    ],
    [
      'controls with an exclusive message between them',
      [controlChange(1, 1, 0), [0xf0, 0xf7], controlChange(1, 1, 1)],
      true,
      320 * 8,
    ],
  ])('%s takes %#', (_, messages, running, micros) => {
    expect(dinMicros(messages, running)).toBe(micros);
  });
});

describe('stream parser', () => {
  it('fills in running status', () => {
    expect(parse([0xb0, 1, 2, 3, 4, 0xc1, 5, 6])).toEqual([
      [0xb0, 1, 2],
      [0xb0, 3, 4],
      [0xc1, 5],
      [0xc1, 6],
    ]);
  });

  it('lets real-time bytes through anywhere, also inside messages', () => {
    expect(parse([0xb0, 0xf8, 1, 0xfe, 2])).toEqual([[0xf8], [0xfe], [0xb0, 1, 2]]);
    expect(parse([0xf0, 1, 0xf8, 2, 0xf7])).toEqual([[0xf8], [0xf0, 1, 2, 0xf7]]);
  });

  it('drops data without a status, and what a status cuts off', () => {
    expect(parse([5, 6, 0xc0, 1])).toEqual([[0xc0, 1]]);
    expect(parse([0xb0, 1, 0xc0, 7])).toEqual([[0xc0, 7]]);
    expect(parse([0xf0, 1, 2, 0xc0, 7])).toEqual([[0xc0, 7]]);
    expect(parse([0xf7, 0xf4, 1, 0xf5, 2])).toEqual([]);
  });

  it('ends running status at system common messages', () => {
    expect(parse([0xb0, 1, 2, 0xf3, 4, 5, 6])).toEqual([
      [0xb0, 1, 2],
      [0xf3, 4],
    ]);
    expect(parse([0xf2, 1, 2, 0xf6])).toEqual([[0xf2, 1, 2], [0xf6]]);
  });

  it('gives only whole messages, whatever comes', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(255), { maxLength: 200 }), (stream) => {
        for (const message of parse(stream)) expect(decodeMessage(message)).toBeDefined();
      }),
      runs(71, 500),
    );
  });

  it('tells whole messages from what is not just that', () => {
    expect(wholeMessages([0xb0, 7, 0, 0xc1, 5, 0xf0, 1, 0xf7])).toEqual([
      [0xb0, 7, 0],
      [0xc1, 5],
      [0xf0, 1, 0xf7],
    ]);
    expect(wholeMessages([])).toEqual([]);
    for (const no of [
      [7, 0],
      [0xb0, 7],
      [0xb0, 7, 0, 8, 0],
      [0xf0, 1],
      [0xb0, 7, 0xc0, 1],
    ]) {
      expect(wholeMessages(no)).toBeUndefined();
    }
  });

  it('reads back what was written one message after the other', () => {
    const message = fc.oneof(
      fc.tuple(fc.integer({ min: 0xc0, max: 0xdf }), fc.nat(127)).map((m): Bytes => m),
      fc.tuple(fc.integer({ min: 0x80, max: 0xbf }), fc.nat(127), fc.nat(127)).map((m): Bytes => m),
      fc.array(fc.nat(127)).map((d): Bytes => [0xf0, ...d, 0xf7]),
    );
    fc.assert(
      fc.property(fc.array(message), (messages) => {
        expect(parse(messages.flat())).toEqual(messages);
      }),
      { seed: 72 },
    );
  });
});

describe('hexadecimal', () => {
  it('goes both ways', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(255)), fc.boolean(), (bytes, spaced) => {
        expect(fromHex(toHex(bytes, spaced ? ' ' : ''))).toEqual(bytes);
      }),
      { seed: 73 },
    );
  });

  it('refuses what is not pairs of digits', () => {
    expect(fromHex('b05')).toBeUndefined();
    expect(fromHex('zz')).toBeUndefined();
    expect(fromHex('B0 55 02')).toEqual([0xb0, 0x55, 2]);
  });
});
