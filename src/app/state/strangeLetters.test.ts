import { describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import { inScripts } from '../../core/testing/scripts';
import { strangeLetters, toldLetters } from './strangeLetters';

describe('letters that want a font', () => {
  it('are those of other scripts in all names of a show, each told once', () => {
    expect(strangeLetters(demoShow())).toEqual([]);
    expect(strangeLetters('Łódź, Ночь, Φάρος, Đêm hải – “€”')).toEqual([]);
    const show = inScripts(demoShow());
    const found = strangeLetters(show);
    expect(found.join('')).toMatch(/灯.*등.*ש.*أ.*प/su);
    expect(toldLetters(found)).toContain('灯');
    // What was looked through is not looked through again, and what was told is not told again.
    expect(strangeLetters(show)).toEqual([]);
    expect(strangeLetters({ title: '灯台 ∞' })).toEqual(['∞']);
  });
});
