import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { barAt, formatPosition, tempoAt, ticksToSeconds } from '../time';
import { emptyShow, newSection, newSong, toneCue } from './builders';
import { checkShow } from './check/checkShow';
import { rearrangeBars, refit, sectionBars, type BarOfOrder } from './frame';
import type { Show, Song } from './schema';
import { songTime } from './songTime';
import { runs } from '../testing/runs';

const Q = 960;
let made = 0;
const newId = (): string => `made-${made++}`;
const places = (song: Song): string[] => song.cues.map((c) => formatPosition(songTime(song).bars, c.at, song.bars));
const valid = (song: Song): void => {
  const show: Show = { ...emptyShow('x', 'X'), songs: [{ ...song, cues: [], openingToneId: null }] };
  expect(checkShow(show)).toEqual([]);
};

/** 12 bars: four of 4/4, four of 7/8, four of 3/4; a ramp from bar 3 to bar 7; a cue on beats of most bars. */
const base: Song = (() => {
  const song = newSong('s', 'S', { bpm: 100, bars: 12 });
  const metre: Song['metre'] = [
    { bar: 1, beats: 4, unit: 4 },
    { bar: 5, beats: 7, unit: 8 },
    { bar: 9, beats: 3, unit: 4 },
  ];
  const shaped = { ...song, metre };
  const { bars } = songTime(shaped);
  return {
    ...shaped,
    tempo: [
      { at: 0, bpm: 100, beat: 1, rampTo: null },
      { at: barAt(bars, 3).tick, bpm: 100, beat: 1, rampTo: 140 },
      { at: barAt(bars, 7).tick, bpm: 90, beat: 1, rampTo: null },
    ],
    sections: [newSection('a', 'Verse', 1), newSection('b', 'Odd', 5), newSection('c', 'Waltz', 9)],
    cues: [1, 3, 5, 6, 9, 12].map((bar) => toneCue(`cue-${bar}`, barAt(bars, bar).tick + Q, 't')),
  };
})();

describe('another metre or pickup', () => {
  it('keeps cues and tempo marks on their bar and beat', () => {
    const other = refit(base, { metre: [{ bar: 1, beats: 5, unit: 4 }] });
    expect(places(other)).toEqual(['1|2', '3|2', '5|2', '6|2', '9|2', '12|2']);
    expect(other.tempo.map((m) => formatPosition(songTime(other).bars, m.at, 12))).toEqual(['1|1', '3|1', '7|1']);
    valid(other);
  });

  it('puts what its bar has no room for on the last beat', () => {
    const late = { ...base, cues: [toneCue('x', 3.5 * Q, 't')] };
    expect(places(refit(late, { metre: [{ bar: 1, beats: 2, unit: 4 }] }))).toEqual(['1|2']);
  });

  it('keeps a sweep behind the end behind it, as long as it was', () => {
    const behind = { ...base, bars: 4 };
    const time = songTime(behind);
    const from = barAt(time.bars, 9).tick;
    const line = {
      kind: 'line',
      points: [
        { at: 0, value: 0, hold: false },
        { at: 6 * Q, value: 100, hold: false },
      ],
    };
    const sweep = {
      id: 'x',
      unitId: 'u',
      controlId: 'c',
      from,
      to: from + 6 * Q,
      shape: line,
    } as never as Song['sweeps'][number];
    const [moved] = refit({ ...behind, sweeps: [sweep] }, { metre: [{ bar: 1, beats: 3, unit: 4 }] }).sweeps;
    // Bars 9 and 10 of 3/4, both before and after.
    expect([moved!.from, moved!.to]).toEqual([8 * 3 * Q, 10 * 3 * Q]);
    expect(moved!.shape).toEqual(line);
  });

  it('moves everything along when the pickup changes; what stands in it keeps its distance to bar 1', () => {
    const up = refit({ ...base, cues: [...base.cues] }, { pickup: 2 * Q });
    expect(places(up)).toEqual(places(base));
    const inside = refit({ ...up, cues: [toneCue('p', Q, 't'), ...up.cues] }, { pickup: 3 * Q });
    expect(inside.cues[0]!.at).toBe(2 * Q);
    expect(refit(inside, { pickup: 0 }).cues[0]!.at).toBe(0);
    valid(inside);
  });
});

describe('bars in another order', () => {
  const all = (n = 12): number[] => Array.from({ length: n }, (_, i) => i + 1);

  it('change nothing where the order is the old one', () => {
    expect(rearrangeBars(base, all(), newId)).toEqual(base);
    for (const song of demoShow().songs) expect(rearrangeBars(song, all(song.bars), newId)).toEqual(song);
  });

  it('take sections, cues, metre and tempo along', () => {
    const turned = rearrangeBars(base, [...all().slice(4, 8), ...all().slice(0, 4), ...all().slice(8)], newId);
    expect(turned.metre).toEqual([
      { bar: 1, beats: 7, unit: 8 },
      { bar: 5, beats: 4, unit: 4 },
      { bar: 9, beats: 3, unit: 4 },
    ]);
    expect(turned.sections.map((s) => [s.id, s.bar])).toEqual([
      ['b', 1],
      ['a', 5],
      ['c', 9],
    ]);
    expect(turned.cues.map((c) => c.id)).toEqual(['cue-5', 'cue-6', 'cue-1', 'cue-3', 'cue-9', 'cue-12']);
    expect(places(turned)).toEqual(['1|3', '2|3', '5|2', '7|2', '9|2', '12|2']);
    valid(turned);
  });

  it('play every bar at the tempo that it had, also in the middle of a ramp', () => {
    const order = [5, 6, 3, 4, 1, 2, 11, 7];
    const next = rearrangeBars(base, order, newId);
    for (const [i, bar] of order.entries()) {
      const [a, b] = [barAt(songTime(base).bars, bar), barAt(songTime(next).bars, i + 1)];
      expect(b.length).toBe(a.length);
      const before =
        ticksToSeconds(songTime(base).tempo, a.tick + a.length) - ticksToSeconds(songTime(base).tempo, a.tick);
      const after =
        ticksToSeconds(songTime(next).tempo, b.tick + b.length) - ticksToSeconds(songTime(next).tempo, b.tick);
      expect(after).toBeCloseTo(before, 9);
    }
    valid(next);
  });

  it('may stand there twice, with ids of their own, or be new and empty', () => {
    const next = rearrangeBars(base, [...all().slice(0, 4), null, null, ...all().slice(0, 4)], newId);
    expect(next.bars).toBe(10);
    expect(next.cues).toHaveLength(4);
    expect(new Set(next.cues.map((c) => c.id)).size).toBe(4);
    expect(places(next)).toEqual(['1|2', '3|2', '7|2', '9|2']);
    expect(next.sections.map((s) => s.name)).toEqual(['Verse', 'Verse']);
    const empty = barAt(songTime(next).bars, 5).tick;
    expect(tempoAt(songTime(next).tempo, empty)).toBeCloseTo(
      tempoAt(songTime(base).tempo, barAt(songTime(base).bars, 5).tick),
      9,
    );
    valid(next);
  });

  it('keep the numbers that the score prints', () => {
    const printed = { ...base, printed: [{ bar: 5, number: 101 }] };
    const next = rearrangeBars(printed, [5, 6, null, 1, 2], newId);
    expect(next.printed).toEqual([
      { bar: 1, number: 101 },
      { bar: 4, number: 1 },
    ]);
  });

  it('make a valid song in any order, with every bar as long as before', () => {
    const bar: fc.Arbitrary<BarOfOrder> = fc.oneof(
      { weight: 5, arbitrary: fc.integer({ min: 1, max: 12 }) },
      { weight: 1, arbitrary: fc.constant(null) },
    );
    fc.assert(
      fc.property(fc.array(bar, { minLength: 1, maxLength: 16 }), fc.constantFrom(0, Q, 2 * Q), (order, pickup) => {
        const from = refit(base, { pickup });
        const next = rearrangeBars(from, order, newId);
        valid(next);
        expect(next.cues.length).toBe(
          from.cues.reduce((n, c) => n + order.filter((b) => b === Number(c.id.slice(4))).length, 0),
        );
        for (const [i, old] of order.entries()) {
          if (old === null) continue;
          const [a, b] = [barAt(songTime(from).bars, old), barAt(songTime(next).bars, i + 1)];
          const [s, t] = [songTime(from).tempo, songTime(next).tempo];
          const before = ticksToSeconds(s, a.tick + a.length) - ticksToSeconds(s, a.tick);
          expect(ticksToSeconds(t, b.tick + b.length) - ticksToSeconds(t, b.tick)).toBeCloseTo(before, 8);
        }
      }),
      runs(101, 300),
    );
  });
});

describe('the bars of a section', () => {
  it('reach to the next one, or to the end', () => {
    expect(sectionBars(base, 'a')).toEqual({ first: 1, count: 4 });
    expect(sectionBars(base, 'c')).toEqual({ first: 9, count: 4 });
    expect(sectionBars(base, 'none')).toBeUndefined();
  });
});
