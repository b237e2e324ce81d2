import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { sharing } from './sharing';

const show = demoShow();

describe('what two shows share', () => {
  it('is the whole, where nothing differs', () => {
    expect(sharing(show, structuredClone(show))).toBe(show);
  });

  it('is all but the way to what differs, also where members changed places', () => {
    const other = structuredClone(show);
    const changed = {
      ...other,
      songs: [other.songs[1]!, { ...other.songs[0]!, title: 'Other' }, ...other.songs.slice(2)],
    };
    const made = sharing(show, changed);
    expect(made).toEqual(changed);
    expect(made.units).toBe(show.units);
    expect(made.songs[0]).toBe(show.songs[1]);
    expect(made.songs[1]).not.toBe(show.songs[0]);
    expect(made.songs[1]!.cues).toBe(show.songs[0]!.cues);
  });

  it('keeps what is gone gone, and what is new new', () => {
    expect(sharing({ a: 1, b: 2 }, { a: 1 })).toEqual({ a: 1 });
    expect(sharing([1, 2, 3], [1, 2])).toEqual([1, 2]);
    expect(sharing<unknown>([1], { 0: 1 })).toEqual({ 0: 1 });
    expect(sharing<unknown>(null, [])).toEqual([]);
  });
});
