import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeMessage, type Bytes } from '../midi';
import { HEARD, type Decoded } from './encodings/encoding';
import { checksumOf } from './encodings/exclusiveEncoding';
import {
  decodeValue,
  encodeValue,
  encodingClaims,
  encodingProblems,
  encodingKinds,
  encodingSchema,
  fitsRange,
  isContinuous,
  keepsOf,
  sameOnTheWire,
  valueRange,
  type Encoding,
} from './encodings/registry';
import { encodingOfKind } from './builders';
import { remember } from '../rig';
import { runs } from '../testing/runs';

const scale = { unit: 'ms', curve: 'linear', points: [] } as const;
const wide = { from: 0, to: 16383, low: 0, high: 1000, ...scale } as const;

const one: { readonly [K in Encoding['kind']]: Extract<Encoding, { kind: K }> } = {
  index: { kind: 'index', number: 85, base: 10, step: 5, count: 8 },
  zones: { kind: 'zones', number: 31, count: 3 },
  table: { kind: 'table', number: 35, values: [0, 40, 100] },
  'set-switch': { kind: 'set-switch', number: 50, on: 127, off: 0, onFrom: 64 },
  flip: { kind: 'flip', number: 72, send: 127, only: null },
  momentary: { kind: 'momentary', number: 42, press: 127, release: 0 },
  tap: { kind: 'tap', number: 93, values: [127, 0] },
  continuous: { kind: 'continuous', number: 7, from: 0, to: 127, low: 0, high: 100, ...scale },
  'fourteen-bit': { kind: 'fourteen-bit', number: 16, ...wide },
  nrpn: { kind: 'nrpn', number: 1025, fine: true, ...wide },
  note: { kind: 'note', first: 60, count: 6, velocity: 100 },
  'note-table': { kind: 'note-table', values: [0, 2, 4, 7, 14, 16], velocity: 64 },
  program: { kind: 'program', first: 120, count: 4 },
  'program-table': { kind: 'program-table', values: [99, 3, 57] },
  exclusive: {
    kind: 'exclusive',
    template: 'F0 7D 22 01 vv ss F7',
    low: 0,
    high: 100,
    checksum: { kind: 'sum', from: 2, to: 4 },
  },
};

/** What a receiver makes of several messages in a row. */
function receive(e: Encoding, messages: readonly Bytes[]): Decoded[] {
  const memory = new Map<number, number>();
  return messages.map((bytes) => {
    const message = decodeMessage(bytes)!;
    const made = decodeValue(e, message, memory);
    remember(memory, message);
    return made;
  });
}

const control = (number: number, ...values: number[]): Bytes[] => values.map((v) => [0xb0, number, v]);

describe('every kind of encoding', () => {
  it('is in the registry once, with a sound example here', () => {
    expect(Object.keys(one).sort()).toEqual([...encodingKinds].sort());
    for (const e of Object.values(one)) {
      expect(encodingSchema.safeParse(e).success).toBe(true);
      expect(encodingProblems(e)).toEqual([]);
    }
  });

  it.each(Object.values(one).filter((e) => e.kind !== 'flip' && e.kind !== 'tap'))(
    'gives back what went in: $kind',
    (e) => {
      const { low, high, step } = valueRange(e);
      fc.assert(
        fc.property(fc.integer({ min: 0, max: 1000 }), fc.integer({ min: 1, max: 16 }), (share, channel) => {
          const value = step === 0 ? low + ((high - low) * share) / 1000 : low + (share % (high - low + 1));
          const made = receive(e, encodeValue(e, channel, value)).filter((d) => typeof d === 'number');
          // A figure comes back as near as its steps on the wire are fine.
          const grain = step === 0 ? ((high - low) / (e.kind === 'continuous' ? 127 : 16383)) * 0.51 : 0;
          expect(Math.abs((made.at(-1) as number) - value)).toBeLessThanOrEqual(grain);
        }),
        runs(71, 60),
      );
      for (const bad of [low - 1, high + 1, Number.NaN]) expect(() => encodeValue(e, 1, bad)).toThrow(RangeError);
    },
  );

  it('says which numbers it takes, and whether it may be swept', () => {
    expect(encodingClaims(one['fourteen-bit'])).toEqual([
      { on: 'control', number: 16 },
      { on: 'control', number: 48 },
    ]);
    expect(encodingClaims(one.nrpn)).toEqual([{ on: 'nrpn', number: 1025 }]);
    expect(encodingClaims(one.note).map((c) => c.number)).toEqual([60, 61, 62, 63, 64, 65]);
    expect(encodingClaims(one.exclusive)).toEqual([]);
    expect(encodingKinds.filter((k) => isContinuous(one[k]))).toEqual(['continuous', 'fourteen-bit', 'nrpn']);
    expect(encodingKinds.filter((k) => keepsOf(one[k]) !== 'value')).toEqual(['flip', 'tap']);
  });
});

describe('zones', () => {
  it('are sent as their middle: three, five', () => {
    const sent = (count: number) =>
      Array.from({ length: count }, (_, i) => encodeValue({ kind: 'zones', number: 31, count }, 1, i)[0]![2]);
    expect(sent(3)).toEqual([21, 64, 106]);
    expect(sent(5)).toEqual([12, 38, 64, 89, 115]);
  });

  it('take every value as the zone that it lies in', () => {
    expect(receive(one.zones, control(31, 0, 42, 43, 85, 86, 127))).toEqual([0, 0, 1, 1, 2, 2]);
  });
});

describe('lists and tables', () => {
  it('send base and step, and make nothing of what lies between', () => {
    expect(encodeValue(one.index, 1, 2)).toEqual([[0xb0, 85, 20]]);
    expect(receive(one.index, control(85, 20, 21, 50))).toEqual([2, undefined, undefined]);
    expect(receive(one.table, control(35, 40, 41))).toEqual([1, undefined]);
  });
});

describe('switches', () => {
  it('that flip send the same for on and off, and count any value, or one', () => {
    expect(encodeValue(one.flip, 1, 0)).toEqual(encodeValue(one.flip, 1, 1));
    expect(sameOnTheWire(one.flip, 0, 1)).toBe(false);
    expect(receive(one.flip, control(72, 0, 5, 127))).toEqual([1, 1, 1]);
    expect(receive({ ...one.flip, only: 127 }, control(72, 0, 127))).toEqual([undefined, 1]);
  });

  it('that are held have a value for press and for release; stray ones count as the nearer', () => {
    expect(encodeValue(one.momentary, 1, 1)).toEqual([[0xb0, 42, 127]]);
    expect(encodeValue(one.momentary, 1, 0)).toEqual([[0xb0, 42, 0]]);
    expect(receive(one.momentary, control(42, 127, 100, 10, 0))).toEqual([1, 1, 0, 0]);
  });
});

describe('taps', () => {
  it('send one value, or two in turn; any value is a tap', () => {
    expect([0, 1, 2].map((i) => encodeValue(one.tap, 1, i)[0]![2])).toEqual([127, 0, 127]);
    expect(encodeValue({ ...one.tap, values: [64] }, 1, 3)[0]![2]).toBe(64);
    expect(receive(one.tap, control(93, 1, 99))).toEqual([1, 1]);
  });
});

describe('scales', () => {
  it('run over a table of figures', () => {
    const cut: Encoding = { ...one.continuous, low: 20, high: 400, curve: 'table', points: [20, 40, 80, 150, 400] };
    expect(encodingProblems(cut)).toEqual([]);
    expect(encodeValue(cut, 1, 80)).toEqual([[0xb0, 7, 64]]);
    expect(receive(cut, control(7, 0, 127))).toEqual([20, 400]);
    expect(receive(cut, control(7, 32))[0]).toBeCloseTo(40.3, 1);
    const falling: Encoding = { ...one.continuous, low: 400, high: 20, curve: 'table', points: [400, 80, 20] };
    expect(encodeValue(falling, 1, 240)).toEqual([[0xb0, 7, 32]]);
    expect(encodingProblems({ ...cut, points: [20, 90, 80, 400] })).toMatchObject([{ code: 'table-points' }]);
    expect(encodingProblems({ ...cut, points: [20, 300] })).toMatchObject([{ code: 'table-points' }]);
  });

  it('take a value outside as the nearer end', () => {
    const part: Encoding = { ...one.continuous, from: 20, to: 100 };
    expect(receive(part, control(7, 0, 127))).toEqual([0, 100]);
  });
});

describe('14-bit controls', () => {
  it('send the upper half on n, the lower on n + 32', () => {
    const e: Encoding = { ...one['fourteen-bit'], high: 16383 };
    expect(encodeValue(e, 1, 300)).toEqual([
      [0xb0, 16, 2],
      [0xb0, 48, 44],
    ]);
    expect(receive(e, [...control(16, 2), ...control(48, 44, 45)])).toEqual([256, 300, 301]);
    // The fine half alone, of a unit that never heard the coarse one.
    expect(receive(e, control(48, 44))).toEqual([44]);
  });
});

describe('NRPN', () => {
  const e: Encoding = { ...one.nrpn, high: 16383 };

  it('selects the parameter, then sends its value', () => {
    expect(encodeValue(e, 1, 300)).toEqual([
      [0xb0, 99, 8],
      [0xb0, 98, 1],
      [0xb0, 6, 2],
      [0xb0, 38, 44],
    ]);
    expect(encodeValue({ ...e, fine: false, to: 127, high: 127 }, 1, 90).slice(2)).toEqual([[0xb0, 6, 90]]);
  });

  it('hears only what is meant for it', () => {
    expect(receive(e, encodeValue(e, 1, 300))).toEqual([HEARD, HEARD, 256, 300]);
    expect(receive(e, encodeValue({ ...e, number: 1026 }, 1, 300))).toEqual([HEARD, undefined, undefined, undefined]);
    // A registered parameter takes the selection over.
    const other = [...encodeValue(e, 1, 300), ...control(101, 0), ...control(100, 0), ...control(6, 9)];
    expect(receive(e, other).at(-1)).toBeUndefined();
  });
});

describe('notes and programs', () => {
  it('strike the note and let it go; the release changes nothing', () => {
    expect(encodeValue(one.note, 3, 2)).toEqual([
      [0x92, 62, 100],
      [0x82, 62, 64],
    ]);
    expect(receive(one.note, [...encodeValue(one.note, 1, 2), [0x90, 61, 0], [0x90, 70, 9]])).toEqual([
      2,
      HEARD,
      HEARD,
      undefined,
    ]);
  });

  it('need not follow each other', () => {
    expect(encodeValue(one['note-table'], 1, 4)).toEqual([
      [0x90, 14, 64],
      [0x80, 14, 64],
    ]);
    expect(
      receive(one['note-table'], [
        [0x90, 7, 1],
        [0x80, 7, 0],
        [0x90, 1, 1],
      ]),
    ).toEqual([3, HEARD, undefined]);
    expect(encodeValue(one['program-table'], 1, 0)).toEqual([[0xc0, 99]]);
    expect(
      receive(one['program-table'], [
        [0xc0, 57],
        [0xc0, 58],
      ]),
    ).toEqual([2, undefined]);
    expect(encodingProblems({ ...one['note-table'], values: [1, 2, 1] })).toEqual([{ code: 'same-value', value: 1 }]);
  });

  it('call an option by its program', () => {
    expect(encodeValue(one.program, 1, 3)).toEqual([[0xc0, 123]]);
    expect(receive(one.program, [[0xc0, 119]])).toEqual([undefined]);
  });
});

describe('system exclusive', () => {
  it('puts the value and the checksum into the template', () => {
    expect(encodeValue(one.exclusive, 1, 80)).toEqual([[0xf0, 0x7d, 0x22, 1, 80, 13, 0xf7]]);
    expect(checksumOf('sum', [0x22, 1, 80])).toBe(13);
    expect(checksumOf('sum', [64, 64])).toBe(0);
    expect(checksumOf('xor', [0x22, 1, 80])).toBe(0x22 ^ 1 ^ 80);
    const wide14: Encoding = { ...one.exclusive, template: 'f07d hh ll f7', high: 16383, checksum: null };
    expect(encodeValue(wide14, 1, 300)).toEqual([[0xf0, 0x7d, 2, 44, 0xf7]]);
  });

  it('is worthless with a wrong checksum, a wrong byte, or a value outside', () => {
    const [good] = encodeValue(one.exclusive, 1, 80);
    expect(receive(one.exclusive, [good!])).toEqual([80]);
    expect(receive(one.exclusive, [good!.with(5, 14)])).toEqual([undefined]);
    expect(receive(one.exclusive, [good!.with(1, 9)])).toEqual([undefined]);
    expect(receive({ ...one.exclusive, high: 79 }, [good!])).toEqual([undefined]);
  });

  it('says what is wrong with a template', () => {
    const problem = (change: object) => encodingProblems({ ...one.exclusive, ...change }).map((f) => f.code);
    expect(problem({ template: 'F0 80 ss F7' })).toEqual(['template']);
    expect(problem({ template: '7D vv ss' })).toEqual(['template']);
    expect(problem({ template: 'F0 7D vv ss F' })).toEqual(['template']);
    expect(problem({ template: 'F0 7D vv F7' })).toEqual(['template']);
    expect(problem({ high: 200 })).toEqual(['template-value']);
    expect(problem({ checksum: { kind: 'xor', from: 2, to: 9 } })).toEqual(['checksum-range']);
    expect(() => encodeValue({ ...one.exclusive, template: 'F0 zz F7' }, 1, 1)).toThrow(RangeError);
  });
});

describe('problems', () => {
  it('are named', () => {
    expect(encodingProblems({ ...one.note, first: 125 })).toMatchObject([{ code: 'past-127', last: 130 }]);
    expect(encodingProblems({ ...one.momentary, press: 0 })).toMatchObject([{ code: 'on-is-off' }]);
    expect(encodingProblems({ ...one.table, values: [1, 2, 1] })).toMatchObject([{ code: 'same-value', value: 1 }]);
    expect(encodingProblems({ ...one.nrpn, fine: false })).toMatchObject([{ code: 'past-127', last: 16383 }]);
    expect(encodingProblems({ ...one.zones, number: 6 })).toMatchObject([{ code: 'reserved-number', number: 6 }]);
    expect(encodingProblems({ ...one['fourteen-bit'], number: 6 })).toHaveLength(2);
    expect(fitsRange(one.zones, 3)).toBe(false);
    expect(fitsRange(one.zones, 1.5)).toBe(false);
    expect(fitsRange(one.continuous, 99.5)).toBe(true);
  });
});

describe('another kind of encoding', () => {
  it('keeps the number and is sound, from every kind to every kind', () => {
    const start: Encoding = { kind: 'index', number: 31, base: 0, step: 2, count: 5 };
    for (const a of encodingKinds) {
      for (const b of encodingKinds) {
        const next = encodingOfKind(b, encodingOfKind(a, start));
        expect(next.kind).toBe(b);
        expect(encodingSchema.safeParse(next).success).toBe(true);
        expect(encodingProblems(next)).toEqual([]);
      }
    }
    expect(encodingOfKind('zones', start)).toEqual({ kind: 'zones', number: 31, count: 5 });
    expect(encodingOfKind('index', start)).toBe(start);
  });
});
