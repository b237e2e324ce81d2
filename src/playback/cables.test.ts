import { plainPort } from '../core/testing/paced';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../core/demo';
import { rigSpec } from '../core/meaning';
import { DIN_BYTE_MICROS, programChange } from '../core/midi';
import { runs } from '../core/testing/runs';
import { Cables } from './cables';

const PORTS = [plainPort('din', 'din'), plainPort('usb', 'usb')] as const;

const cables = (): Cables => {
  const made = new Cables();
  made.follow({ ports: PORTS, units: [] });
  return made;
};
const PROGRAM = programChange(1, 5);

describe('a 5-pin cable', () => {
  it('carries one byte after the other, however many are sent at once', () => {
    const c = cables();
    expect([1, 2, 3].map(() => c.place('din', 1000, PROGRAM))).toEqual([1000, 1640, 2280]);
    expect([1, 2].map(() => c.place('usb', 1000, PROGRAM))).toEqual([1000, 1000]);
  });

  it('has room before what was handed over ahead of its time, but not within it', () => {
    const c = cables();
    const later = [100_000, 100_640].map((at) => c.place('din', at, PROGRAM));
    expect(later).toEqual([100_000, 100_640]);
    expect(c.place('din', 5000, PROGRAM)).toBe(5000);
    expect(c.place('din', 99_500, PROGRAM)).toBe(101_280);
    // Two that are three milliseconds apart or less belong together.
    c.place('din', 200_000, PROGRAM);
    c.place('din', 202_000, PROGRAM);
    expect(c.place('din', 200_700, PROGRAM)).toBe(202_640);
  });

  it('keeps the gaps behind a message that had to wait, as long as a unit may be loading', () => {
    const c = new Cables();
    const { ports, units } = rigSpec(demoShow());
    c.follow({ ports: [...ports, ...PORTS], units });
    c.place('din', 1000, PROGRAM);
    expect([c.place('din', 1000, PROGRAM), c.place('din', 41_000, PROGRAM)]).toEqual([1640, 41_640]);
    expect(c.place('din', 2_000_000, PROGRAM)).toBe(2_000_000);
  });

  it('never carries more than it can, and nothing leaves before it should', () => {
    const send = fc.record({ at: fc.integer({ min: 0, max: 300_000 }), length: fc.integer({ min: 1, max: 40 }) });
    fc.assert(
      fc.property(fc.array(send, { maxLength: 60 }), (sends) => {
        const c = cables();
        const taken = sends.map(({ at, length }) => {
          const from = c.place('din', at, Array<number>(length).fill(0));
          expect(from).toBeGreaterThanOrEqual(at);
          return { from, until: from + length * DIN_BYTE_MICROS };
        });
        taken.sort((a, b) => a.from - b.from);
        for (let i = 1; i < taken.length; i++) expect(taken[i]!.from).toBeGreaterThanOrEqual(taken[i - 1]!.until);
      }),
      runs(31250, 300),
    );
  });
});
