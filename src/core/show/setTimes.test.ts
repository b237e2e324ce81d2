import { describe, expect, it } from 'vitest';
import { emptyShow, newSet, newSong, songEntry } from './builders';
import type { SetEntry, Show } from './schema';
import { setTimes } from './setTimes';

/** Songs of a minute each. */
const songs = ['a', 'b', 'c'].map((id) => newSong(id, id, { bpm: 120, bars: 30 }));
const show = (entries: readonly SetEntry[]): Show => ({
  ...emptyShow('s', 'S'),
  songs,
  sets: [newSet('set', 'Set', { between: 30, entries })],
});
const times = (entries: readonly SetEntry[]) => setTimes(show(entries)).rows.map((r) => [r.at, r.length]);

describe('a set in time', () => {
  it('has between songs what is reckoned, or the pause of one that goes on by itself', () => {
    expect(times([songEntry('1', 'a'), songEntry('2', 'b', { follow: 'on', pause: 4 }), songEntry('3', 'c')])).toEqual([
      [0, 60],
      [90, 60],
      [154, 60],
    ]);
  });

  it('has breaks in the place of what is reckoned, and notes that take no time', () => {
    const rest: SetEntry = { kind: 'break', id: 'x', title: 'Tea', minutes: 20 };
    const note: SetEntry = { kind: 'note', id: 'n', text: 'Capo' };
    expect(times([songEntry('1', 'a'), rest, note, songEntry('2', 'b'), note])).toEqual([
      [0, 60],
      [60, 1200],
      [1260, 0],
      [1260, 60],
      [1350, 0],
    ]);
    expect(setTimes(show([songEntry('1', 'a'), rest])).length).toBe(1260);
  });

  it('of nothing is nothing', () => {
    expect(setTimes(show([]))).toEqual({ rows: [], length: 0 });
  });
});
