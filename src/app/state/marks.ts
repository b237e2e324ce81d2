import { OPENING_CUE, type Show, type Song } from '../../core/show';
import { sumLanterns, type Lantern } from '../../core/simulate';
import type { CueProof } from '../../workers/protocol';
import { useApp, type AppState } from './store';

/** What is proven of a cue as it is now; undefined while it is not. */
export function proofOf(
  state: Pick<AppState, 'prints' | 'proofs'>,
  songId: string,
  cueId: string,
): CueProof | undefined {
  const print = state.prints[songId]?.[cueId];
  return print === undefined ? undefined : state.proofs[print];
}

const markOf = (state: AppState, songId: string, cueId: string): Lantern =>
  proofOf(state, songId, cueId)?.lantern ?? 'hollow';

/**
 * A song's mark: that of all its cues that are not muted, its sweeps, taps and clocks. A
 * song without any has nothing to prove, and is hollow.
 */
export function songMark(state: AppState, song: Song): Lantern {
  const ids = new Set(song.cues.filter((c) => !c.muted).map((c) => c.id));
  if (song.openingToneId !== null) ids.add(OPENING_CUE);
  for (const { id } of [...song.sweeps, ...song.taps, ...song.clocks]) {
    // What is not played has no fingerprint.
    if (state.prints[song.id]?.[id] !== undefined) ids.add(id);
  }
  return sumLanterns([...ids].map((id) => markOf(state, song.id, id)));
}

/** A tone's mark: that of every cue, in every song, that places it. */
export function toneMark(state: AppState, show: Show, toneId: string): Lantern {
  const marks: Lantern[] = [];
  for (const song of show.songs) {
    if (song.openingToneId === toneId) marks.push(markOf(state, song.id, OPENING_CUE));
    for (const cue of song.cues) {
      if (!cue.muted && cue.action.kind === 'tone' && cue.action.toneId === toneId) {
        marks.push(markOf(state, song.id, cue.id));
      }
    }
  }
  return sumLanterns(marks);
}

export const showMark = (state: AppState, show: Show): Lantern =>
  sumLanterns(show.set.flatMap((e) => show.songs.filter((s) => s.id === e.songId)).map((s) => songMark(state, s)));

export const useCueMark = (songId: string, cueId: string): Lantern => useApp((s) => markOf(s, songId, cueId));
export const useCueProof = (songId: string, cueId: string): CueProof | undefined =>
  useApp((s) => proofOf(s, songId, cueId));
export const useSongMark = (song: Song): Lantern => useApp((s) => songMark(s, song));
export const useToneMark = (show: Show, toneId: string): Lantern => useApp((s) => toneMark(s, show, toneId));
export const useShowMark = (show: Show): Lantern => useApp((s) => showMark(s, show));
