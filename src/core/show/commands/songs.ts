import type { Edit, Path } from '../edits';
import { indexShow } from '../find';
import type { Cue, Show, Song } from '../schema';

const cuesPath = (songId: string): Path => ['songs', { id: songId }, 'cues'];

/** Puts a cue into a song, behind all that stand before it or at the same place. */
export function placeCue(show: Show, songId: string, cue: Cue): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song) return null;
  const after = song.cues.findIndex((c) => c.at > cue.at);
  return { kind: 'insert', path: cuesPath(songId), index: after < 0 ? song.cues.length : after, value: cue };
}

export function removeCue(show: Show, songId: string, cueId: string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const index = song?.cues.findIndex((c) => c.id === cueId) ?? -1;
  if (!song || index < 0) return null;
  return { kind: 'remove', path: cuesPath(songId), index, value: song.cues[index] };
}

/** Changes a cue; one that moves takes its place among the others. Null when nothing would change. */
export function changeCue(show: Show, songId: string, cueId: string, change: Partial<Cue>): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const before = song?.cues.find((c) => c.id === cueId);
  if (!song || !before) return null;
  const after = { ...before, ...change };
  if (JSON.stringify(after) === JSON.stringify(before)) return null;
  if (after.at === before.at) {
    return { kind: 'set', path: [...cuesPath(songId), { id: cueId }], before, after };
  }
  const out = removeCue(show, songId, cueId)!;
  const rest = song.cues.filter((c) => c.id !== cueId);
  const place = rest.findIndex((c) => c.at > after.at);
  const back: Edit = { kind: 'insert', path: cuesPath(songId), index: place < 0 ? rest.length : place, value: after };
  return { kind: 'group', edits: [out, back] };
}

/** Adds a song to the book and at the end of the set. */
export const addSong = (show: Show, song: Song, setEntryId: string): Edit => ({
  kind: 'group',
  edits: [
    { kind: 'insert', path: ['songs'], index: show.songs.length, value: song },
    { kind: 'insert', path: ['set'], index: show.set.length, value: { id: setEntryId, songId: song.id } },
  ],
});

/** Puts a song of the book at the end of the set. Null when it is there already. */
export const addToSet = (show: Show, songId: string, entryId: string): Edit | null =>
  show.set.some((e) => e.songId === songId) || !indexShow(show).songs.has(songId)
    ? null
    : { kind: 'insert', path: ['set'], index: show.set.length, value: { id: entryId, songId } };

/** Takes a song out of the set; it stays in the book. */
export function removeFromSet(show: Show, songId: string): Edit | null {
  const index = show.set.findIndex((e) => e.songId === songId);
  return index < 0 ? null : { kind: 'remove', path: ['set'], index, value: show.set[index] };
}

/** Takes a song out of the set and out of the book. */
export function removeSong(show: Show, songId: string): Edit | null {
  const index = show.songs.findIndex((s) => s.id === songId);
  if (index < 0) return null;
  const set = show.set.filter((e) => e.songId !== songId);
  return {
    kind: 'group',
    edits: [
      { kind: 'set', path: ['set'], before: show.set, after: set },
      { kind: 'remove', path: ['songs'], index, value: show.songs[index] },
    ],
  };
}

/** Sets one field of a song. Null when nothing would change. */
export function setSongField<K extends keyof Song>(show: Show, songId: string, field: K, after: Song[K]): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song || JSON.stringify(song[field]) === JSON.stringify(after)) return null;
  return { kind: 'set', path: ['songs', { id: songId }, field], before: song[field], after };
}

/** Moves an entry of the set. */
export const moveInSet = (show: Show, from: number, to: number): Edit | null =>
  from === to || to < 0 || to >= show.set.length ? null : { kind: 'move', path: ['set'], from, to };
