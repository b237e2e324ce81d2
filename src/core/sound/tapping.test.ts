import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { applyEdit, newTrack, layBars, microsAt, songTime, type Show } from '../show';
import { barAt } from '../time';
import { beatAt, numberTaps, steadyBeats, tapsOff } from './';

/** A hand is off by a little, not the same twice and the same in every run. */
const hand = (i: number): number => 0.012 * Math.sin(i * 2.7);
const steady = (n: number, beat = 0.5, first = 1.3): number[] =>
  Array.from({ length: n }, (_, i) => first + i * beat + hand(i));

describe('taps along a recording', () => {
  it('are numbered by beats: a missed one leaves its place, a double one counts once', () => {
    const times = steady(12).filter((_, i) => i !== 4 && i !== 5);
    expect(numberTaps([...times, times[8]! + 0.06]).map((t) => t.beat)).toEqual([0, 1, 2, 3, 6, 7, 8, 9, 10, 11]);
    expect(numberTaps([1, 1, 1.04, 1.05])).toEqual([{ beat: 0, at: 1 }]);
    expect(numberTaps([])).toEqual([]);
    expect(numberTaps([2, Number.NaN])).toEqual([{ beat: 0, at: 2 }]);
  });

  it('give one tempo, closer than any of them', () => {
    const found = steadyBeats(numberTaps(steady(32)))!;
    expect(found.length).toBeCloseTo(0.5, 3);
    expect(found.first).toBeCloseTo(1.3, 2);
    expect(steadyBeats(numberTaps([1]))).toBeNull();
    expect(
      steadyBeats([
        { beat: 3, at: 1 },
        { beat: 3, at: 2 },
      ]),
    ).toBeNull();
  });

  it('follow a player who speeds up, smoothed', () => {
    // From half a second a beat to four tenths, over forty beats.
    const where = (n: number): number => 0.5 * n - (0.1 * n * n) / 80;
    const taps = numberTaps(Array.from({ length: 41 }, (_, i) => where(i) + hand(i)));
    expect(taps.map((t) => t.beat)).toEqual(Array.from({ length: 41 }, (_, i) => i));
    for (const n of [4, 16, 24, 36]) expect(beatAt(taps, n)!).toBeCloseTo(where(n), 1);
    const off = tapsOff(taps, (n) => beatAt(taps, n));
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(0.03);
    // Beyond the last tap it goes on as it was there.
    expect(beatAt(taps, 50)! - beatAt(taps, 49)!).toBeCloseTo(0.4, 1);
    expect(beatAt([], 3)).toBeNull();
  });
});

describe('bars that are laid onto a recording', () => {
  const demo = demoShow();
  const track = newTrack('t', 'a');
  const song = { ...demo.songs[1]!, tracks: [track], pickup: 0 };
  const show: Show = {
    ...demo,
    audio: [{ id: 'a', name: 'Take', type: 'audio/wav', length: 200, size: 9 }],
    songs: demo.songs.map((s) => (s.id === song.id ? song : s)),
  };
  const laid = (what: Parameters<typeof layBars>[3], length: number | null = null) => {
    const edit = layBars(show, song.id, 't', what, length);
    return edit && applyEdit(show, edit).songs.find((s) => s.id === song.id)!;
  };

  it('put bar 1 where it is heard, at the tempo that was tapped', () => {
    const after = laid({ first: 1.284, beat: 0.5, bars: [] }, 40)!;
    expect(after.tracks[0]).toMatchObject({ at: 0, offset: -1284 });
    expect(after.tempo).toHaveLength(1);
    expect(after.bars).toBe(40);
    const time = songTime(after);
    const bar = barAt(time.bars, 1);
    expect(microsAt(time, bar.beatTicks)).toBeCloseTo(500_000, -1);
  });

  it('put each bar where a player has it', () => {
    const bars = [1, 3, 4.9, 6.7, 8.6];
    const after = laid({ first: 1, beat: null, bars })!;
    const time = songTime(after);
    bars.forEach((at, i) => expect(microsAt(time, barAt(time.bars, i + 1).tick) / 1e6).toBeCloseTo(at - 1, 2));
  });

  it('move the recording alone where nothing was tapped, and are refused where no song has such a tempo', () => {
    const moved = laid({ first: 2, beat: null, bars: [] })!;
    expect([moved.tempo, moved.tracks[0]!.offset]).toEqual([song.tempo, -2000]);
    expect(laid({ first: 1, beat: 0.01, bars: [] })).toBeNull();
    expect(laid({ first: 1, beat: 20, bars: [] })).toBeNull();
    expect(laid({ first: -1, beat: 0.5, bars: [] })).toBeNull();
    expect(laid({ first: 1, beat: null, bars: [1, 1] })).toBeNull();
    expect(layBars(show, song.id, 'nowhere', { first: 1, beat: 0.5, bars: [] }, null)).toBeNull();
  });
});
