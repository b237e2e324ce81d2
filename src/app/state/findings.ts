import { useMemo } from 'react';
import { acceptedReason, checkRig, type Finding } from '../../core/checks';
import { songsOfSet, type Show, type Song } from '../../core/show';
import { tonightOf } from '../../core/tonight';
import { isOfNow, useProofs, type Run } from './proofs';

const NOTHING: readonly Finding[] = [];

/** What is found in a song in sight as it is now; never what was found before an edit. */
export function useSongFindings(show: Show, song: Song): readonly Finding[] {
  const run = useProofs((s) => s.runs[song.id]);
  const fresh = run && isOfNow(run, show, song) ? run : undefined;
  return useMemo(() => fresh?.findings.filter((f) => acceptedReason(show, f) === undefined) ?? NOTHING, [fresh, show]);
}

const GRAVITY = { error: 0, warning: 1, note: 2 } as const;

/**
 * What is found in the rig, its map and the songs of the set, as far as dry runs of now have told: what is let be too.
 * The gravest first; of the same gravity the rig, then songs in the order of the set, each in the order of time.
 */
export function allFindings(show: Show, runs: Readonly<Record<string, Run>>): readonly Finding[] {
  const songs = [...new Set(songsOfSet(show))];
  const found = songs.flatMap((song) => {
    const run = runs[song.id];
    return run && isOfNow(run, show, song) ? run.findings.toSorted((a, b) => timeOf(a) - timeOf(b)) : NOTHING;
  });
  return [...checkRig(tonightOf(show)), ...found].toSorted((a, b) => GRAVITY[a.severity] - GRAVITY[b.severity]);
}

/** Whether something is wrong: a note only says what is not finished yet. */
export const isWrong = ({ severity }: Finding): boolean => severity !== 'note';

const timeOf = ({ place }: Finding): number => (place.in === 'song' ? place.at : 0);

/** The same of the show that is open, and how many of them are open. */
export const useAllFindings = (show: Show): AllFound =>
  foundOf(
    show,
    useProofs((s) => s.runs),
  );

interface AllFound {
  readonly findings: readonly Finding[];
  readonly open: number;
  /** Of these, such as are wrong: all others say what is not finished yet. */
  readonly wrong: number;
}

let last: ({ readonly show: Show; readonly runs: unknown } & AllFound) | null = null;

/** The head, the set and the start of a show ask for the same: it is reckoned once. */
function foundOf(show: Show, runs: Readonly<Record<string, Run>>): AllFound {
  if (last?.show !== show || last.runs !== runs) {
    const findings = allFindings(show, runs);
    const open = findings.filter((f) => acceptedReason(show, f) === undefined);
    last = { show, runs, findings, open: open.length, wrong: open.filter(isWrong).length };
  }
  return last;
}

/** Those whose place is one cue, or one sweep. */
export const findingsOf = (findings: readonly Finding[], id: string): readonly Finding[] =>
  findings.filter(({ place }) => place.in === 'song' && (place.cueId === id || place.sweepId === id));
