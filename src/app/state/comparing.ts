import { create } from 'zustand';
import { applyEdit, indexShow, invertEdit, type Show } from '../../core/show';
import { tonightOf } from '../../core/tonight';
import type { SongProof } from '../../core/proof';
import { runOf, type Run } from './proofs';
import type { Done, OpenShow } from './store';

/** A state that the show was in, which the present one is compared with. */
export interface Compared {
  /** What was done next, as its button says it. */
  readonly before: string;
  readonly show: Show;
  /** Its songs, as far as they were run. */
  readonly runs: Readonly<Record<string, Run>>;
}

export const useComparing = create<{ readonly compared: Compared | null }>(() => ({ compared: null }));

/** States that can be chosen, the latest first: each before something that was done. */
export const earlierStates = ({
  past,
}: Pick<OpenShow, 'past'>): readonly { readonly at: number; readonly done: Done }[] =>
  past.map((done, at) => ({ at, done })).toReversed();

/** The show as it was before something that was done, counted from the first. */
export const stateBefore = ({ show, past }: Pick<OpenShow, 'show' | 'past'>, at: number): Show =>
  past.slice(at).reduceRight((state, { edit }) => applyEdit(state, invertEdit(edit)), show);

/** Chooses the state to compare with; null compares with nothing. */
export function compareWith(open: Pick<OpenShow, 'show' | 'past'>, at: number | null): void {
  const done = at === null ? undefined : open.past[at];
  const compared = at === null || !done ? null : { before: done.label, show: stateBefore(open, at), runs: {} };
  useComparing.setState({ compared });
}

/** Runs songs of the state that is compared with, one after the other. */
export async function runCompared(
  songIds: readonly string[],
  prove: (show: Show, songId: string) => Promise<SongProof>,
): Promise<void> {
  const chosen = useComparing.getState().compared;
  if (!chosen) return;
  for (const id of songIds) {
    const tonight = tonightOf(chosen.show);
    const song = indexShow(tonight).songs.get(id);
    const now = useComparing.getState().compared;
    // Another state may have been chosen meanwhile.
    if (now?.show !== chosen.show) return;
    if (!song || now.runs[id]) continue;
    const run = runOf(tonight, song, await prove(tonight, id));
    useComparing.setState(({ compared }) =>
      compared?.show === chosen.show ? { compared: { ...compared, runs: { ...compared.runs, [id]: run } } } : {},
    );
  }
}
