import { describe, expect, it } from 'vitest';
import { decodeMessage, type Bytes } from '../midi';
import { decodeValue, encodeValue } from './encodings/registry';
import { learn } from './learn';

const heard = (...messages: Bytes[]) => learn(messages.map((m) => decodeMessage(m)!));

describe('learning', () => {
  it('takes a switch from two values, with the half between them as its threshold', () => {
    const learnt = heard([0xb4, 52, 127], [0xb4, 52, 0])!;
    expect(learnt).toEqual({
      channel: 5,
      encoding: { kind: 'set-switch', number: 52, on: 127, off: 0, onFrom: 64 },
      seen: [0, 127],
    });
    expect(heard([0xb0, 9, 3], [0xb0, 9, 8])!.encoding).toEqual({
      kind: 'set-switch',
      number: 9,
      on: 8,
      off: 3,
      onFrom: 6,
    });
  });

  it.each<[string, Bytes[], string]>([
    ['a pedal from its stroke', [0, 20, 40, 90, 127].map((v) => [0xb0, 11, v]), 'continuous'],
    ['a table from three values', [0, 43, 86].map((v) => [0xb0, 40, v]), 'table'],
    [
      'a tap from one value again and again',
      [
        [0xb0, 93, 127],
        [0xb0, 93, 127],
      ],
      'tap',
    ],
    ['one end of a switch from one message', [[0xb0, 93, 0]], 'set-switch'],
    [
      'a note',
      [
        [0x92, 60, 99],
        [0x82, 60, 0],
      ],
      'note',
    ],
    ['a program', [[0xc0, 40]], 'program'],
    [
      '14 bits from both halves',
      [
        [0xb0, 16, 40],
        [0xb0, 48, 7],
      ],
      'fourteen-bit',
    ],
    [
      'a parameter',
      [
        [0xb0, 99, 8],
        [0xb0, 98, 1],
        [0xb0, 6, 20],
      ],
      'nrpn',
    ],
    [
      'system exclusive',
      [
        [0xf0, 0x7d, 1, 5, 0xf7],
        [0xf0, 0x7d, 1, 9, 0xf7],
      ],
      'exclusive',
    ],
  ])('takes %s', (_, messages, kind) => {
    const learnt = heard(...messages)!;
    expect(learnt.encoding.kind).toBe(kind);
    const last = decodeMessage(messages.at(-1)!)!;
    const memory = new Map(messages.map((m) => [m[1]!, m[2]!]));
    // What was learnt understands what it was learnt from.
    expect(decodeValue(learnt.encoding, last, memory)).toBeDefined();
  });

  it('finds the byte of a system exclusive message that moves', () => {
    const { encoding } = heard([0xf0, 0x7d, 1, 5, 0xf7], [0xf0, 0x7d, 1, 9, 0xf7])!;
    expect(encoding).toMatchObject({ template: 'f0 7d 01 vv f7', high: 127 });
    expect(encodeValue(encoding, 1, 5)).toEqual([[0xf0, 0x7d, 1, 5, 0xf7]]);
    expect(heard([0xf0, 0x7d, 1, 0xf7])!.encoding).toMatchObject({ template: 'f0 7d 01 f7', high: 0 });
  });

  it('goes by what was moved last, and knows when there is nothing', () => {
    expect(heard([0xb0, 1, 0], [0xb0, 1, 127], [0xc3, 7])).toMatchObject({ channel: 4, encoding: { kind: 'program' } });
    expect(heard([0xf8])).toBeUndefined();
    expect(heard([0xe0, 0, 64])).toBeUndefined();
    expect(learn([])).toBeUndefined();
  });
});
