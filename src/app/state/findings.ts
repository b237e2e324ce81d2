import { useEffect, useMemo } from 'react';
import { acceptedReason, type Finding } from '../../core/checks';
import type { Show, Song } from '../../core/show';
import { checkNow } from './desk';
import { isOfNow, useRuns } from './runs';

const NOTHING: readonly Finding[] = [];

/** What is found in a song as it is now: with what a dry run saw, where there was one; never what was found before an edit. */
export function useSongFindings(show: Show, song: Song): readonly Finding[] {
  const run = useRuns((s) => s.runs[song.id]);
  const checked = useRuns((s) => s.checked[song.id]);
  const fresh = run && isOfNow(run, show, song) ? run : checked && isOfNow(checked, show, song) ? checked : undefined;
  // Every edit has an answer of its own: `show` and `song` are what is asked about.
  const asked = fresh === undefined ? show : null;
  useEffect(() => {
    if (asked) void checkNow(song.id);
  }, [asked, song.id]);
  return useMemo(() => fresh?.findings.filter((f) => acceptedReason(show, f) === undefined) ?? NOTHING, [fresh, show]);
}

/** Those whose place is one cue, or one sweep. */
export const findingsOf = (findings: readonly Finding[], id: string): readonly Finding[] =>
  findings.filter(({ place }) => place.in === 'song' && (place.cueId === id || place.sweepId === id));
