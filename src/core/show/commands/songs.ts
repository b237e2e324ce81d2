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

/** Removes one cue. Null where it is not there. */
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

/** Sets one field of a song. Null when nothing would change. */
export function setSongField<K extends keyof Song>(show: Show, songId: string, field: K, after: Song[K]): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song || JSON.stringify(song[field]) === JSON.stringify(after)) return null;
  return { kind: 'set', path: ['songs', { id: songId }, field], before: song[field], after };
}
