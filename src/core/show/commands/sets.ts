import { newSet, songEntry } from '../builders';
import type { Edit, Path } from '../edits';
import { indexShow, setOf } from '../find';
import { asTitle } from '../limits';
import type { SetEntry, Show, ShowSet, Song, SongEntry } from '../schema';
import { unlinked } from './unlinked';

const setPath = (set: ShowSet): Path => ['sets', { id: set.id }];
const entriesPath = (set: ShowSet): Path => [...setPath(set), 'entries'];

const append = (set: ShowSet, value: SetEntry): Edit => ({
  kind: 'insert',
  path: entriesPath(set),
  index: set.entries.length,
  value,
});

/** Adds a song to the show and at the end of the set. */
export const addSong = (show: Show, song: Song, setEntryId: string): Edit => ({
  kind: 'group',
  edits: [
    { kind: 'insert', path: ['songs'], index: show.songs.length, value: song },
    append(setOf(show), songEntry(setEntryId, song.id)),
  ],
});

/** Puts a song of the show at the end of the set. Null when it is there already. */
export const addToSet = (show: Show, songId: string, entryId: string): Edit | null =>
  setOf(show).entries.some((e) => e.kind === 'song' && e.songId === songId) || !indexShow(show).songs.has(songId)
    ? null
    : append(setOf(show), songEntry(entryId, songId));

/** Puts a break or a note into the set, behind the entry of an id, or at its end. */
export function addEntry(show: Show, entry: Exclude<SetEntry, SongEntry>, behind: string | null = null): Edit {
  const set = setOf(show);
  const at = set.entries.findIndex((e) => e.id === behind);
  return { kind: 'insert', path: entriesPath(set), index: at < 0 ? set.entries.length : at + 1, value: entry };
}

/** Takes an entry out of the set; a song stays in the show. */
export function removeEntry(show: Show, entryId: string): Edit | null {
  const set = setOf(show);
  const index = set.entries.findIndex((e) => e.id === entryId);
  return index < 0 ? null : { kind: 'remove', path: entriesPath(set), index, value: set.entries[index] };
}

/** Takes a song out of all sets and out of the show. */
export function removeSong(show: Show, songId: string): Edit | null {
  const index = show.songs.findIndex((s) => s.id === songId);
  if (index < 0) return null;
  const without = ({ entries }: ShowSet): SetEntry[] => entries.filter((e) => e.kind !== 'song' || e.songId !== songId);
  return {
    kind: 'group',
    edits: [
      ...show.sets
        .filter((set) => without(set).length < set.entries.length)
        .map((set): Edit => ({ kind: 'set', path: entriesPath(set), before: set.entries, after: without(set) })),
      ...unlinked(show, { kind: 'song', id: songId }),
      { kind: 'remove', path: ['songs'], index, value: show.songs[index] },
    ],
  };
}

/** Moves an entry of the set. */
export function moveInSet(show: Show, from: number, to: number): Edit | null {
  const set = setOf(show);
  const { length } = set.entries;
  if (from === to || from < 0 || from >= length || to < 0 || to >= length) return null;
  return { kind: 'move', path: entriesPath(set), from, to };
}

/** Changes an entry of the set. Null when nothing would change. */
export function changeEntry<E extends SetEntry>(
  show: Show,
  entry: E,
  change: Partial<Omit<E, 'id' | 'kind'>>,
): Edit | null {
  const set = setOf(show);
  const before = set.entries.find((e) => e.id === entry.id);
  if (!before) return null;
  const after = { ...before, ...change };
  if (JSON.stringify(after) === JSON.stringify(before)) return null;
  return { kind: 'set', path: [...entriesPath(set), { id: entry.id }], before, after };
}

/** Sets what a set is called, when it begins, what is reckoned between its songs, or whether changes go on into the next. Null when nothing would change. */
export function setSetField<K extends 'title' | 'onStage' | 'between' | 'runsOn'>(
  show: Show,
  field: K,
  value: ShowSet[K],
): Edit | null {
  const set = setOf(show);
  const after = typeof value === 'string' ? asTitle(value, '') : value;
  if (after === '' || after === set[field]) return null;
  return { kind: 'set', path: [...setPath(set), field], before: set[field], after };
}

/** Adds a set, empty or like the one that is played from, and plays from it. */
export function addSet(show: Show, id: string, title: string, like: ShowSet | null, newId: () => string): Edit {
  const set = newSet(
    id,
    title,
    like ? { ...like, id, title, entries: like.entries.map((e) => ({ ...e, id: newId() })) } : {},
  );
  return {
    kind: 'group',
    edits: [
      { kind: 'insert', path: ['sets'], index: show.sets.length, value: set },
      { kind: 'set', path: ['setId'], before: show.setId, after: id },
    ],
  };
}

/** Plays from another set. */
export const chooseSet = (show: Show, id: string): Edit | null =>
  id === show.setId || !show.sets.some((s) => s.id === id)
    ? null
    : { kind: 'set', path: ['setId'], before: show.setId, after: id };

/** Deletes the set that is played from; its songs stay in the show. The last one stays. */
export function removeSet(show: Show): Edit | null {
  const set = setOf(show);
  const index = show.sets.indexOf(set);
  const other = show.sets.find((s) => s !== set);
  if (!other) return null;
  return {
    kind: 'group',
    edits: [
      { kind: 'set', path: ['setId'], before: show.setId, after: other.id },
      { kind: 'remove', path: ['sets'], index, value: set },
    ],
  };
}
