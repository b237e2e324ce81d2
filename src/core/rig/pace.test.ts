import { describe, expect, it } from 'vitest';
import { newProfile, plainPlan } from '../addressing';
import { acceptsAgainAfter, effectAfter, paceOf } from './pace';

describe('the pace of a unit', () => {
  const plan = plainPlan(8, [{ kind: 'number', start: 1, count: 8, width: 1 }]);
  const profile = newProfile('Pedal', plan, { times: { recall: 180, variant: 12, control: 5, settle: 40 } });

  it('is in microseconds what the map says in milliseconds', () => {
    expect(effectAfter({ profile }, 'recall')).toBe(180_000);
    expect(effectAfter({ profile }, 'variant')).toBe(12_000);
    expect(effectAfter({ profile }, 'control')).toBe(5000);
    expect(acceptsAgainAfter({ profile })).toBe(40_000);
  });

  it('is reckoned once for a profile, and anew for one that was changed', () => {
    expect(paceOf(profile)).toBe(paceOf(profile));
    expect(paceOf({ ...profile, times: { ...profile.times, settle: 300 } }).settle).toBe(300_000);
  });
});
