import { describe, expect, it } from 'vitest';
import { emptyShow, newSet, newSong, songEntry } from '../builders';
import { applyEdit } from '../edits';
import { songEntries } from '../find';
import type { Show } from '../schema';
import { launchFurther, numberLaunches, setLaunches, songsToNumber } from './launches';

const songs = ['a', 'b', 'c', 'd'].map((id) => newSong(id, id.toUpperCase()));
const launch = (bytes: string) => ({ portId: 'feet', bytes, does: 'queue' as const });
const withFirst = (bytes: string | null, at = 0): Show => {
  const entries = songs.map((s, i) => ({
    ...songEntry(`e-${s.id}`, s.id),
    launch: i === at && bytes !== null ? launch(bytes) : null,
  }));
  const set = newSet('set', 'Set', {
    entries: [...entries.slice(0, 2), { kind: 'break', id: 'pause', title: 'Tea', minutes: 10 }, ...entries.slice(2)],
  });
  return { ...emptyShow('s', 'Show'), songs, sets: [set], setId: 'set' };
};
const bytesOf = (show: Show): unknown => songEntries(show).map((e) => e.launch?.bytes ?? null);
const numbered = (show: Show, entryId: string): unknown => {
  const edit = numberLaunches(show, entryId);
  return edit && bytesOf(applyEdit(show, edit));
};

describe('messages that start songs, in a row', () => {
  it('are the next programs, notes, values of a selector and numbers of switches', () => {
    expect(launchFurther('C004', 1)).toBe('C005');
    expect(launchFurther('923C', 2)).toBe('923E');
    // A value that is no switch's counts on; a switch's number does.
    expect(launchFurther('B05003', 1)).toBe('B05004');
    expect(launchFurther('B0507F', 1)).toBe('B0517F');
    expect(launchFurther('C07F', 1)).toBeNull();
    expect(launchFurther('B07F7F', 1)).toBeNull();
    expect(launchFurther('zz', 1)).toBeNull();
  });

  it('go to the songs behind the first in the order of the set, past breaks', () => {
    expect(numbered(withFirst('C004'), 'e-a')).toEqual(['C004', 'C005', 'C006', 'C007']);
    expect(numbered(withFirst('C004', 2), 'e-c')).toEqual([null, null, 'C004', 'C005']);
  });

  it('have the port of the first, and do as it does', () => {
    const after = applyEdit(withFirst('C004'), numberLaunches(withFirst('C004'), 'e-a')!);
    expect(songEntries(after)[3]!.launch).toEqual(launch('C007'));
  });

  it('end where the numbers do', () => {
    expect(numbered(withFirst('C07E'), 'e-a')).toEqual(['C07E', 'C07F', null, null]);
    expect(songsToNumber(withFirst('C07E'), 'e-a')).toBe(1);
    expect(songsToNumber(withFirst('C004'), 'e-a')).toBe(3);
  });

  it('are none where the first has none, is the last, or is no song', () => {
    expect(numbered(withFirst(null), 'e-a')).toBeNull();
    expect(numbered(withFirst('C004', 3), 'e-d')).toBeNull();
    expect(numbered(withFirst('C004'), 'pause')).toBeNull();
    expect(songsToNumber(withFirst('C004'), 'gone')).toBe(0);
  });

  it('are set for several songs in one step', () => {
    const show = withFirst('C004');
    const edit = setLaunches(
      show,
      new Map([
        ['e-b', launch('9224')],
        ['pause', launch('9225')],
      ]),
    )!;
    expect(bytesOf(applyEdit(show, edit))).toEqual(['C004', '9224', null, null]);
    expect(setLaunches(show, new Map([['e-a', launch('C004')]]))).toBeNull();
  });
});
