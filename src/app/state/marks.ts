import { addTo } from '../../core/groups';
import { OPENING_CUE } from '../../core/meaning';
import { openingOf, type Show, type Song } from '../../core/show';
import { sumLanterns, type Lantern } from '../../core/simulate';
import type { CueProof } from '../../core/proof';
import { useApp, type AppState } from './store';

/** What is proven of a cue as it is now; undefined while it is not. */
export function proofOf(
  state: Pick<AppState, 'fingerprints' | 'proofs'>,
  songId: string,
  cueId: string,
): CueProof | undefined {
  const fingerprint = state.fingerprints[songId]?.[cueId];
  return fingerprint === undefined ? undefined : state.proofs[fingerprint];
}

const markOf = (state: Pick<AppState, 'fingerprints' | 'proofs'>, songId: string, cueId: string): Lantern =>
  proofOf(state, songId, cueId)?.lantern ?? 'hollow';

/** Songs are asked for their mark at every change of anything; what a mark rests on is mostly the same. */
const kept = new WeakMap<Song, { readonly fingerprints: unknown; readonly proofs: unknown; readonly mark: Lantern }>();

/**
 * A song's mark: that of all its cues that are not muted, its sweeps, taps and clocks. A
 * song without any has nothing to prove, and is hollow.
 */
export function songMark(state: Pick<AppState, 'fingerprints' | 'proofs'>, song: Song): Lantern {
  const fingerprints = state.fingerprints[song.id];
  const { proofs } = state;
  const known = kept.get(song);
  if (known && known.fingerprints === fingerprints && known.proofs === proofs) return known.mark;
  const ids = new Set(song.cues.filter((c) => !c.muted).map((c) => c.id));
  for (const id of [OPENING_CUE, ...[...song.sweeps, ...song.taps, ...song.clocks].map((s) => s.id)]) {
    // What is not played has no fingerprint.
    if (fingerprints?.[id] !== undefined) ids.add(id);
  }
  if (song.openingToneId !== null) ids.add(OPENING_CUE);
  const mark = sumLanterns([...ids].map((id) => markOf(state, song.id, id)));
  kept.set(song, { fingerprints, proofs, mark });
  return mark;
}

interface ToneMarks {
  readonly songs: unknown;
  readonly fingerprints: unknown;
  readonly proofs: unknown;
  readonly marks: ReadonlyMap<string, Lantern>;
}

let toneMarks: ToneMarks | undefined;

/** A tone's mark: that of every cue, in every song, that places it. All tones are worked out at once. */
export function toneMark(state: Pick<AppState, 'fingerprints' | 'proofs'>, show: Show, toneId: string): Lantern {
  const { fingerprints, proofs } = state;
  const { songs } = show;
  if (toneMarks?.songs !== songs || toneMarks.fingerprints !== fingerprints || toneMarks.proofs !== proofs) {
    const lists = new Map<string, Lantern[]>();
    const add = (id: string, mark: Lantern): void => {
      addTo(lists, id, mark);
    };
    for (const song of songs) {
      const opening = openingOf(show, song);
      if (opening !== null) add(opening, markOf(state, song.id, OPENING_CUE));
      for (const cue of song.cues) {
        if (!cue.muted && cue.action.kind === 'tone') add(cue.action.toneId, markOf(state, song.id, cue.id));
      }
    }
    toneMarks = {
      songs,
      fingerprints,
      proofs,
      marks: new Map([...lists].map(([id, list]) => [id, sumLanterns(list)])),
    };
  }
  return toneMarks.marks.get(toneId) ?? 'hollow';
}

export const showMark = (state: AppState, show: Show): Lantern =>
  sumLanterns(show.set.flatMap((e) => show.songs.filter((s) => s.id === e.songId)).map((s) => songMark(state, s)));

export const useCueMark = (songId: string, cueId: string): Lantern => useApp((s) => markOf(s, songId, cueId));
export const useCueProof = (songId: string, cueId: string): CueProof | undefined =>
  useApp((s) => proofOf(s, songId, cueId));
export const useSongMark = (song: Song): Lantern => useApp((s) => songMark(s, song));
export const useToneMark = (show: Show, toneId: string): Lantern => useApp((s) => toneMark(s, show, toneId));
export const useShowMark = (show: Show): Lantern => useApp((s) => showMark(s, show));
