import type { Shelf } from './db';
import { readNightRow, type PlayedNight } from './nightRow';

/** So many nights of a show are kept: the newest. */
export const KEPT_NIGHTS = 10;

/** All nights of a show that are kept, the newest first. Damaged rows are left out. */
export async function loadNights(shelf: Shelf, showId: string): Promise<readonly PlayedNight[]> {
  const rows = await shelf.nights.where('showId').equals(showId).toArray();
  return rows.flatMap((row) => readNightRow(row) ?? []).toSorted((a, b) => (a.id < b.id ? 1 : -1));
}

/** Keeps a night as it is so far; beyond `KEPT_NIGHTS` the oldest of its show go. */
export const keepNight = (shelf: Shelf, night: PlayedNight): Promise<void> =>
  shelf.transaction('rw', shelf.nights, async () => {
    await shelf.nights.put(night);
    const ids = (await shelf.nights.where('showId').equals(night.showId).primaryKeys()).map(([, id]) => id);
    const over = ids.sort().slice(0, Math.max(0, ids.length - KEPT_NIGHTS));
    await shelf.nights.bulkDelete(over.map((id): [string, string] => [night.showId, id]));
  });
