import { describe, expect, it } from 'vitest';
import { encodingOfKind, linear, newControl } from '../addressing';
import { demoShow } from '../demo';
import { modelerProfile, testUnit } from '../testing/rigs';
import { newPort } from './builders';
import {
  freeChannel,
  freeControlNumber,
  freeControlPair,
  freeHouseName,
  freeHouseNumber,
  freeInput,
  freeName,
} from './free';
import { RANGES, asTitle, figureIn, rangeWords } from './limits';
import type { Unit } from './schema';

describe('what is free', () => {
  it('is the first control number that nothing of a unit is on', () => {
    const controls = [20, 21, 23].map((n) => newControl(`c${n}`, `C${n}`, linear(n, 0, 127, '')));
    const unit = testUnit('u', 1, { ...modelerProfile, variants: null, controls });
    expect(freeControlNumber(unit)).toBe(22);
    const all = Array.from({ length: 76 }, (_, i) => newControl(`c${i}`, `C${i}`, linear(20 + i, 0, 127, '')));
    expect(freeControlNumber(testUnit('u', 1, { ...modelerProfile, variants: null, controls: all }))).toBe(20);
  });

  it('is the first pair of control numbers with both halves free', () => {
    const on = (id: string, number: number) => newControl(id, id, linear(number, 0, 127, ''));
    const unit = (numbers: readonly number[]) =>
      testUnit('u', 1, { ...modelerProfile, variants: null, controls: numbers.map((n) => on(`c${n}`, n)) });
    expect(freeControlPair(unit([]), null)).toBe(20);
    // The fine half of 21 is 53.
    expect(freeControlPair(unit([20, 53]), null)).toBe(22);
    expect(freeControlPair(unit([20, 53]), 'c20')).toBe(20);
    expect(freeControlPair(unit([20, 21, 22, 23, 24, 25, 26, 27, 28, 29, 30, 31, 35]), null)).toBe(9);
    const pair = { ...on('p', 20), encoding: encodingOfKind('fourteen-bit', linear(20, 0, 127, ''), 21) };
    const paired = testUnit('u', 1, { ...modelerProfile, variants: null, controls: [pair] });
    expect(freeControlPair(paired, null)).toBe(20);
    expect(freeControlNumber({ ...paired, profile: { ...paired.profile, controls: [pair, on('c20', 20)] } })).toBe(22);
  });

  it('is the port, or behind the last unit of the chain that hangs on it', () => {
    const port = newPort('p', 'Rack', 'din');
    const on = (id: string, input: Unit['input']) => testUnit(id, 1, modelerProfile, { input });
    const first = on('a', { from: 'port', portId: 'p' });
    const second = on('b', { from: 'unit', unitId: 'a', thru: true });
    const behind = (of: string) => ({ from: 'unit', unitId: of, thru: true });
    expect(freeInput({ ports: [port], units: [] }, 'p')).toEqual({ from: 'port', portId: 'p' });
    expect(freeInput({ ports: [port], units: [first] }, 'p')).toEqual(behind('a'));
    expect(freeInput({ ports: [port], units: [first, second] }, 'p')).toEqual(behind('b'));
    // What hangs on the out socket is no part of the chain; a splitter and USB take more cables.
    const told = on('c', { from: 'unit', unitId: 'a', thru: false });
    expect(freeInput({ ports: [port], units: [first, told] }, 'p')).toEqual(behind('a'));
    for (const wide of [{ ...port, splitter: true }, newPort('p', 'Rack', 'usb')])
      expect(freeInput({ ports: [wide], units: [first] }, 'p')).toEqual({ from: 'port', portId: 'p' });
    // A chain that bites its tail has an end all the same.
    const loop = on('a', { from: 'unit', unitId: 'b', thru: true });
    const fed = { ...first, id: 'x' };
    const tail = on('b', { from: 'unit', unitId: 'x', thru: true });
    expect(
      freeInput({ ports: [port], units: [fed, tail, loop, on('d', { from: 'unit', unitId: 'a', thru: true })] }, 'p'),
    ).toEqual(behind('d'));
  });

  it('is the first shared control number and name that the house has not', () => {
    const house = [{ id: 'a', name: 'Function 2', number: 20 }];
    expect(freeHouseNumber(house)).toBe(21);
    expect(freeHouseName(house)).toBe('Function 3');
    expect(freeHouseName([])).toBe('Function 1');
  });

  it('is the first channel that no unit is sent to on', () => {
    const { units } = demoShow();
    expect(units.map((u) => u.channel)).not.toContain(freeChannel({ units }));
    const every = Array.from({ length: 16 }, (_, i) => testUnit(`u${i}`, i + 1, modelerProfile));
    expect(freeChannel({ units: every })).toBe(1);
  });
});

describe('figures that are typed', () => {
  it('are taken with a point or a comma, within their range', () => {
    expect(figureIn(RANGES.bpm, ' 96,5 ')).toBe(96.5);
    expect(figureIn(RANGES.bpm, '19.9')).toBeUndefined();
    expect(figureIn(RANGES.shiftMillis, '-10000')).toBe(-10000);
    expect(figureIn(RANGES.preRollMillis, '0')).toBe(0);
    for (const text of ['', '  ', 'x', '1e99', '1.2.3', 'Infinity', 'NaN']) {
      expect(figureIn(RANGES.preRollMillis, text)).toBeUndefined();
    }
    expect(rangeWords(RANGES.gain)).toBe('-60 to 12');
  });

  it('and titles are cut to what they may have', () => {
    expect(asTitle('  Slack  ', 'Song')).toBe('Slack');
    expect(asTitle('   ', 'Song')).toBe('Song');
    expect(asTitle('x'.repeat(500), 'Song')).toHaveLength(120);
  });
});

describe('a name that is free', () => {
  it('is the name itself, or the first number behind it', () => {
    expect(freeName('Fog', ['Reed'])).toBe('Fog');
    expect(freeName('Fog', ['fog ', 'Fog 2'])).toBe('Fog 3');
    expect(freeName('x'.repeat(120), ['x'.repeat(120)])).toBe(`${'x'.repeat(118)} 2`);
  });
});
