import { describe, expect, it } from 'vitest';
import { tapTempo } from './tapTempo';

describe('tapping a tempo', () => {
  it('is the mean of the intervals', () => {
    expect(tapTempo([0, 500, 1000, 1500])).toBe(120);
    expect(tapTempo([0, 490, 1010, 1500])).toBe(120);
    expect(tapTempo([0, 2000])).toBe(30);
  });

  it('begins anew after a pause, and needs two taps', () => {
    expect(tapTempo([0, 500, 9000, 9400, 9800])).toBe(150);
    expect(tapTempo([0, 500, 9000])).toBeUndefined();
    expect(tapTempo([7])).toBeUndefined();
    expect(tapTempo([])).toBeUndefined();
    expect(tapTempo([5, 5])).toBeUndefined();
  });
});
