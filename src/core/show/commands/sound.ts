import { applyEdit, type Edit, type Path } from '../edits';
import { indexShow } from '../find';
import { LIMITS } from '../limits';
import type { Audio, Feet, FootSwitch, Call, Reaction, Show, Song, SoundEntry, Track } from '../schema';
import { addEntry, removeEntry, removeSong } from './sets';
import { setSongField } from './songs';

/** The sounds that a song uses, by their ids. */
export const soundsOf = (song: Song): ReadonlySet<string> =>
  new Set([...callsOf(song).map((c) => c.audioId), ...song.tracks.map((t) => t.audioId)].filter((id) => id !== null));

/** All calls of a song: its announcement, those of sections, those of bars. */
const callsOf = ({ announce, sections, calls }: Song): readonly Call[] =>
  [announce, ...sections.map((s) => s.call), ...calls.map((c) => c.call)].filter((c) => c !== null);

/** Sounds leave the show with their last use: the edits for those that a song uses no longer after it is changed. */
function withoutUnused(show: Show, before: Song, after: Song): Edit[] {
  const still = new Set([after, ...show.songs.filter((s) => s !== before)].flatMap((s) => [...soundsOf(s)]));
  const sampled = samplesOf(show);
  return withoutSounds(
    show,
    [...soundsOf(before)].filter((id) => !still.has(id) && !sampled.has(id)),
  );
}

/** Sounds that reactions and foot switches play, and those between songs. */
const samplesOf = ({ reactions, feet, sets }: Pick<Show, 'reactions' | 'feet' | 'sets'>): ReadonlySet<string> =>
  new Set([
    ...[...reactions, ...feet.flatMap(doingsOf)].flatMap(({ does }) => (does.kind === 'sample' ? [does.audioId] : [])),
    ...sets.flatMap((s) => s.entries.flatMap((e) => (e.kind === 'sound' ? [e.audioId] : []))),
  ]);

/** All that the switches of a controller do. */
const doingsOf = ({ everywhere, pages }: Feet): FootSwitch['doings'] =>
  [everywhere, ...pages].flatMap((layer) => layer.switches.flatMap((s) => s.doings));

function withoutSounds(show: Show, gone: readonly string[]): Edit[] {
  const places = gone.map((id) => show.audio.findIndex((a) => a.id === id)).filter((i) => i >= 0);
  // From the last to the first, so that the places before stay what they are.
  return places
    .sort((a, b) => b - a)
    .map((index) => ({ kind: 'remove', path: ['audio'], index, value: show.audio[index] }));
}

/** One edit where there is one, else all together; null for none. */
const together = (edits: readonly Edit[]): Edit | null =>
  edits.length === 0 ? null : edits.length === 1 ? edits[0]! : { kind: 'group', edits };

/** Where a call belongs: ahead of the song, of a section by its id, or of a bar. */
export type CallPlace = { readonly of: 'song' } | { readonly of: 'section'; readonly id: string } | BarPlace;
/** Ahead of a bar: under the id of the call. */
interface BarPlace {
  readonly of: 'bar';
  readonly id: string;
  readonly bar: number;
}

/** The fields of a song that its calls stand in, with a call put in its place or (null) taken away. Null where there is no such place. */
function withCall(song: Song, place: CallPlace, call: Call | null): Partial<Song> | null {
  if (place.of === 'song') return { announce: call };
  if (place.of === 'section') {
    if (!song.sections.some((s) => s.id === place.id)) return null;
    return { sections: song.sections.map((s) => (s.id === place.id ? { ...s, call } : s)) };
  }
  const { id, bar } = place;
  if (!(Number.isInteger(bar) && bar >= 1 && bar <= song.bars)) return null;
  const rest = song.calls.filter((c) => c.id !== id);
  if (call === null) return { calls: rest };
  // Ahead of one bar there is one call.
  if (rest.length >= LIMITS.calls || rest.some((c) => c.bar === bar)) return null;
  return { calls: [...rest, { id, bar, call }].sort((a, b) => a.bar - b.bar) };
}

/** Says what is heard ahead of something; null for nothing. Null where there is no such place, or nothing would change. */
export function setCall(show: Show, songId: string, place: CallPlace, call: Call | null): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const fields = song && withCall(song, place, call);
  if (!song || !fields) return null;
  const [field] = Object.keys(fields) as (keyof Song)[];
  const edit = setSongField(show, songId, field!, fields[field!] as never);
  return edit && together([...withoutUnused(show, song, { ...song, ...fields }), edit]);
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

/** Changes fields of a recording in a song. Null where nothing would change. */
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
export function setCallSound(show: Show, songId: string, place: CallPlace, call: Call, audio: Audio): Edit | null {
  const edit = setCall(show, songId, place, { ...call, how: 'sound', audioId: audio.id });
  // The new one joins at the end, so that what leaves before it keeps its place.
  return edit && { kind: 'group', edits: [addAudio(show, audio), edit] };
}

/** Takes a recording out of a song; the sound leaves the show with its last use. */
export function removeTrack(show: Show, songId: string, trackId: string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const index = song?.tracks.findIndex((t) => t.id === trackId) ?? -1;
  if (!song || index < 0) return null;
  const after = { ...song, tracks: song.tracks.toSpliced(index, 1) };
  const edit: Edit = { kind: 'remove', path: ['songs', { id: songId }, 'tracks'], index, value: song.tracks[index] };
  return together([edit, ...withoutUnused(show, song, after)]);
}

/** Adds a reaction at the end, or puts it in the place of the one with its id; a new sample joins the show's sounds. Null when nothing would change. */
export function putReaction(show: Show, reaction: Reaction, audio: Audio | null = null): Edit | null {
  const { reactions } = show;
  const index = reactions.findIndex((r) => r.id === reaction.id);
  const before = reactions[index];
  if (before && JSON.stringify(before) === JSON.stringify(reaction)) return null;
  const edit: Edit = before
    ? { kind: 'set', path: ['reactions', { id: reaction.id }], before, after: reaction }
    : { kind: 'insert', path: ['reactions'], index: reactions.length, value: reaction };
  const after = before ? reactions.with(index, reaction) : [...reactions, reaction];
  return together([
    ...(audio ? [addAudio(show, audio)] : []),
    edit,
    ...withoutSamples(show, { ...show, reactions: after }),
  ]);
}

/** Takes a reaction away, and its sample with the last use of it. */
export function removeReaction(show: Show, id: string): Edit | null {
  const index = show.reactions.findIndex((r) => r.id === id);
  if (index < 0) return null;
  const edit: Edit = { kind: 'remove', path: ['reactions'], index, value: show.reactions[index] };
  return together([edit, ...withoutSamples(show, { ...show, reactions: show.reactions.toSpliced(index, 1) })]);
}

/** Samples that nothing plays any more after a change of reactions or sets, and no song. */
function withoutSamples(show: Show, after: Show): Edit[] {
  const still = new Set([...samplesOf(after), ...show.songs.flatMap((s) => [...soundsOf(s)])]);
  return withoutSounds(
    show,
    [...samplesOf(show)].filter((id) => !still.has(id)),
  );
}

/** Puts a sound between songs into the set, behind the entry of an id or at its end; it joins the show's sounds. */
export const addInterlude = (show: Show, entry: SoundEntry, audio: Audio, behind: string | null): Edit => ({
  kind: 'group',
  edits: [addAudio(show, audio), addEntry(show, entry, behind)],
});

/** Takes an entry out of the set. A song stays in the show; a sound leaves the show with its last use. */
export function takeOut(show: Show, entryId: string): Edit | null {
  const edit = removeEntry(show, entryId);
  return edit && together([edit, ...withoutSamples(show, applyEdit(show, edit))]);
}

/** Lets a port have MIDI clock in a song (with an id for it), or takes it away (null). */
export function setClock(show: Show, songId: string, portId: string, id: string | null): Edit | null {
  const clocks = indexShow(show).songs.get(songId)?.clocks ?? [];
  const had = clocks.some((c) => c.portId === portId);
  if (had === (id !== null)) return null;
  const after = id === null ? clocks.filter((c) => c.portId !== portId) : [...clocks, { id, portId }];
  return setSongField(show, songId, 'clocks', after);
}

/** Deletes a song; sounds that nothing else uses leave the show with it. */
export function deleteSong(show: Show, songId: string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const edit = removeSong(show, songId);
  if (!song || !edit) return null;
  const bare: Song = {
    ...song,
    tracks: [],
    announce: null,
    sections: song.sections.map((s) => ({ ...s, call: null })),
    calls: [],
  };
  return together([...withoutUnused(show, song, bare), edit]);
}

/** Another file for a sound whose bytes are gone: where it is used, and how, stays as it is. */
export function replaceAudio(show: Show, audioId: string, audio: Omit<Audio, 'id'>): Edit | null {
  const before = show.audio.find((a) => a.id === audioId);
  if (!before) return null;
  return { kind: 'set', path: ['audio', { id: audioId }], before, after: { ...audio, id: audioId } };
}

/** Puts a call ahead of every section that has none. Null where all have one. */
export function callEverySection(show: Show, songId: string, call: Call): Edit | null {
  const sections = indexShow(show).songs.get(songId)?.sections ?? [];
  return setSongField(
    show,
    songId,
    'sections',
    sections.map((s) => (s.call ? s : { ...s, call })),
  );
}
