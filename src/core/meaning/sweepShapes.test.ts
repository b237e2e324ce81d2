import { describe, expect, it } from 'vitest';
import { linear, newControl } from '../addressing';
import { dipOf, newSweep, type Sweep, type Unit } from '../show';
import { linePoints, reshaped, sweptOn } from './sweepShapes';
import { sweepValue } from './sweeps';
import { modelerProfile, testUnit } from '../testing/rigs';

const level = newControl('level', 'Level', linear(7, 0, 100, '%'));
const unit: Unit = testUnit('u', 1, modelerProfile);
const sweep = newSweep('s', unit, level, 960, 960 * 9);

describe('a sweep in another form', () => {
  it('stays in the range of its control, and is as long as before', () => {
    for (const form of ['dip', 'line', 'fall', 'sine', 'steps', 'triangle'] as const) {
      const made: Sweep = { ...sweep, shape: reshaped(sweep, level, form) };
      for (let at = made.from; at <= made.to; at += 97) {
        expect(sweepValue(made, at)).toBeGreaterThanOrEqual(0);
        expect(sweepValue(made, at)).toBeLessThanOrEqual(100);
      }
    }
  });

  it('drawn by points goes on as it was at its ends and its middle', () => {
    const made: Sweep = { ...sweep, shape: reshaped(sweep, level, 'line') };
    for (const share of [0, 0.5, 1]) {
      const at = sweep.from + share * (sweep.to - sweep.from);
      expect(sweepValue(made, at)).toBeCloseTo(sweepValue(sweep, at), 6);
    }
  });

  it('dips from where the control rests, down from a high rest and up from a low one', () => {
    expect(dipOf(reshaped(sweep, { ...level, rest: 90 }, 'dip'))).toEqual({ from: 90, to: 54, ramp: 960 });
    expect(dipOf(reshaped(sweep, { ...level, rest: 20 }, 'dip'))).toEqual({ from: 20, to: 52, ramp: 960 });
    expect(dipOf(reshaped(sweep, { ...level, rest: null }, 'dip'))!.from).toBe(100);
  });

  it('keeps its ends and its beat from wave to wave', () => {
    const wave = {
      ...sweep,
      shape: { kind: 'wave', form: 'sine', low: 20, high: 60, period: 1920, steps: 4 } as const,
    };
    expect(reshaped(wave, level, 'fall')).toEqual({ ...wave.shape, form: 'fall' });
  });

  it('of another control moves that from end to end', () => {
    const mix = newControl('mix', 'Mix', linear(8, -12, 12, 'dB'));
    const other = { ...sweep, switchId: 'x', ...sweptOn(sweep, { ...unit, id: 'v' }, mix) };
    expect(other).toMatchObject({ unitId: 'v', controlId: 'mix', switchId: null });
    expect([sweepValue(other, other.from), sweepValue(other, other.to)]).toEqual([-12, 12]);
  });
});

describe('points as somebody types them', () => {
  it('are pairs of beats and values, in order', () => {
    expect(linePoints('0 20, 4 80')).toEqual([
      { at: 0, value: 20 },
      { at: 3840, value: 80 },
    ]);
    expect(linePoints('0 20; 1.5 -3; 1.5 7')).toHaveLength(3);
    for (const text of ['', '0 20', '4 80, 0 20', '0 x, 1 2', '-1 2, 1 2', '0, 1'])
      expect(linePoints(text)).toBeUndefined();
  });
});
