import Dexie, { liveQuery } from 'dexie';
import { sharing, type Show } from '../../core/show';
import type { Shelf } from './db';
import { readListed, type Listed } from './listed';

export type Saved =
  | { readonly kind: 'saved'; readonly revision: number }
  | { readonly kind: 'conflict'; readonly revision: number }
  /** What this grew out of is not there any more: it was deleted, or all that the browser stored was. */
  | { readonly kind: 'gone' };

/** How often a show was saved; undefined when there is none. */
async function revisionOf(shelf: Shelf, id: string): Promise<number | undefined> {
  const keys = await shelf.shows.where('[id+revision]').between([id, Dexie.minKey], [id, Dexie.maxKey]).keys();
  return (keys as unknown as [string, number][])[0]?.[1];
}

/**
 * Puts a show on the shelf, if what lies there is what this one grew out of (`base`; null
 * for a new one). What another tab saved in the meantime is never written over. Of songs that are
 * the same as in `before`, which is what lies there, nothing is written.
 */
export function saveShow(
  shelf: Shelf,
  show: Show,
  base: number | null,
  now: number,
  before: Show | null = null,
): Promise<Saved> {
  return shelf.transaction('rw', shelf.shows, shelf.songs, async (): Promise<Saved> => {
    const lying = await revisionOf(shelf, show.id);
    if (lying === undefined && base !== null) return { kind: 'gone' };
    if ((lying ?? null) !== base) return { kind: 'conflict', revision: lying ?? 0 };
    const revision = (base ?? 0) + 1;
    const { songs, ...frame } = show;
    const known = new Map(before?.songs.map((s) => [s.id, s]));
    const changed = songs.filter((s) => known.get(s.id) !== s);
    await shelf.songs.bulkPut(changed.map((song) => ({ showId: show.id, id: song.id, data: song })));
    const ids = new Set(songs.map((s) => s.id));
    const gone = before ? [...known.keys()].filter((id) => !ids.has(id)) : await otherSongs(shelf, show.id, ids);
    await shelf.songs.bulkDelete(gone.map((id): [string, string] => [show.id, id]));
    await shelf.shows.put({ id: show.id, title: show.title, revision, savedAt: now, data: frame, songs: [...ids] });
    return { kind: 'saved', revision };
  });
}

/** Songs that lie there for a show and that it has no more. */
async function otherSongs(shelf: Shelf, showId: string, ids: ReadonlySet<string>): Promise<string[]> {
  const keys = await shelf.songs.where('showId').equals(showId).primaryKeys();
  return keys.map(([, id]) => id).filter((id) => !ids.has(id));
}

/** What lies on the shelf of a show, put together, before anybody has read it. */
export interface Lying {
  readonly data: unknown;
  readonly revision: number;
  /** Whether its songs have rows of their own; older shows have them in one. */
  readonly inRows: boolean;
  /** Songs whose rows are missing: they are left out. */
  readonly lost: number;
  /** Ids of its songs, by their rows, in their order. */
  readonly songIds: readonly string[];
  /** Songs that were asked to be left out, and rows that no show names any more, as they lie there. */
  readonly damaged: readonly DamagedSong[];
}

/** A song's row that cannot be read, as it lies there. */
export interface DamagedSong {
  readonly id: string;
  readonly data: unknown;
}

/** Plain data of a show that names no songs that are lost: not in its sets, nor in what arrives or is pressed; older shows have one set by itself. */
function withoutSongs(data: Readonly<Record<string, unknown>>, has: (songId: string) => boolean): object {
  const kept = (entries: unknown): unknown =>
    Array.isArray(entries)
      ? entries.filter((e: { songId?: string }) => e.songId === undefined || has(e.songId))
      : entries;
  const { set, sets, reactions, feet } = data;
  if (set !== undefined) return { ...data, set: kept(set) };
  if (!Array.isArray(sets)) return data;
  return {
    ...data,
    sets: sets.map((s: { entries?: unknown }) => ({ ...s, entries: kept(s.entries) })),
    ...(reactions === undefined ? {} : { reactions: withoutLost(reactions, has) }),
    ...(feet === undefined ? {} : { feet: withoutLost(feet, has) }),
  };
}

/** Lists, however deep, without members that do something with a song that is lost; what was only made for one is for none. */
function withoutLost(value: unknown, has: (songId: string) => boolean): unknown {
  const lost = (x: unknown): boolean => typeof x === 'string' && !has(x);
  if (Array.isArray(value)) {
    const does = (m: unknown): boolean =>
      isObject(m) && (lost((m.does as { songId?: unknown } | undefined)?.songId) || ('does' in m && lost(m.songId)));
    return value.filter((m) => !does(m)).map((m) => withoutLost(m, has));
  }
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, v]) => [key, key === 'songId' && lost(v) ? null : withoutLost(v, has)]),
  );
}

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/** What lies on the shelf of a show, but for some of its songs. Undefined where there is no such show. */
export async function dataOf(
  shelf: Shelf,
  id: string,
  but: ReadonlySet<string> = new Set(),
): Promise<Lying | undefined> {
  return shelf.transaction('r', shelf.shows, shelf.songs, async () => {
    const row = await shelf.shows.get(id);
    if (!row) return undefined;
    const { data, songs, revision } = row;
    if (songs === undefined || typeof data !== 'object')
      return { data, revision, inRows: false, lost: 0, songIds: [], damaged: [] };
    const rows = await shelf.songs.where('showId').equals(id).toArray();
    const byId = new Map(rows.map((r) => [r.id, r.data]));
    // A song whose row is lost leaves the others whole; the set must not name it then.
    const there = songs.filter((s) => byId.has(s));
    const found = there.filter((s) => !but.has(s) && isNamed(byId.get(s), s));
    const known = new Set(found);
    const whole = withoutSongs({ ...data, songs: found.map((s) => byId.get(s)) }, (songId) => known.has(songId));
    const damaged = rows.filter((r) => !known.has(r.id)).map((r): DamagedSong => ({ id: r.id, data: r.data }));
    return { data: whole, revision, inRows: true, lost: songs.length - there.length, songIds: found, damaged };
  });
}

/** Whether a row's data says that it is the song of that id, as all that refers to it does. */
const isNamed = (data: unknown, id: string): boolean => isObject(data) && data.id === id;

/** Takes rows of songs away that could not be read. */
export const removeDamaged = (shelf: Shelf, showId: string, damaged: readonly DamagedSong[]): Promise<void> =>
  shelf.songs.bulkDelete(damaged.map(({ id }): [string, string] => [showId, id]));

export async function removeShow(shelf: Shelf, id: string): Promise<void> {
  await shelf.transaction('rw', [shelf.shows, shelf.songs, shelf.proofs, shelf.sounds, shelf.versions], async () => {
    await shelf.shows.delete(id);
    await shelf.versions.where('showId').equals(id).delete();
    await shelf.songs.where('showId').equals(id).delete();
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
  const refused = (error: unknown): void => onRefusal(error as Error);
  // A query that is followed says nothing of a database that does not open at all.
  shelf.open().catch(refused);
  const subscription = query.subscribe({ next: onShows, error: refused });
  return () => subscription.unsubscribe();
}

/** Calls back when a show's revision changes, in this tab or another; with undefined where it is there no more. */
export function watchRevision(
  shelf: Shelf,
  id: string,
  onRevision: (revision: number | undefined) => void,
): () => void {
  const query = liveQuery(() => revisionOf(shelf, id));
  const subscription = query.subscribe({ next: onRevision, error: () => undefined });
  return () => subscription.unsubscribe();
}

/** A show of the shelf that is the same as another in all but its id; undefined where there is none. */
export async function findSame(shelf: Shelf, show: Show): Promise<Listed | undefined> {
  const rows = await shelf.shows.filter((row) => row.title === show.title).toArray();
  for (const { id, title, savedAt } of rows) {
    const lying = await dataOf(shelf, id);
    const theirs: unknown = { ...(lying?.data as object), id: show.id };
    // What two have in common is the whole where they are the same, in whatever order their parts were written.
    if (sharing(theirs, show) === theirs) return { id, title, savedAt };
  }
  return undefined;
}

/** The show of a title that was saved last. */
export async function findTitled(shelf: Shelf, title: string): Promise<string | undefined> {
  const rows = await shelf.shows.filter((row) => row.title === title).toArray();
  return rows.sort((a, b) => b.savedAt - a.savedAt)[0]?.id;
}
