import { liveQuery } from 'dexie';
import { readShowData } from '../../core/formats/show-file';
import type { Read } from '../../core/problems';
import type { Show } from '../../core/show';
import type { Shelf, VersionRow } from './db';

/** An earlier state of a show, without the show itself. */
export type ListedVersion = Omit<VersionRow, 'data' | 'showId'>;

/** So many states of a show that were kept by themselves stay: the newest. What somebody kept stays until it is deleted. */
export const KEPT_BY_ITSELF = 20;

/** Keeps a state. One with an id that is there already is left as it is: the first of a day is the one to keep. */
export function keepVersion(shelf: Shelf, row: VersionRow): Promise<void> {
  return shelf.transaction('rw', shelf.versions, async () => {
    if (await shelf.versions.get([row.showId, row.id])) return;
    await shelf.versions.add(row);
    if (row.why === 'kept') return;
    const old: { id: string; savedAt: number }[] = [];
    await shelf.versions
      .where('showId')
      .equals(row.showId)
      .each(({ id, why, savedAt }) => why === 'before' && old.push({ id, savedAt }));
    const over = old.sort((a, b) => b.savedAt - a.savedAt).slice(KEPT_BY_ITSELF);
    await shelf.versions.bulkDelete(over.map(({ id }): [string, string] => [row.showId, id]));
  });
}

/** A state that was kept, read through the same door as a file; undefined when there is none. */
export async function loadVersion(shelf: Shelf, showId: string, id: string): Promise<Read<Show> | undefined> {
  const row = await shelf.versions.get([showId, id]);
  return row && readShowData(row.data);
}

export const removeVersion = (shelf: Shelf, showId: string, id: string): Promise<void> =>
  shelf.versions.delete([showId, id]);

/** Calls back with the states of a show that were kept, the newest first, now and whenever that changes. Gives what ends it. */
export function watchVersions(
  shelf: Shelf,
  showId: string,
  onVersions: (versions: readonly ListedVersion[]) => void,
  onRefusal: (error: Error) => void,
): () => void {
  const query = liveQuery(async () => {
    const rows: ListedVersion[] = [];
    await shelf.versions
      .where('showId')
      .equals(showId)
      .each((row) => rows.push({ id: row.id, name: row.name, savedAt: row.savedAt, why: row.why }));
    return rows.sort((a, b) => b.savedAt - a.savedAt);
  });
  const subscription = query.subscribe({ next: onVersions, error: (e: unknown) => onRefusal(e as Error) });
  return () => subscription.unsubscribe();
}
