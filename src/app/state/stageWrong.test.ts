import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { stageWrong } from './stageWrong';

describe('what is wrong on stage', () => {
  const show = demoShow();

  it('is first what is gone now, then what will not land', () => {
    expect(stageWrong(show, 'cracked', ['rack', 'lamps'])).toBe('Rack, Lamps: the real port is not there.');
    expect(stageWrong(show, 'cracked', [])).toMatch(/^Something in this song does not land/);
    expect(stageWrong(show, 'lit', ['gone'])).toBeNull();
    expect(stageWrong(show, 'hollow', [])).toBeNull();
  });
});
