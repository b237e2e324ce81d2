import { describe, expect, it } from 'vitest';
import { controlChange, noteOff, noteOn, programChange } from '../midi';
import { NOT_REACTED, react } from './reactions';
import { pressOf } from './press';

const values = (...list: readonly number[]) => list.map((v) => controlChange(1, 20, v));

describe('the press that is learnt', () => {
  it.each([
    ['pressed', [127], 127, 64, 127],
    ['pressed and released', [127, 0], 127, 64, 127],
    ['pressed twice', [127, 0, 127, 0], 127, 64, 127],
    ['held when it began', [0, 127, 0], 127, 64, 127],
    ['a low value', [1, 0], 1, 1, 127],
    ['the same low value each time', [5, 5], 5, 1, 127],
    ['the value 0 each time', [0, 0], 0, 0, 0],
    ['the other way round', [0, 127], 0, 0, 63],
    ['a pedal', [3, 40, 90, 120, 100, 2], 120, 64, 127],
  ])('is one control value, with the values that count: %s', (_, list, value, low, high) => {
    expect(pressOf(values(...list))).toMatchObject({ bytes: [0xb0, 20, value], low, high });
  });

  it('is the start of a note, a program, and of several the last that was moved', () => {
    expect(pressOf([noteOn(10, 36, 90), noteOff(10, 36)])).toMatchObject({ bytes: noteOn(10, 36, 90), low: 1 });
    expect(pressOf([noteOn(10, 36, 90), noteOn(10, 36, 0)])).toMatchObject({ bytes: noteOn(10, 36, 90) });
    expect(pressOf([noteOff(10, 36)])).toBeNull();
    expect(pressOf([programChange(2, 5)])).toMatchObject({ bytes: programChange(2, 5) });
    expect(pressOf([controlChange(1, 7, 9), ...values(127, 0)])).toMatchObject({ bytes: [0xb0, 20, 127] });
    expect(pressOf([[0xf8]])).toBeNull();
    expect(pressOf([])).toBeNull();
  });

  it('knows what the release sends', () => {
    expect(pressOf(values(127, 0))!.release).toEqual([0xb0, 20, 0]);
    expect(pressOf(values(127))!.release).toBeNull();
  });

  it.each([[[127, 0]], [[0, 127]], [[1, 0]], [[100, 0]]])(
    'is obeyed at every press, and at no release: %s',
    (cycle: readonly number[]) => {
      const { low, high } = pressOf(values(...cycle))!;
      const hears = { portId: null, kind: 'control', channel: 1, number: 20, low, high } as const;
      const does = { kind: 'session', act: 'next-change' } as const;
      const reactions = [{ id: 'r', name: '', on: true, songId: null, hears, swallow: true, does }];
      let reacting = NOT_REACTED;
      let acts = 0;
      for (let i = 0; i < 4; i++) {
        for (const bytes of values(...cycle)) {
          const step = react({ reactions }, reacting, { songId: null, at: 0 }, 'p', bytes);
          reacting = step.reacting;
          acts += step.steps.flatMap((s) => s.acts).length;
        }
        expect(acts).toBe(i + 1);
      }
    },
  );
});
