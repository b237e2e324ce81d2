import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { applyEdit, invertEdit } from '../edits';
import { indexShow } from '../find';
import { writeTones } from './cues';

const show = demoShow();
const song = show.songs[0]!;
const [one, two] = show.core as [string, string];
let count = 0;
const newId = (): string => `w${++count}`;
const written = (presses: { at: number; toneId: string }[]) => {
  const edit = writeTones(show, song.id, presses, newId)!;
  const after = applyEdit(show, edit);
  expect(applyEdit(after, invertEdit(edit))).toEqual(show);
  return indexShow(after).songs.get(song.id)!.cues;
};

describe('tones that were pressed while the song ran', () => {
  it('stand in it at their places, in order, and are taken back as one', () => {
    const cues = written([
      { at: 9600, toneId: two },
      { at: 960, toneId: one },
    ]);
    expect(cues).toHaveLength(song.cues.length + 2);
    expect(cues.map((c) => c.at)).toEqual(cues.map((c) => c.at).toSorted((a, b) => a - b));
    expect(cues.find((c) => c.at === 960)!.action).toEqual({ kind: 'tone', toneId: one, reload: false });
  });

  it('take the place of a tone that stands there, and of one that was pressed for the same place before', () => {
    const at = song.cues[1]!.at;
    const cues = written([
      { at, toneId: one },
      { at, toneId: two },
    ]);
    expect(cues).toHaveLength(song.cues.length);
    expect(cues.filter((c) => c.at === at).map((c) => c.action)).toEqual([
      { kind: 'tone', toneId: two, reload: false },
    ]);
  });

  it('are no edit where there are none, or none that the show has', () => {
    expect(writeTones(show, song.id, [], newId)).toBeNull();
    expect(writeTones(show, song.id, [{ at: 0, toneId: 'gone' }], newId)).toBeNull();
    expect(writeTones(show, 'gone', [{ at: 0, toneId: one }], newId)).toBeNull();
  });
});
