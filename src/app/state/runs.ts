import { create } from 'zustand';
import type { Finding } from '../../core/checks';
import { sameSurroundings, surroundingsOf, type Surroundings } from '../../core/meaning';
import type { Show, Song } from '../../core/show';
import type { SongPicture } from '../../core/proof';

/** What a dry run of a song saw, and of what content. It is kept while the show is open; the lanterns are kept for good. */
export interface Run {
  readonly song: Song;
  readonly under: Surroundings;
  readonly findings: readonly Finding[];
  readonly picture: SongPicture;
}

/** What the checks say of a song that was not played. */
export type Checked = Omit<Run, 'picture'>;

/** Runs that later ones are compared with. */
export interface KeptRuns {
  /** When they were kept. */
  readonly at: Date;
  readonly runs: Readonly<Record<string, Run>>;
}

export interface Runs {
  readonly runs: Readonly<Record<string, Run>>;
  readonly checked: Readonly<Record<string, Checked>>;
  readonly kept: KeptRuns | null;
  /** Several songs, one after the other. */
  readonly going: { readonly done: number; readonly of: number; readonly title: string } | null;
}

export const useRuns = create<Runs>(() => ({ runs: {}, checked: {}, kept: null, going: null }));

/** Of another show nothing is kept. */
export const forgetRuns = (): void => useRuns.setState({ runs: {}, checked: {}, kept: null, going: null });

export function keepRun(show: Show, song: Song, found: Pick<Run, 'findings' | 'picture'>): void {
  const run: Run = { song, under: surroundingsOf(show), findings: found.findings, picture: found.picture };
  useRuns.setState((s) => ({ runs: { ...s.runs, [song.id]: run } }));
}

export function keepChecked(show: Show, song: Song, findings: readonly Finding[]): void {
  useRuns.setState((s) => ({ checked: { ...s.checked, [song.id]: { song, under: surroundingsOf(show), findings } } }));
}

/** Whether a run, or a check, saw the song as it is now. */
export const isOfNow = (run: Checked, show: Show, song: Song): boolean =>
  run.song === song && sameSurroundings(run.under, show);

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
