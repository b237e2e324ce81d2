import type { Edit, Path } from '../edits';
import { indexShow } from '../find';
import type { Audio, Call, Show, Song, Track } from '../schema';
import { setSongField } from './songs';

/** Says what is heard ahead of a section, or, with null for the section, ahead of the song itself. */
export function setCall(show: Show, songId: string, sectionId: string | null, call: Call | null): Edit | null {
  if (sectionId === null) return setSongField(show, songId, 'announce', call);
  const sections = indexShow(show).songs.get(songId)?.sections;
  if (!sections?.some((s) => s.id === sectionId)) return null;
  return setSongField(
    show,
    songId,
    'sections',
    sections.map((s) => (s.id === sectionId ? { ...s, call } : s)),
  );
}

/** Puts a sound into the show's list of them. */
const addAudio = (show: Show, audio: Audio): Edit => ({
  kind: 'insert',
  path: ['audio'],
  index: show.audio.length,
  value: audio,
});

/** Adds a recording to a song, and to the show's sounds where it is new. */
export function addTrack(show: Show, songId: string, track: Track, audio: Audio | null): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song) return null;
  const path: Path = ['songs', { id: songId }, 'tracks'];
  const insert: Edit = { kind: 'insert', path, index: song.tracks.length, value: track };
  return audio ? { kind: 'group', edits: [addAudio(show, audio), insert] } : insert;
}

export function changeTrack(show: Show, songId: string, trackId: string, change: Partial<Track>): Edit | null {
  const tracks = indexShow(show).songs.get(songId)?.tracks ?? [];
  return setSongField(
    show,
    songId,
    'tracks',
    tracks.map((t) => (t.id === trackId ? { ...t, ...change } : t)),
  );
}

/** Gives a call a sound of one's own, which joins the show's sounds. */
export function setCallSound(
  show: Show,
  songId: string,
  sectionId: string | null,
  call: Call,
  audio: Audio,
): Edit | null {
  const edit = setCall(show, songId, sectionId, { ...call, how: 'sound', audioId: audio.id });
  return edit && { kind: 'group', edits: [addAudio(show, audio), edit] };
}

const usesAudio = (song: Song, audioId: string): boolean =>
  song.announce?.audioId === audioId ||
  song.sections.some((s) => s.call?.audioId === audioId) ||
  song.tracks.some((t) => t.audioId === audioId);

/** Takes a recording out of a song; the sound leaves the show with its last use. */
export function removeTrack(show: Show, songId: string, trackId: string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const index = song?.tracks.findIndex((t) => t.id === trackId) ?? -1;
  if (!song || index < 0) return null;
  const value = song.tracks[index]!;
  const edits: Edit[] = [{ kind: 'remove', path: ['songs', { id: songId }, 'tracks'], index, value }];
  const left = show.songs.some((s) => {
    const rest = s.id === songId ? { ...s, tracks: s.tracks.filter((t) => t.id !== trackId) } : s;
    return usesAudio(rest, value.audioId);
  });
  const at = show.audio.findIndex((a) => a.id === value.audioId);
  if (!left && at >= 0) edits.push({ kind: 'remove', path: ['audio'], index: at, value: show.audio[at] });
  return { kind: 'group', edits };
}

/** Lets a port have MIDI clock in a song (with an id for it), or takes it away (null). */
export function setClock(show: Show, songId: string, portId: string, id: string | null): Edit | null {
  const clocks = indexShow(show).songs.get(songId)?.clocks ?? [];
  const had = clocks.some((c) => c.portId === portId);
  if (had === (id !== null)) return null;
  const after = id === null ? clocks.filter((c) => c.portId !== portId) : [...clocks, { id, portId }];
  return setSongField(show, songId, 'clocks', after);
}
