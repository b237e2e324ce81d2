import Dexie, { liveQuery } from 'dexie';
import { sharing, type Show } from '../../core/show';
import type { Shelf } from './db';
import { readListed, type Listed } from './listed';

export type Saved =
  { readonly kind: 'saved'; readonly revision: number } | { readonly kind: 'conflict'; readonly revision: number };

/** How often a show was saved; undefined when there is none. */
async function revisionOf(shelf: Shelf, id: string): Promise<number | undefined> {
  const keys = await shelf.shows.where('[id+revision]').between([id, Dexie.minKey], [id, Dexie.maxKey]).keys();
  return (keys as unknown as [string, number][])[0]?.[1];
}

/**
 * Puts a show on the shelf, if what lies there is what this one grew out of (`base`; null
 * for a new one). What another tab saved in the meantime is never written over.
 */
export function saveShow(shelf: Shelf, show: Show, base: number | null, now: number): Promise<Saved> {
  return shelf.transaction('rw', shelf.shows, async (): Promise<Saved> => {
    const lying = await revisionOf(shelf, show.id);
    if ((lying ?? null) !== base) return { kind: 'conflict', revision: lying ?? 0 };
    const revision = (base ?? 0) + 1;
    await shelf.shows.put({ id: show.id, title: show.title, revision, savedAt: now, data: show });
    return { kind: 'saved', revision };
  });
}

export async function removeShow(shelf: Shelf, id: string): Promise<void> {
  await shelf.transaction('rw', shelf.shows, shelf.proofs, shelf.sounds, async () => {
    await shelf.shows.delete(id);
    await shelf.sounds.where('showId').equals(id).delete();
    await shelf.proofs.where('showId').equals(id).delete();
  });
}

/** Calls back with all shows, the newest first, now and whenever that changes; `onRefusal` where the store cannot be read. Gives what ends it. */
export function watchShows(
  shelf: Shelf,
  onShows: (shows: readonly Listed[]) => void,
  onRefusal: (error: Error) => void = () => undefined,
): () => void {
  const query = liveQuery(async () => {
    const keys: unknown[] = await shelf.shows.orderBy('[savedAt+id+title]').reverse().keys();
    const shows = keys.flatMap((key) => readListed(key) ?? []);
    // A row whose date or title is damaged is not in that index.
    const known = new Set(shows.map((s) => s.id));
    const all = (await shelf.shows.toCollection().primaryKeys()).map(String);
    return [...shows, ...all.filter((id) => !known.has(id)).map((id) => ({ id, title: 'A damaged show', savedAt: 0 }))];
  });
  const subscription = query.subscribe({ next: onShows, error: (error: unknown) => onRefusal(error as Error) });
  return () => subscription.unsubscribe();
}

/** Calls back when a show's revision changes, in this tab or another. */
export function watchRevision(shelf: Shelf, id: string, onRevision: (revision: number) => void): () => void {
  const query = liveQuery(() => revisionOf(shelf, id));
  const subscription = query.subscribe({
    next: (revision) => revision !== undefined && onRevision(revision),
  });
  return () => subscription.unsubscribe();
}

/** A show of the shelf that is the same as another in all but its id; undefined where there is none. */
export async function findSame(shelf: Shelf, show: Show): Promise<Listed | undefined> {
  const rows = await shelf.shows.filter((row) => row.title === show.title).toArray();
  // What two have in common is the whole where they are the same, in whatever order their parts were written.
  const same = rows.find(({ data }) => {
    const theirs: unknown = { ...(data as object), id: show.id };
    return sharing(theirs, show) === theirs;
  });
  return same && { id: same.id, title: same.title, savedAt: same.savedAt };
}

/** The show of a title that was saved last. */
export async function findTitled(shelf: Shelf, title: string): Promise<string | undefined> {
  const rows = await shelf.shows.filter((row) => row.title === title).toArray();
  return rows.sort((a, b) => b.savedAt - a.savedAt)[0]?.id;
}
