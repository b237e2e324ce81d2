import { create } from 'zustand';
import type { Finding } from '../../core/checks';
import type { Show, Song } from '../../core/show';
import type { SongPicture } from '../../workers/protocol';

/** What a dry run of a song saw, and of what content. It is kept while the show is open; the lanterns are kept for good. */
export interface Run {
  readonly song: Song;
  readonly rig: Pick<Show, 'units' | 'ports' | 'tones' | 'moves'>;
  readonly findings: readonly Finding[];
  readonly picture: SongPicture;
}

/** Runs that later ones are held against. */
export interface KeptRuns {
  /** When they were kept. */
  readonly at: Date;
  readonly runs: Readonly<Record<string, Run>>;
}

export interface Runs {
  readonly runs: Readonly<Record<string, Run>>;
  readonly kept: KeptRuns | null;
  /** Several songs, one after the other. */
  readonly going: { readonly done: number; readonly of: number; readonly title: string } | null;
}

export const useRuns = create<Runs>(() => ({ runs: {}, kept: null, going: null }));

/** Of another show nothing is kept. */
export const forgetRuns = (): void => useRuns.setState({ runs: {}, kept: null, going: null });

export function keepRun(show: Show, song: Song, found: Pick<Run, 'findings' | 'picture'>): void {
  const { units, ports, tones, moves } = show;
  const run: Run = { song, rig: { units, ports, tones, moves }, findings: found.findings, picture: found.picture };
  useRuns.setState((s) => ({ runs: { ...s.runs, [song.id]: run } }));
}

/** Whether a run saw the song as it is now. */
export const isOfNow = (run: Run, show: Show, song: Song): boolean =>
  run.song === song &&
  run.rig.units === show.units &&
  run.rig.ports === show.ports &&
  run.rig.tones === show.tones &&
  run.rig.moves === show.moves;

/** Keeps what was seen so far, to hold later runs against it; null forgets it. */
export const markRuns = (at: Date | null): void =>
  useRuns.setState((s) => ({ kept: at === null ? null : { at, runs: s.runs } }));

let ticket = 0;

/** Runs songs one after the other, with progress, until all are done or it is cancelled. */
export async function runAll(songs: readonly Song[], prove: (songId: string) => Promise<void>): Promise<void> {
  const mine = ++ticket;
  for (const [done, song] of songs.entries()) {
    useRuns.setState({ going: { done, of: songs.length, title: song.title } });
    await prove(song.id);
    if (mine !== ticket) return;
  }
  useRuns.setState({ going: null });
}

export function cancelRuns(): void {
  ticket++;
  useRuns.setState({ going: null });
}
