import { useMemo } from 'react';
import { acceptedReason, type Finding } from '../../core/checks';
import { songsOfSet, type Show, type Song } from '../../core/show';
import { isOfNow, useProofs } from './proofs';

const NOTHING: readonly Finding[] = [];

/** What is found in a song in sight as it is now; never what was found before an edit. */
export function useSongFindings(show: Show, song: Song): readonly Finding[] {
  const run = useProofs((s) => s.runs[song.id]);
  const fresh = run && isOfNow(run, show, song) ? run : undefined;
  return useMemo(() => fresh?.findings.filter((f) => acceptedReason(show, f) === undefined) ?? NOTHING, [fresh, show]);
}

/** How many findings of the set's songs are open, as far as dry runs of now have told. */
export function useOpenFindings(show: Show): number {
  const runs = useProofs((s) => s.runs);
  return useMemo(
    () =>
      songsOfSet(show).reduce((sum, song) => {
        const run = runs[song.id];
        if (!run || !isOfNow(run, show, song)) return sum;
        return sum + run.findings.filter((f) => acceptedReason(show, f) === undefined).length;
      }, 0),
    [runs, show],
  );
}

/** Those whose place is one cue, or one sweep. */
export const findingsOf = (findings: readonly Finding[], id: string): readonly Finding[] =>
  findings.filter(({ place }) => place.in === 'song' && (place.cueId === id || place.sweepId === id));
