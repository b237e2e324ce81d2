import { describe, expect, it } from 'vitest';
import { demoShow } from '../../../core/demo';
import type { Verdict } from '../../../core/simulate';
import type { StateSpan } from '../../../core/proof';
import { offsetText } from '../../features/runSum';
import { cueName, placeOf, spanText, tickOf, wrongSpans } from './runFacts';

const show = demoShow();
const song = show.songs[0]!;
const verdict = (offset: number | null): Verdict => ({
  cueId: 'c',
  unitId: 'u',
  due: 0,
  offset,
  outcome: offset === null ? 'never' : 'on-time',
  reason: { kind: 'as-wanted' },
  margin: null,
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

describe('where a unit is on something else', () => {
  const span = (from: number, to: number, slot: number | null, rest: Partial<StateSpan> = {}): StateSpan => ({
    from: from * 1000,
    to: to * 1000,
    slot,
    variant: null,
    gap: false,
    ...rest,
  });
  const wrong = (wanted: readonly StateSpan[], heard: readonly StateSpan[]): number[][] =>
    wrongSpans({ unitId: 'u', wanted, heard, sent: [] }, 250_000).map(({ from, to }) => [from / 1000, to / 1000]);

  it('is nowhere when each state is there in time', () => {
    expect(wrong([span(0, 1000, 2), span(1000, 2000, 6)], [span(0, 1000, 2), span(1000, 2000, 6)])).toEqual([]);
    // Ten milliseconds early is on its way; a gap is shown as a gap.
    expect(wrong([span(0, 1000, 2), span(1000, 2000, 6)], [span(0, 990, 2), span(990, 2000, 6)])).toEqual([]);
    const loading = [span(0, 900, 2), span(900, 1000, 2, { gap: true }), span(1000, 2000, 6)];
    expect(wrong([span(0, 1000, 2), span(1000, 2000, 6)], loading)).toEqual([]);
  });

  it('is not what comes before its beat, as far as that is on time', () => {
    const early = (by: number): StateSpan[] => [span(0, 1000 - by, 2), span(1000 - by, 2000, 6)];
    const wanted = [span(0, 1000, 2), span(1000, 2000, 6)];
    expect(wrong(wanted, early(240))).toEqual([]);
    expect(wrong(wanted, early(400))).toEqual([[600, 1000]]);
  });

  it('is from the beat until the state is there', () => {
    const late = [span(0, 1150, 2), span(1150, 2000, 6)];
    expect(wrong([span(0, 1000, 2), span(1000, 2000, 6)], late)).toEqual([[1000, 1150]]);
  });

  it('is the rest of the song where it never comes, in one piece', () => {
    const never = [span(0, 1500, 2), span(1500, 2000, 3)];
    expect(wrong([span(0, 1000, 2), span(1000, 2000, 6)], never)).toEqual([[1000, 2000]]);
  });

  it('is another variant too, but not where nothing is wanted of it', () => {
    const wanted = [span(0, 1000, 2, { variant: 1 })];
    expect(wrong(wanted, [span(0, 1000, 2, { variant: 3 })])).toEqual([[0, 1000]]);
    expect(wrong([span(0, 1000, 2)], [span(0, 1000, 2, { variant: 3 })])).toEqual([]);
    expect(wrong([span(0, 1000, null, { variant: 1 })], [span(0, 1000, 7, { variant: 1 })])).toEqual([]);
  });
});
