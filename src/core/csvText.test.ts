import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { harmed, harmless } from './cells';
import { csvText } from './csvText';
import { runs } from './testing/runs';

describe('a table as text', () => {
  it.each([
    ['=1+1', "'=1+1"],
    ['+1+cmd', "'+1+cmd"],
    ['-1+2', "'-1+2"],
    ['@sum(a1)', "'@sum(a1)"],
    ['\t=1', "'\t=1"],
    ['\r=1', "'\r=1"],
    ["'=1", "''=1"],
    ['-12.5', '-12.5'],
    ['+3', '+3'],
    ['- Still Water', "'- Still Water"],
    ['H6', 'H6'],
    ['', ''],
  ])('has no cell that a spreadsheet takes for a formula: %j', (cell, written) => {
    expect(harmless(cell)).toBe(written);
    expect(harmed(written)).toBe(cell);
    const [head, line] = Papa.parse<string[]>(
      csvText([
        [cell, 'x'],
        ['y', cell],
      ]),
    ).data;
    expect([head![0], line![1]]).toEqual([written, written]);
  });

  it('gives every cell back', () => {
    const cell = fc.string({
      unit: fc.constantFrom('=', '+', '-', '@', "'", '\t', '\r', '1', 'a', '.', ' ', '"', ','),
    });
    fc.assert(
      fc.property(cell, (text) => {
        expect(harmed(harmless(text))).toBe(text);
      }),
      runs(4021, 2000),
    );
  });
});
