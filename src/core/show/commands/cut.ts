import { songEntry } from '../builders';
import { cutSong } from '../cutSong';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import { LIMITS } from '../limits';
import type { Show } from '../schema';

/**
 * Cuts a song at bars: the first part stays the song, the others stand behind it in the show, and in every set that it is in.
 * Null where there is nothing to cut, or the show holds no more.
 */
export function cutIntoSongs(show: Show, songId: string, bars: readonly number[], newId: () => string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const at = show.songs.findIndex((s) => s.id === songId);
  const [first, ...others] = song ? cutSong(song, bars, newId, show.audio) : [];
  if (!first || others.length === 0 || show.songs.length + others.length > LIMITS.songs) return null;
  const inBook = others.map((value, i): Edit => ({ kind: 'insert', path: ['songs'], index: at + 1 + i, value }));
  const inSets = show.sets.flatMap(({ id, entries }) => {
    const entry = entries.findIndex((e) => e.kind === 'song' && e.songId === songId);
    if (entry < 0 || entries.length + others.length > LIMITS.songs) return [];
    return others.map((s, i): Edit => ({
      kind: 'insert',
      path: ['sets', { id }, 'entries'],
      index: entry + 1 + i,
      value: songEntry(newId(), s.id),
    }));
  });
  return {
    kind: 'group',
    edits: [{ kind: 'set', path: ['songs', { id: songId }], before: song, after: first }, ...inBook, ...inSets],
  };
}
