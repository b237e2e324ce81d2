import { create } from 'zustand';
import { writtenFixes, type Finding } from '../../core/checks';
import { sameSurroundings, surroundingsOf, type Surroundings } from '../../core/meaning';
import type { CueProof, SongPicture, SongProof } from '../../core/proof';
import { indexShow, type Show, type Song } from '../../core/show';
import { tonightOf, type ShowTonight } from '../../core/tonight';

/** What a dry run of a song saw, and of what content. It is kept while the show is open; proofs are kept for good. */
export interface Run {
  readonly song: Song;
  readonly under: Surroundings;
  readonly findings: readonly Finding[];
  readonly picture: SongPicture;
}

/** All results of proving: lanterns, the dry-run view and findings are drawn from here, and from nowhere else. */
export interface Proofs {
  /** Fingerprints of each song's cues as they are now, by song and cue. A song that is not here is not known to be what was proven. */
  readonly fingerprints: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** What is proven, by song and fingerprint. */
  readonly proofs: Readonly<Record<string, Readonly<Record<string, CueProof>>>>;
  readonly runs: Readonly<Record<string, Run>>;
  /** Songs that are still to be proven, or shown as they are now. */
  readonly waiting: number;
  /** Why proving does not go on; null while it does. */
  readonly trouble: string | null;
}

const NOTHING: Proofs = { fingerprints: {}, proofs: {}, runs: {}, waiting: 0, trouble: null };

export const useProofs = create<Proofs>(() => NOTHING);

export const forgetProofs = (): void => useProofs.setState(NOTHING);

export const runOf = (
  show: ShowTonight,
  song: Song,
  { findings, picture }: Pick<SongProof, 'findings' | 'picture'>,
): Run => ({
  song,
  under: surroundingsOf(show),
  // A thread knows nothing of the show as it is written.
  findings: writtenFixes(show, findings),
  picture,
});

/** Whether a run saw the song as it is now, by its names too. */
export function isOfNow(run: Run, show: Show, song: Song): boolean {
  // What is proven is what is played tonight.
  const tonight = tonightOf(show);
  return run.song === indexShow(tonight).songs.get(song.id) && sameSurroundings(run.under, tonight);
}
