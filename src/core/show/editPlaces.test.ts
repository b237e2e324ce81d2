import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { addTone, renameTone, setSongField, setToneNotes } from './commands';
import { newTone } from './builders';
import { editPlaces } from './editPlaces';

const show = demoShow();

describe('what an edit is about', () => {
  it('is the member of a list that it changes, adds or takes away', () => {
    const [tone] = show.tones;
    expect(editPlaces(renameTone(show, tone!.id, 'Low Sun')!)).toEqual([{ list: 'tones', id: tone!.id }]);
    expect(editPlaces(addTone(show, newTone('new', 'New')))).toEqual([{ list: 'tones', id: 'new' }]);
    const [song] = show.songs;
    expect(editPlaces(setSongField(show, song!.id, 'title', 'Ebb')!)).toEqual([{ list: 'songs', id: song!.id }]);
  });

  it('is each of several once, and the show itself where no member is meant', () => {
    const [a, b] = show.tones;
    const one = renameTone(show, a!.id, 'Low Sun')!;
    const notes = setToneNotes(show, a!.id, 'darker')!;
    const other = renameTone(show, b!.id, 'High Sun')!;
    expect(editPlaces({ kind: 'group', edits: [one, { kind: 'group', edits: [notes, other] }] })).toEqual([
      { list: 'tones', id: a!.id },
      { list: 'tones', id: b!.id },
    ]);
    expect(editPlaces({ kind: 'set', path: ['title'], before: 'a', after: 'b' })).toEqual([{ list: null, id: null }]);
  });
});
