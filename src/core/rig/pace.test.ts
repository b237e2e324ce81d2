import { describe, expect, it } from 'vitest';
import { newProfile, plainPlan, timesFrom, exactly } from '../addressing';
import { acceptsAgainAfter, effectAfter, pacesOf } from './pace';

describe('the pace of a unit', () => {
  const plan = plainPlan(8, [{ kind: 'number', start: 1, count: 8, width: 1 }]);
  const profile = newProfile('Pedal', plan, {
    times: timesFrom({ recall: 180, variant: 12, control: 5, settle: 40 }, exactly),
  });

  const pace = pacesOf(profile).worst;

  it('is in microseconds what the map says in milliseconds', () => {
    expect(effectAfter({ pace }, 'recall')).toBe(180_000);
    expect(effectAfter({ pace }, 'variant')).toBe(12_000);
    expect(effectAfter({ pace }, 'control')).toBe(5000);
    expect(acceptsAgainAfter({ pace })).toBe(40_000);
  });
});
