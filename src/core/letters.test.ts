import { describe, expect, it } from 'vitest';
import { demoShow } from './demo';
import { newNoLetter } from './letters';
import { renameTone, applyEdit } from './show';

describe('a letter that can be carried nowhere', () => {
  it.each([
    ['Bell\u0007', 5, 'U+0007'],
    ['\u0000', 1, 'U+0000'],
    ['🎵 \u{1b}x', 3, 'U+001B'],
    ['a\ud800b', 2, 'U+D800'],
    ['a\uffff', 2, 'U+FFFF'],
  ])('%j is told by its place and its number', (text, place, code) => {
    expect(newNoLetter({ name: 'Bell' }, { name: text })).toEqual({ text, place, code });
  });

  it.each(['Łódź ♯ 笛 🎵', 'two\nlines\tand a tab', ''])('%j can be carried', (text) => {
    expect(newNoLetter(undefined, { list: [{ name: text }] })).toBeUndefined();
  });

  it('is not told again where it was there before, wherever it stands now', () => {
    const odd = { id: 'a', name: 'Be\u0001ll', notes: '' };
    expect(
      newNoLetter(
        [odd],
        [
          { id: 'b', name: 'New' },
          { ...odd, notes: 'x' },
        ],
      ),
    ).toBeUndefined();
    expect(newNoLetter([odd], [{ ...odd, notes: '\u0002' }])?.code).toBe('U+0002');
    expect(newNoLetter(['\u0001'], ['\u0001', '\u0003'])?.code).toBe('U+0003');
  });

  it('is found in an edit of a show', () => {
    const show = demoShow();
    const edit = renameTone(show, 'undertow', 'Under\u0008tow')!;
    expect(newNoLetter(show, applyEdit(show, edit))).toMatchObject({ place: 6, code: 'U+0008' });
  });
});
