import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Journal, KEPT_LISTS, forgetShow, keepPlace, keepPlayed, loadPlaces, loadPlayed, namePlayed } from './journal';
import { removePlayed } from './journal';
import type { PlaceRow, PlayedRow } from './journalRow';

let book: Journal;
let count = 0;
beforeEach(() => {
  book = new Journal(`journal-${count++}`);
});
afterEach(() => book.delete());

const place: PlaceRow = {
  showId: 's',
  night: null,
  songId: 'a',
  songTitle: 'A',
  entryId: null,
  at: 960,
  playing: true,
  queued: null,
  muted: [],
  solo: [],
  when: 5000,
};
const song = (at: number): PlayedRow['history'][number] => ({
  entryId: null,
  songId: 'a',
  title: 'A',
  at,
  until: null,
  how: 'asked',
  struck: false,
});
const row = (id: string, begun: number, ...at: number[]): PlayedRow => ({
  showId: 's',
  id,
  kind: 'show',
  name: '',
  begun,
  history: at.map(song),
});

describe('the journal', () => {
  it('gives back places, the newest first, and leaves out what is damaged', async () => {
    await keepPlace(book, place);
    await keepPlace(book, { ...place, showId: 'u', when: 9000 });
    await book.places.put({ ...place, showId: 'bad', at: -1 });
    await book.places.put({ showId: 'worse' } as PlaceRow);
    expect((await loadPlaces(book)).map((p) => p.showId)).toEqual(['u', 's']);
    await keepPlace(book, { ...place, playing: false });
    expect((await loadPlaces(book))[1]).toEqual({ ...place, playing: false });
  });

  it('keeps what two tabs wrote into one list, and the name that somebody gave it', async () => {
    await keepPlayed(book, row('n', 10, 1));
    await namePlayed(book, row('n', 10), 'Pier, second night');
    await keepPlayed(book, row('n', 20, 3));
    const kept = await keepPlayed(book, row('n', 10, 2, 1));
    expect(kept).toMatchObject({ name: 'Pier, second night', begun: 10 });
    expect(kept.history.map((p) => p.at)).toEqual([1, 2, 3]);
  });

  it('keeps the newest lists of a show, and those of others', async () => {
    await keepPlayed(book, { ...row('other', 1, 1), showId: 'u' });
    for (let i = 0; i < KEPT_LISTS + 3; i++) await keepPlayed(book, row(`n${i}`, i, i));
    const all = await loadPlayed(book, 's');
    expect(all).toHaveLength(KEPT_LISTS);
    expect(all[0]!.id).toBe(`n${KEPT_LISTS + 2}`);
    expect(await loadPlayed(book, 'u')).toHaveLength(1);
  });

  it('forgets a list that is cleared, and all of a show that is deleted', async () => {
    await keepPlayed(book, row('a', 1, 1));
    await keepPlayed(book, row('b', 2, 2));
    await keepPlace(book, place);
    await removePlayed(book, row('a', 1));
    expect((await loadPlayed(book, 's')).map((p) => p.id)).toEqual(['b']);
    await forgetShow(book, 's');
    expect(await loadPlayed(book, 's')).toEqual([]);
    expect(await loadPlaces(book)).toEqual([]);
  });
});
