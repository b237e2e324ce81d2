import { describe, expect, it } from 'vitest';
import { slotCount } from '../../core/addressing';
import { libraryProfile } from '../../core/library';
import { letterPlan } from '../../core/testing/rigs';
import { slotNumber, slotOfNumber, variantNumber } from './numbers';

describe('numbers of slots', () => {
  it('are the running number, in the chosen counting', () => {
    expect(slotOfNumber(letterPlan, '73', 'one')).toBe(72);
    expect(slotOfNumber(letterPlan, '73', 'zero')).toBe(73);
    expect(slotOfNumber(letterPlan, 'H6', 'zero')).toBe(47);
    expect(slotOfNumber(letterPlan, 'h6', 'label')).toBe(47);
    expect(slotOfNumber(letterPlan, '0', 'one')).toBeUndefined();
    expect(slotOfNumber(letterPlan, '180', 'zero')).toBeUndefined();
    expect(slotOfNumber(letterPlan, '47', 'label')).toBeUndefined();
  });

  it('can be typed as they are shown, for every slot', () => {
    for (const counting of ['zero', 'one', 'label'] as const) {
      for (let index = 0; index < slotCount(letterPlan); index++) {
        expect(slotOfNumber(letterPlan, slotNumber(letterPlan, index, counting), counting)).toBe(index);
      }
    }
  });

  it('show the running number beside bank and program, beyond the first bank', () => {
    expect(slotNumber(letterPlan, 131, 'zero')).toBe('1·003 (131)');
    expect(slotNumber(letterPlan, 131, 'one')).toBe('2·004 (132)');
    expect(slotNumber(letterPlan, 47, 'one')).toBe('1·048');
  });
});

describe('numbers of presets and variants', () => {
  const letters = libraryProfile('letter-modeler').plan;
  const bass = libraryProfile('bass-processor').plan;

  it('count from 0, from 1, or as the unit labels them, and mean the same slot', () => {
    expect((['zero', 'one', 'label'] as const).map((c) => slotNumber(letters, 40, c))).toEqual([
      '0·040',
      '1·041',
      'G5',
    ]);
    expect((['zero', 'one', 'label'] as const).map((c) => slotNumber(letters, 131, c))).toEqual([
      '1·003 (131)',
      '2·004 (132)',
      'factory B6',
    ]);
    expect((['zero', 'one', 'label'] as const).map((c) => slotNumber(bass, 46, c))).toEqual(['046', '047', '12C']);
    expect(slotNumber({ ...bass, table: [] }, 46, 'zero')).toBe('no program');
  });

  it('count variants the same way', () => {
    const names = ['Dry', 'Body', 'Bite'];
    expect((['zero', 'one', 'label'] as const).map((c) => variantNumber(names, 2, c))).toEqual(['2', '3', 'Bite']);
    expect(variantNumber(names, 7, 'label')).toBe('8');
  });
});
