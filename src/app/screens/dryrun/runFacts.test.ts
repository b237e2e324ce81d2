import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import type { Verdict } from '../../../core/simulate';
import { cueName, offsetText, placeOf, spanText, tickOf } from './runFacts';

const show = demoShow();
const song = show.songs[0]!;
const verdict = (offset: number | null): Verdict => ({
  cueId: 'c',
  unitId: 'u',
  due: 0,
  offset,
  outcome: offset === null ? 'never' : 'on-time',
  reason: { kind: 'as-wanted' },
});

describe('what the dry run says', () => {
  it('names what a change belongs to', () => {
    expect(cueName(show, song, 'opening')).toBe('Opening: Still Water');
    expect(cueName(show, song, song.cues[0]!.id)).toBe('Harbour Clean');
    expect(cueName(show, song, song.taps[0]!.id)).toBe('Tempo taps');
    const swept = show.songs.find((s) => s.sweeps.length > 0)!;
    expect(cueName(show, swept, swept.sweeps[0]!.id)).toMatch(/ to /);
    expect(cueName(show, song, 'gone')).toBe('a change that is gone');
  });

  it('says how far from the beat', () => {
    expect(offsetText(verdict(81_640))).toBe('+81.6 ms');
    expect(offsetText(verdict(-420))).toBe('−0.4 ms');
    expect(offsetText(verdict(212_300))).toBe('+212 ms');
    expect(offsetText(verdict(-30))).toBe('on the beat');
    expect(offsetText(verdict(null))).toBe('never');
  });

  it('finds the place, also of what is due before the song or after it', () => {
    expect(placeOf(song, 0)).toBe('1|1');
    expect(tickOf(song, -5e6)).toBe(0);
    expect(placeOf(song, 1e12)).toMatch(/^44\|/);
  });

  it('writes what a unit is on in its own writing', () => {
    const { profile } = show.units.find((u) => u.id === 'quillback')!;
    expect(spanText(profile, { slot: 47, variant: 2 })).toBe('H6 · Bite');
    expect(spanText(profile, { slot: 47, variant: 'stored' })).toBe('H6');
    expect(spanText(profile, { slot: null, variant: null })).toBe('');
  });
});
