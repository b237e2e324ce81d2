import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { stageWrong, type Troubles } from './stageWrong';

describe('what is wrong on stage', () => {
  const show = demoShow();
  const wrong = (mark: Parameters<typeof stageWrong>[1], troubles: Partial<Troubles> = {}): string | null =>
    stageWrong(show, mark, {
      lost: [],
      refusing: [],
      late: null,
      sound: null,
      codeLost: false,
      pair: null,
      forgets: false,
      ...troubles,
    });

  it('is first what is gone now, then what will not land', () => {
    const late = { count: 2, millis: 2700 };
    expect(wrong('cracked', { lost: ['rack', 'lamps'], refusing: ['harp'], late })).toBe(
      'Rack, Lamps: the real port is not connected.',
    );
    expect(wrong('cracked', { refusing: ['harp'], late })).toBe('Harp side: the real port takes no messages.');
    expect(wrong('lit', { late, sound: 'No sound.' })).toBe(
      '2 messages left late, the latest by 2.7 s: this page was busy.',
    );
    expect(wrong('lit', { late: { count: 1, millis: 41 } })).toBe('1 message left 41 ms late: this page was busy.');
    expect(wrong('cracked', { sound: 'No sound.' })).toBe('No sound.');
    expect(wrong('cracked')).toMatch(/^Something in this song does not land/);
    expect(wrong('lit', { lost: ['gone'] })).toBeNull();
    expect(wrong('cracked', { forgets: true })).toMatch(/^Something in this song/);
    expect(wrong('lit', { forgets: true })).toMatch(/^The browser stores nothing now/);
    expect(wrong('cracked', { codeLost: true, sound: 'No sound.' })).toMatch(/^Time code has stopped/);
    expect(wrong('hollow')).toBeNull();
  });
});
