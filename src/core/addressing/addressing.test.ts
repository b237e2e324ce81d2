import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decodeMessage } from '../midi';
import { letterPlan } from '../testing/rigs';
import { linear, newController } from './builders';
import { decodeValue, encodeValue, encodingProblems, valueRange, type Encoding } from './encodings/registry';
import {
  addressOf,
  indexOfAddress,
  indexOfLabel,
  labelOf,
  planProblems,
  slotCount,
  slotMessages,
  type AddressPlan,
} from './plan';

const plan = (groups: AddressPlan['groups'], rest: Partial<AddressPlan> = {}): AddressPlan => ({
  groups,
  perBank: 128,
  bank: { send: 'msb', when: 'always' },
  table: null,
  ...rest,
});

const bankAndPosition = plan([
  {
    name: 'all',
    count: 384,
    readOnly: false,
    digits: [
      { kind: 'number', start: 1, count: 48, width: 2 },
      { kind: 'text', text: '-' },
      { kind: 'number', start: 1, count: 8, width: 1 },
    ],
  },
]);
const numberAndLetter = plan([
  {
    name: 'all',
    count: 128,
    readOnly: false,
    digits: [
      { kind: 'number', start: 1, count: 32, width: 2 },
      { kind: 'letter', from: 'A', count: 4 },
    ],
  },
]);
const threeDigits = plan([
  { name: 'all', count: 384, readOnly: false, digits: [{ kind: 'number', start: 0, count: 384, width: 3 }] },
]);

describe('address plan', () => {
  it.each([
    ['letters', letterPlan, 47, 'H6', 0, 47],
    ['letters', letterPlan, 119, 'T6', 0, 119],
    ['letters', letterPlan, 120, 'factory A1', 0, 120],
    ['letters', letterPlan, 131, 'factory B6', 1, 3],
    ['letters', letterPlan, 179, 'factory J6', 1, 51],
    ['bank and position', bankAndPosition, 90, '12-3', 0, 90],
    ['bank and position', bankAndPosition, 128, '17-1', 1, 0],
    ['bank and position', bankAndPosition, 383, '48-8', 2, 127],
    ['number and letter', numberAndLetter, 46, '12C', 0, 46],
    ['three digits', threeDigits, 300, '300', 2, 44],
  ])('%s: index %# is as written', (_, p, index, label, bank, program) => {
    expect(labelOf(p, index)).toBe(label);
    expect(indexOfLabel(p, label)).toBe(index);
    expect(addressOf(p, index)).toEqual({ bank, program });
    expect(indexOfAddress(p, { bank, program })).toBe(index);
  });

  it.each([letterPlan, bankAndPosition, numberAndLetter, threeDigits])(
    'goes label to index to messages to index unchanged for every slot of plan %#',
    (p) => {
      for (let index = 0; index < slotCount(p); index++) {
        expect(indexOfLabel(p, labelOf(p, index))).toBe(index);
        const messages = slotMessages(p, 5, index, null)!.map((m) => decodeMessage(m)!);
        const [select, program] = messages;
        if (select?.kind !== 'control' || program?.kind !== 'program') throw new Error('two messages expected');
        expect(indexOfAddress(p, { bank: select.value, program: program.program })).toBe(index);
      }
      expect(planProblems(p)).toEqual([]);
    },
  );

  it('reads labels as people type them', () => {
    expect(indexOfLabel(letterPlan, ' h6 ')).toBe(47);
    expect(indexOfLabel(letterPlan, 'Factory a1')).toBe(120);
    expect(indexOfLabel(bankAndPosition, '1-1')).toBe(0);
    expect(indexOfLabel(letterPlan, 'H7')).toBeUndefined();
    expect(indexOfLabel(letterPlan, 'U1')).toBeUndefined();
    expect(indexOfLabel(bankAndPosition, '')).toBeUndefined();
    expect(indexOfLabel(bankAndPosition, '12-3x')).toBeUndefined();
  });

  it('selects the bank always, or only when it differs', () => {
    const differs: AddressPlan = { ...bankAndPosition, bank: { send: 'both', when: 'differs' } };
    expect(slotMessages(differs, 1, 130, 1)).toEqual([[0xc0, 2]]);
    expect(slotMessages(differs, 1, 130, 0)).toEqual([
      [0xb0, 0, 0],
      [0xb0, 32, 1],
      [0xc0, 2],
    ]);
    expect(slotMessages(bankAndPosition, 1, 130, 1)).toHaveLength(2);
  });

  it('takes a table of the unit instead of arithmetic', () => {
    const p = plan(threeDigits.groups, {
      table: [
        { bank: 0, program: 5, index: 300 },
        { bank: 0, program: 6, index: 300 },
      ],
    });
    expect(slotMessages(p, 1, 300, 0)).toEqual([
      [0xb0, 0, 0],
      [0xc0, 5],
    ]);
    expect(indexOfAddress(p, { bank: 0, program: 6 })).toBe(300);
    expect(slotMessages(p, 1, 299, 0)).toBeUndefined();
  });

  it('finds what is wrong with a plan', () => {
    const same = plan([threeDigits.groups[0]!, threeDigits.groups[0]!]);
    expect(planProblems(same)).toMatchObject([{ code: 'same-label', label: '000', first: 0, second: 384 }]);
    const long = plan([{ ...threeDigits.groups[0]!, count: 400 }]);
    expect(planProblems(long)).toMatchObject([{ code: 'group-too-long', count: 400, room: 384 }]);
    const letters = plan([
      { name: 'x', count: 10, readOnly: false, digits: [{ kind: 'letter', from: 'T', count: 10 }] },
    ]);
    expect(planProblems(letters)).toMatchObject([{ code: 'letters-run-out' }]);
    const noBank = plan(threeDigits.groups, { bank: { send: 'none', when: 'always' } });
    expect(planProblems(noBank)).toMatchObject([{ code: 'bank-out-of-reach', slots: 384, reach: 128 }]);
    const table = plan(threeDigits.groups, {
      table: [
        { bank: 0, program: 5, index: 999 },
        { bank: 0, program: 5, index: 1 },
      ],
    });
    expect(planProblems(table)).toMatchObject([
      { code: 'table-index', row: 0 },
      { code: 'table-twice', row: 1 },
    ]);
  });
});

const scenes: Encoding = { kind: 'index', number: 85, base: 0, step: 1, count: 8 };
const drive: Encoding = { kind: 'set-switch', number: 50, on: 127, off: 0, onFrom: 64 };
const level: Encoding = {
  kind: 'continuous',
  number: 7,
  from: 0,
  to: 127,
  low: -60,
  high: 6,
  unit: 'dB',
  curve: 'linear',
  points: [],
};

describe('encodings', () => {
  it('counts variants from 0: the third is 2', () => {
    expect(encodeValue(scenes, 2, 2)).toEqual([[0xb1, 85, 2]]);
  });

  it('refuses values outside the range, and makes nothing of stray ones', () => {
    expect(() => encodeValue(scenes, 1, 8)).toThrow(RangeError);
    expect(() => encodeValue(drive, 1, 0.5)).toThrow(RangeError);
    expect(() => encodeValue(level, 1, 7)).toThrow(RangeError);
    expect(decodeValue(scenes, { kind: 'control', channel: 1, control: 85, value: 9 })).toBeUndefined();
    expect(decodeValue(scenes, { kind: 'control', channel: 1, control: 86, value: 1 })).toBeUndefined();
    const wide: Encoding = { ...scenes, step: 10 };
    expect(decodeValue(wide, { kind: 'control', channel: 1, control: 85, value: 25 })).toBeUndefined();
  });

  it('reads 64 and above as on, upside down where on is low', () => {
    const at = (e: Encoding, value: number) => decodeValue(e, { kind: 'control', channel: 1, control: 50, value });
    expect([0, 63, 64, 127].map((v) => at(drive, v))).toEqual([0, 0, 1, 1]);
    const bypass: Encoding = { ...drive, on: 0, off: 127 };
    expect([0, 63, 64, 127].map((v) => at(bypass, v))).toEqual([1, 1, 0, 0]);
  });

  it('inverts and bends continuous ranges', () => {
    const inverted: Encoding = { ...level, from: 127, to: 0 };
    expect(encodeValue(inverted, 1, 6)).toEqual([[0xb0, 7, 0]]);
    const log: Encoding = { ...level, low: 20, high: 2000, unit: 'ms', curve: 'logarithmic', points: [] };
    expect(encodeValue(log, 1, 200)).toEqual([[0xb0, 7, 64]]);
    expect(decodeValue(log, { kind: 'control', channel: 1, control: 7, value: 127 })).toBeCloseTo(2000, 9);
  });

  it('writes then reads every value of every kind', () => {
    const byte = fc.integer({ min: 0, max: 127 });
    const encoding: fc.Arbitrary<Encoding> = fc.oneof(
      fc
        .record({
          kind: fc.constant('index' as const),
          number: byte,
          base: byte,
          step: fc.integer({ min: 1, max: 9 }),
          count: fc.integer({ min: 1, max: 20 }),
        })
        .filter((e) => encodingProblems(e).every((f) => f.code === 'reserved-number')),
      fc.record({
        kind: fc.constant('set-switch' as const),
        number: byte,
        on: fc.integer({ min: 64, max: 127 }),
        off: fc.integer({ min: 0, max: 63 }),
        onFrom: fc.constant(64),
      }),
    );
    fc.assert(
      fc.property(encoding, fc.integer({ min: 1, max: 16 }), (e, channel) => {
        const { low, high } = valueRange(e);
        for (let value = low; value <= high; value++) {
          const [bytes] = encodeValue(e, channel, value);
          expect(decodeValue(e, decodeMessage(bytes!)!)).toBe(value);
        }
      }),
      { seed: 3 },
    );
  });

  it('brings continuous figures back to within half a step', () => {
    fc.assert(
      fc.property(fc.double({ min: -60, max: 6, noNaN: true }), (value) => {
        const back = decodeValue(level, decodeMessage(encodeValue(level, 1, value)[0]!)!) as number;
        expect(Math.abs(back - value)).toBeLessThanOrEqual(66 / 127 / 2 + 1e-9);
      }),
      { seed: 4 },
    );
  });

  it('names faulty encodings', () => {
    expect(encodingProblems({ ...scenes, number: 32 })).toMatchObject([{ code: 'reserved-number' }]);
    expect(encodingProblems({ ...scenes, base: 125 })).toMatchObject([{ code: 'past-127', last: 132 }]);
    expect(encodingProblems({ ...drive, off: 100 })).toMatchObject([{ code: 'on-is-off' }]);
    expect(encodingProblems({ ...level, curve: 'logarithmic', points: [] })).toMatchObject([
      { code: 'log-through-zero' },
    ]);
    expect(encodingProblems({ ...level, low: 6 })).toMatchObject([{ code: 'flat-range' }]);
  });
});

describe('a foot controller of what a unit sends', () => {
  it('has its switches in rows from the feet on, and its pedals beside them', () => {
    const sender = (id: string, encoding: Encoding) => ({ id, name: id, channel: 3, encoding });
    const press: Encoding = { kind: 'momentary', number: 80, press: 127, release: 0 };
    const senders = [
      ...['a', 'b', 'c', 'd', 'e', 'f'].map((id) => sender(id, press)),
      sender('pedal', linear(11, 0, 100, '%')),
    ];
    const controller = newController(senders)!;
    expect(controller.switches.map((s) => [s.id, s.row, s.column])).toEqual([
      ['a', 1, 0],
      ['b', 1, 1],
      ['c', 1, 2],
      ['d', 1, 3],
      ['e', 1, 4],
      ['f', 0, 0],
    ]);
    expect(controller.pedals).toEqual(['pedal']);
    expect(controller.call.channel).toBe(3);
    expect(newController([senders.at(-1)!])).toBeNull();
  });
});
