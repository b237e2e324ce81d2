import Dexie, { type EntityTable } from 'dexie';
import { readPlaceRow, readPlayedRow, type PlaceRow, type PlayedRow } from './journalRow';

/** So many lists of what was played are kept of a show: the newest. */
export const KEPT_LISTS = 40;

/**
 * Where shows are and what was played in them. A database of its own: what is written here must be on the disk before
 * the computer goes off, and a show that is saved meanwhile must not wait for that.
 */
export class Journal extends Dexie {
  declare places: EntityTable<PlaceRow, 'showId'>;
  declare played: Dexie.Table<PlayedRow, [string, string]>;

  constructor(name = 'hollow-lantern-journal') {
    super(name, { chromeTransactionDurability: 'strict' });
    this.version(1).stores({ places: 'showId', played: '[showId+id], showId' });
  }
}

export const journal = new Journal();

/** All places that are written down, the newest first. Damaged rows are left out. */
export async function loadPlaces(book: Journal): Promise<readonly PlaceRow[]> {
  const rows: readonly unknown[] = await book.places.toArray();
  return rows.flatMap((row) => readPlaceRow(row) ?? []).toSorted((a, b) => b.when - a.when);
}

export const keepPlace = (book: Journal, row: PlaceRow): Promise<unknown> => book.places.put(row);

/** Lists of what was played of a show, the newest first. Damaged rows are left out. */
export async function loadPlayed(book: Journal, showId: string): Promise<readonly PlayedRow[]> {
  const rows: readonly unknown[] = await book.played.where('showId').equals(showId).toArray();
  return rows.flatMap((row) => readPlayedRow(row) ?? []).toSorted((a, b) => b.begun - a.begun);
}

/**
 * Keeps a list of what was played. What another tab wrote into it stays: starts are told apart by their time. The
 * name is only changed by `name`. Beyond `KEPT_LISTS` the oldest of the show go. Gives the row as it is kept.
 */
export const keepPlayed = (book: Journal, row: PlayedRow): Promise<PlayedRow> =>
  book.transaction('rw', book.played, async () => {
    const there = readPlayedRow(await book.played.get([row.showId, row.id]));
    const others = there?.history.filter((p) => !row.history.some((h) => h.at === p.at)) ?? [];
    const history = [...others, ...row.history].sort((a, b) => a.at - b.at);
    const kept: PlayedRow = { ...row, history, ...(there ? { name: there.name, begun: there.begun } : {}) };
    await book.played.put(kept);
    const all = await loadPlayed(book, row.showId);
    await book.played.bulkDelete(all.slice(KEPT_LISTS).map(({ showId, id }): [string, string] => [showId, id]));
    return kept;
  });

export const namePlayed = (book: Journal, { showId, id }: PlayedRow, name: string): Promise<unknown> =>
  book.played.update([showId, id], { name });

export const removePlayed = (book: Journal, { showId, id }: PlayedRow): Promise<unknown> =>
  book.played.delete([showId, id]);

/** Nothing of a show that is deleted is remembered. */
export const forgetShow = (book: Journal, showId: string): Promise<unknown> =>
  Promise.all([book.places.delete(showId), book.played.where('showId').equals(showId).delete()]);
