import { describe, expect, it } from 'vitest';
import { slotCount } from '../../core/addressing';
import { letterPlan } from '../../core/testing/rigs';
import { slotNumber, slotOfNumber } from './numbers';

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
