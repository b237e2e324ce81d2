import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import { placeables } from './placeables';

const show = demoShow();
const names = (text: string) => placeables(show, text).map((p) => p.name);

describe('what can be placed', () => {
  it('is found by a part of its name, what begins with it first', () => {
    expect(names('fog')[0]).toBe('Fog Lead');
    expect(names('echo')).toContain('Ledger Echo');
    expect(names('four')).toEqual(['Four taps']);
    expect(names('nothing like that')).toEqual([]);
    expect(placeables(show, '').length).toBeLessThanOrEqual(40);
  });

  it('may be a control with its value', () => {
    const first = (text: string) => placeables(show, text)[0]?.action;
    expect(first('tarn mix 40')).toEqual({ kind: 'control', unitId: 'tarn', controlId: 'mix', value: 40 });
    expect(first('harmony on')).toEqual({ kind: 'control', unitId: 'harrow', controlId: 'active', value: 1 });
    expect(first('interval fif')).toMatchObject({ controlId: 'interval', value: 3 });
    expect(first('tarn mix 400')).toBeUndefined();
    expect(first('tarn mix loud')).toBeUndefined();
  });
});
