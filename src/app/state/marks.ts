import { addTo } from '../../core/groups';
import { OPENING_CUE } from '../../core/meaning';
import { openingOf, type Show, type Song, songsOfSet } from '../../core/show';
import { sumLanterns, type Lantern } from '../../core/simulate';
import type { CueProof } from '../../core/proof';
import { useProofs, type Proofs } from './proofs';

/** What marks rest on. */
type Marked = Pick<Proofs, 'fingerprints' | 'proofs'>;

/** What is proven of a cue as it is now; undefined while it is not. */
export function proofOf(state: Marked, songId: string, cueId: string): CueProof | undefined {
  const fingerprint = state.fingerprints[songId]?.[cueId];
  return fingerprint === undefined ? undefined : state.proofs[songId]?.[fingerprint];
}

const markOf = (state: Marked, songId: string, cueId: string): Lantern =>
  proofOf(state, songId, cueId)?.lantern ?? 'hollow';

/** Songs are asked for their mark at every change of anything; what a mark rests on is mostly the same. */
const kept = new WeakMap<Song, { readonly fingerprints: unknown; readonly proofs: unknown; readonly mark: Lantern }>();

/**
 * A song's mark: that of all its cues that are not muted, its sweeps, taps and clocks. A
 * song without any has nothing to prove, and is hollow.
 */
export function songMark(state: Marked, song: Song): Lantern {
  const fingerprints = state.fingerprints[song.id];
  const proofs = state.proofs[song.id];
  const known = kept.get(song);
  if (known && known.fingerprints === fingerprints && known.proofs === proofs) return known.mark;
  // What wants nothing of any unit has no fingerprint, and nothing to prove.
  const wants = (id: string): boolean => fingerprints === undefined || fingerprints[id] !== undefined;
  const ids = new Set(song.cues.filter((c) => !c.muted && wants(c.id)).map((c) => c.id));
  for (const id of [OPENING_CUE, ...[...song.sweeps, ...song.taps, ...song.clocks].map((s) => s.id)]) {
    // What is not played has no fingerprint.
    if (fingerprints?.[id] !== undefined) ids.add(id);
  }
  if (song.openingToneId !== null) ids.add(OPENING_CUE);
  const mark = sumLanterns([...ids].map((id) => markOf(state, song.id, id)));
  kept.set(song, { fingerprints, proofs, mark });
  return mark;
}

interface SongToneMarks {
  readonly opening: string | null;
  readonly fingerprints: unknown;
  readonly proofs: unknown;
  readonly marks: ReadonlyMap<string, Lantern>;
}

const ofSong = new WeakMap<Song, SongToneMarks>();

/** The marks of the tones that a song places, worked out once for what it rests on. */
function songToneMarks(state: Marked, show: Show, song: Song): ReadonlyMap<string, Lantern> {
  const fingerprints = state.fingerprints[song.id];
  const proofs = state.proofs[song.id];
  const opening = openingOf(show, song);
  const known = ofSong.get(song);
  if (known?.fingerprints === fingerprints && known?.proofs === proofs && known?.opening === opening) {
    return known.marks;
  }
  const lists = new Map<string, Lantern[]>();
  if (opening !== null) addTo(lists, opening, markOf(state, song.id, OPENING_CUE));
  for (const { id, muted, action } of song.cues) {
    const wants = fingerprints === undefined || fingerprints[id] !== undefined;
    if (!muted && wants && action.kind === 'tone') addTo(lists, action.toneId, markOf(state, song.id, id));
  }
  const marks = new Map([...lists].map(([id, list]) => [id, sumLanterns(list)]));
  ofSong.set(song, { opening, fingerprints, proofs, marks });
  return marks;
}

/** A tone's mark: that of every cue, in every song, that places it. */
export function toneMark(state: Marked, show: Show, toneId: string): Lantern {
  const marks = show.songs.flatMap((song) => songToneMarks(state, show, song).get(toneId) ?? []);
  return marks.length === 0 ? 'hollow' : sumLanterns(marks);
}

export const showMark = (state: Marked, show: Show): Lantern =>
  sumLanterns(songsOfSet(show).map((s) => songMark(state, s)));

export const useCueMark = (songId: string, cueId: string): Lantern => useProofs((s) => markOf(s, songId, cueId));
export const useCueProof = (songId: string, cueId: string): CueProof | undefined =>
  useProofs((s) => proofOf(s, songId, cueId));
export const useSongMark = (song: Song): Lantern => useProofs((s) => songMark(s, song));
export const useToneMark = (show: Show, toneId: string): Lantern => useProofs((s) => toneMark(s, show, toneId));
export const useShowMark = (show: Show): Lantern => useProofs((s) => showMark(s, show));
/** Whether a cue wants anything of any unit, as far as that is known: what wants nothing has no fingerprint, and nothing to prove. */
export const useWantsSomething = (songId: string, cueId: string): boolean =>
  useProofs(({ fingerprints }) => {
    const prints = fingerprints[songId];
    return prints === undefined || prints[cueId] !== undefined;
  });
