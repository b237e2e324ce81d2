import { describe, expect, it } from 'vitest';
import { harmed, harmless, isMadeOf, madeOf } from './cells';

describe('what a spreadsheet makes of a text', () => {
  it.each([
    ['7', '007'],
    ['1000', '1E3'],
    ['1.00E+03', '1E3'],
    ['01.02.2026', '1.2'],
    ['0,5', '0.5'],
    ['1.5', '01.50'],
    ['1-Feb', '1/2'],
    ['02. Jan', '1/2'],
    ['01. Mär', '1.3'],
    ['1. März', '1.3.'],
    ['1-févr.', '1/2'],
    ['01/02/2026', '1-2'],
    ['2026-02-01', '1/2'],
    ['03/04/2026', 'Mar 4'],
    ['10:30:00 AM', '10:30'],
    ['12:30:00 AM', '0:30'],
    ['12:30:00 PM', '12:30'],
    ['01:02:00', '1:2'],
    ['TRUE', 'true'],
  ])('%s may have been %s', (cell, was) => {
    expect(isMadeOf(cell, was)).toBe(true);
  });

  it.each([
    ['7', '7'],
    ['70', '007'],
    ['1-Feb', '1/3'],
    ['Lead', 'Lead 2'],
    ['Lead 7', 'Lead 007'],
    ['Feb', 'February'],
    ['12', '1/2'],
    ['Marsh 4', 'Mars 4'],
    ['May 4', 'Mai 4'],
    ['4 Maybe', '4/5'],
    ['10:30:00 PM', '10:30'],
    ['1/2/3/4', '1/2'],
    ['01/02/2026', '1/2/3'],
    ['', '007'],
  ])('%s was not %s', (cell, was) => {
    expect(isMadeOf(cell, was)).toBe(false);
  });

  it('is told with all that can be meant', () => {
    const meant = madeOf(['007', '1/2', '2-1', '1E3', 'Lead']);
    expect(['7', '1-Feb', '1000', 'Lead', 'lead', '007', '8'].map(meant)).toEqual([
      ['007'],
      ['1/2', '2-1'],
      ['1E3'],
      [],
      [],
      [],
      [],
    ]);
    expect(madeOf(['7', '007'])('7')).toEqual([]);
    expect(madeOf([])('7')).toEqual([]);
  });

  it('takes no cell for a formula that is led by an apostrophe', () => {
    expect(harmless('=A1')).toBe("'=A1");
    expect(harmless('-7')).toBe('-7');
    expect(harmed(harmless('+3 dB'))).toBe('+3 dB');
  });
});
