import { describe, expect, it } from 'vitest';
import { newCall, newSection, newSong, songTime, microsAt, type Song } from '../show';
import { barAt } from '../time';
import { callRoom, callWave, clickWave, countInLength, peaksOf, soundLine, type Sound } from './';

const base = newSong('s', 'Low Water', { bpm: 120, bars: 4 });
const song = (change: Partial<Song>): Song => ({ ...base, click: { on: false, countIn: 0, parts: 1 }, ...change });
const clicks = (s: Song, at = 0): [number, string][] =>
  soundLine(s, at).sounds.flatMap((x) => (x.kind === 'click' ? [[Math.round(x.at), x.level]] : []));
const calls = (s: Song, at = 0): [number, string][] =>
  soundLine(s, at).sounds.flatMap((x) => (x.kind === 'call' ? [[Math.round(x.at), x.text]] : []));

describe('the click', () => {
  it('marks the first of each bar, and parts of beats where they are wanted', () => {
    const odd = song({ bars: 2, metre: [{ bar: 1, beats: 3, unit: 4 }], click: { on: true, countIn: 0, parts: 2 } });
    expect(clicks(odd)).toEqual([
      [0, 'bar'],
      [250_000, 'part'],
      [500_000, 'beat'],
      [750_000, 'part'],
      [1_000_000, 'beat'],
      [1_250_000, 'part'],
      [1_500_000, 'bar'],
      [1_750_000, 'part'],
      [2_000_000, 'beat'],
      [2_250_000, 'part'],
      [2_500_000, 'beat'],
      [2_750_000, 'part'],
    ]);
  });

  it('follows a ramp of the tempo as the messages do', () => {
    const ramp = song({
      bars: 3,
      tempo: [
        { at: 0, bpm: 96, beat: 1, rampTo: 144 },
        { at: 12 * 960, bpm: 144, beat: 1, rampTo: null },
      ],
      click: { on: true, countIn: 0, parts: 1 },
    });
    // The first 6 of 12 quarters from 96 to 144 take 3.347153 s.
    expect(clicks(ramp)[6]).toEqual([3_347_153, 'beat']);
  });

  it('counts so many bars in, before any place, in its metre and tempo', () => {
    const counted = song({ metre: [{ bar: 1, beats: 3, unit: 4 }], click: { on: false, countIn: 1, parts: 1 } });
    expect(clicks(counted)).toEqual([
      [-1_500_000, 'bar'],
      [-1_000_000, 'beat'],
      [-500_000, 'beat'],
    ]);
    expect(countInLength(counted, 0)).toBe(1_500_000);
    const at = barAt(songTime(counted).bars, 3).tick;
    expect(clicks(counted, at).map(([t]) => t)).toEqual([1_500_000, 2_000_000, 2_500_000]);
    expect(countInLength(song({}), 0)).toBe(0);
  });

  it('counts up to a pickup, and up to a place within a bar', () => {
    const pickup = song({ pickup: 960, click: { on: true, countIn: 1, parts: 1 } });
    const heard = clicks(pickup);
    // A bar of four, then the three beats before the pickup's one, then the pickup and bar 1.
    expect(heard.slice(0, 9).map(([, l]) => l)).toEqual([
      'bar',
      'beat',
      'beat',
      'beat',
      'bar',
      'beat',
      'beat',
      'beat',
      'bar',
    ]);
    expect(heard[0]![0]).toBe(-3_500_000);
    expect(heard[7]![0]).toBe(0);
    const within = song({ click: { on: false, countIn: 1, parts: 1 } });
    expect(clicks(within, 2.5 * 960).map(([t]) => t / 1e6)).toEqual([-2, -1.5, -1, -0.5, 0, 0.5, 1]);
  });
});

describe('calls', () => {
  const called = song({
    sections: [
      newSection('a', 'Walk on', 1),
      { ...newSection('b', 'Solo', 3), call: newCall({ ahead: 4 }) },
      { ...newSection('c', 'Home', 4), call: newCall({ text: 'Go home', ahead: 2 }) },
    ],
  });

  it('come ahead of their sections, with the name or their own words', () => {
    expect(calls(called)).toEqual([
      [2_000_000, 'Solo'],
      [5_000_000, 'Go home'],
    ]);
  });

  it('are left out when the section is past, or the call itself is', () => {
    expect(calls(called, 3 * 960)).toEqual([
      [2_000_000, 'Solo'],
      [5_000_000, 'Go home'],
    ]);
    expect(calls(called, 5 * 960)).toEqual([[5_000_000, 'Go home']]);
    expect(calls(called, 13 * 960)).toEqual([]);
  });

  it('announce the song ahead of the count-in, only from its start', () => {
    const announced = song({ announce: newCall({ ahead: 8 }), click: { on: false, countIn: 1, parts: 1 } });
    expect(calls(announced)).toEqual([[-6_000_000, 'Low Water']]);
    expect(soundLine(announced, 0).start).toBe(-6_000_000);
    expect(calls(announced, 960)).toEqual([]);
  });

  it('go ahead of any bar, named after the section that it lies in', () => {
    const anywhere = song({
      sections: [newSection('a', 'Walk on', 2)],
      calls: [
        { id: 'x', bar: 1, call: newCall({ ahead: 4 }) },
        { id: 'y', bar: 3, call: newCall({ ahead: 1 }) },
      ],
    });
    expect(calls(anywhere)).toEqual([[3_500_000, 'Walk on']]);
    // Before bar 1 there is only the count-in to be heard over.
    const counted = { ...anywhere, click: { on: false, countIn: 1, parts: 1 } };
    expect(calls(counted)).toEqual([
      [-2_000_000, 'Low Water'],
      [3_500_000, 'Walk on'],
    ]);
  });
});

describe('counts', () => {
  const counts = (s: Song, at = 0): [number, number, boolean][] =>
    soundLine(s, at).sounds.flatMap((x) => (x.kind === 'count' ? [[Math.round(x.at), x.beat, x.spoken]] : []));
  const counting = (change: Parameters<typeof newCall>[0], rest: Partial<Song> = {}): Song =>
    song({ calls: [{ id: 'x', bar: 3, call: newCall({ count: 1, ahead: 8, ...change }) }], ...rest });

  it('are the beats of the bars right ahead, in the metre of each', () => {
    // Bar 1 has four beats of half a second, bar 2 three.
    const metre = [
      { bar: 1, beats: 4, unit: 4 as const },
      { bar: 2, beats: 3, unit: 4 as const },
    ];
    expect(counts(counting({ count: 2 }, { metre }))).toEqual([
      [0, 1, true],
      [500_000, 2, true],
      [1_000_000, 3, true],
      [1_500_000, 4, true],
      [2_000_000, 1, true],
      [2_500_000, 2, true],
      [3_000_000, 3, true],
    ]);
  });

  it('leave the beat of the word to the word, stand alone where there is none, and are tones where that is wished', () => {
    expect(counts(counting({ ahead: 4 })).map(([, beat]) => beat)).toEqual([2, 3, 4]);
    expect(counts(counting({ how: 'count', count: 0 })).map(([, beat]) => beat)).toEqual([1, 2, 3, 4]);
    expect(calls(counting({ how: 'count' }))).toEqual([]);
    expect(counts(counting({ how: 'tones' })).every(([, , spoken]) => !spoken)).toBe(true);
  });

  it('go back before bar 1 in its metre and tempo, as far as anything is heard there', () => {
    const early = (countIn: number): Song =>
      counting(
        {},
        {
          calls: [{ id: 'x', bar: 2, call: newCall({ count: 2, ahead: 8 }) }],
          click: { on: false, countIn, parts: 1 },
        },
      );
    expect(counts(early(0)).map(([at]) => at / 1e6)).toEqual([0, 0.5, 1, 1.5]);
    expect(counts(early(1)).map(([at]) => at / 1e6)).toEqual([-1.5, -1, -0.5, 0, 0.5, 1, 1.5]);
  });

  it('leave a word the room that is there before them', () => {
    const room = (change: Parameters<typeof newCall>[0]): number => callRoom(counting({}), 3, newCall(change));
    expect(room({ ahead: 8, count: 1 })).toBeCloseTo(2, 9);
    expect(room({ ahead: 4, count: 0 })).toBeCloseTo(2, 9);
    expect(room({ ahead: 2, count: 1 })).toBeCloseTo(0.5, 9);
  });

  it('are left out as far as they are past', () => {
    expect(counts(counting({}), 6 * 960).map(([, beat]) => beat)).toEqual([3, 4]);
    expect(counts(counting({}), 9 * 960)).toEqual([]);
  });
});

describe('recordings', () => {
  const track = {
    id: 't',
    audioId: 'x',
    role: 'backing',
    playerId: null,
    stemId: null,
    at: 960,
    offset: 20,
    gain: -3,
    muted: false,
  } as const;
  const heard = (s: Song, at = 0): Extract<Sound, { kind: 'track' }>[] =>
    soundLine(s, at).sounds.filter((x) => x.kind === 'track');

  it('begin at their beat, shifted by their milliseconds', () => {
    expect(heard(song({ tracks: [track] }))).toMatchObject([{ at: 520_000, skip: 0, gain: -3 }]);
    expect(heard(song({ tracks: [{ ...track, muted: true }] }))).toEqual([]);
  });

  it('of a player are heard where that one is missing, and nowhere else', () => {
    const parts = song({
      tracks: [track, { ...track, id: 'ines', role: 'part', playerId: 'ines' }, { ...track, id: 'none', role: 'part' }],
    });
    const ids = (missing: readonly string[]): string[] =>
      soundLine(parts, 0, new Set(missing)).sounds.flatMap((x) => (x.kind === 'track' ? [x.trackId] : []));
    expect(ids([])).toEqual(['t']);
    expect(ids(['maude'])).toEqual(['t']);
    expect(ids(['ines', 'maude'])).toEqual(['t', 'ines']);
  });

  it('are joined in the middle when the song is', () => {
    const joined = heard(song({ tracks: [track] }), 4 * 960)[0]!;
    expect(joined.at).toBe(microsAt(songTime(base), 4 * 960));
    expect(joined.skip).toBeCloseTo(1.48, 9);
  });

  it('may begin before the song, in its count-in', () => {
    const early = song({ tracks: [{ ...track, at: 0, offset: -300 }] });
    expect(heard(early)).toMatchObject([{ at: -300_000, skip: 0 }]);
    expect(soundLine(early, 0).start).toBe(-300_000);
  });
});

describe('waves', () => {
  it('of clicks and calls begin with their first sample', () => {
    expect(clickWave('bar', 48_000)[0]).toBeCloseTo(0.9, 5);
    expect(clickWave('beat', 44_100)).toHaveLength(1323);
    expect(callWave('rise', 48_000)[0]).toBeCloseTo(0.6, 5);
    expect(callWave('thrice', 48_000)[Math.round(0.15 * 48_000)]).toBeGreaterThan(0.5);
    expect(Math.max(...callWave('fall', 48_000))).toBeLessThanOrEqual(1);
  });
});

describe('peaks', () => {
  it('are the loudest of each fiftieth of a second, over all channels', () => {
    const left = new Float32Array(1000);
    const right = new Float32Array(1000);
    left[10] = -0.5;
    right[500] = 1.7;
    right[999] = 0.25;
    expect([...peaksOf([left, right], 10_000)]).toEqual([128, 0, 255, 0, 64]);
    expect([...peaksOf([Float32Array.of(Number.NaN, 0.1)], 100)]).toEqual([26]);
    expect([...peaksOf([], 48_000)]).toEqual([]);
  });

  it('says how far it is', () => {
    const shares: number[] = [];
    peaksOf([new Float32Array(48_000)], 48_000, (s) => shares.push(s));
    expect(shares.at(-1)).toBe(1);
  });
});
