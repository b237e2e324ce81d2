import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { INQUIRY, identityIn, identityReply, inquiredOf } from './inquiry';

const byte = fc.integer({ min: 0, max: 127 });
const hex = (count: number, first = byte) =>
  fc
    .tuple(first, ...Array.from({ length: count - 1 }, () => byte))
    .map((all) => all.map((b) => b.toString(16).padStart(2, '0').toUpperCase()).join(''));
const identity = fc.record({
  maker: fc.oneof(hex(1, fc.integer({ min: 1, max: 127 })), hex(3, fc.constant(0))),
  family: hex(2),
  member: hex(2),
  version: hex(4),
});

describe('the device inquiry', () => {
  it('is for all, or for one device', () => {
    expect(inquiredOf(INQUIRY)).toBe(127);
    expect(inquiredOf([0xf0, 0x7e, 3, 6, 1, 0xf7])).toBe(3);
    for (const other of [[0xf0, 0x7e, 3, 6, 2, 0xf7], [0xf0, 0x7f, 3, 6, 1, 0xf7], INQUIRY.slice(0, 5), [0xf8]]) {
      expect(inquiredOf(other)).toBeNull();
    }
  });

  it('is answered with what is read back: makers of one byte and of three', () => {
    fc.assert(
      fc.property(identity, byte, (who, device) => {
        expect(identityIn(identityReply(device, who))).toEqual(who);
      }),
      runs(76, 200),
    );
    expect(identityReply(0, { maker: '7D', family: '0100', member: '0200', version: '01040000' })).toEqual([
      0xf0, 0x7e, 0, 6, 2, 0x7d, 1, 0, 2, 0, 1, 4, 0, 0, 0xf7,
    ]);
  });

  it('never takes anything else for an answer', () => {
    const cut = fc.tuple(identity, fc.nat(20)).map(([who, n]) => identityReply(1, who).slice(0, n));
    fc.assert(
      fc.property(fc.oneof(cut, fc.array(fc.nat(255), { maxLength: 20 })), (bytes) => {
        const read = identityIn(bytes);
        if (read) expect(identityReply(bytes[2]!, read)).toEqual(bytes);
      }),
      runs(77, 300),
    );
  });
});
