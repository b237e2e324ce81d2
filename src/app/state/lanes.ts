import { create } from 'zustand';
import type { Show } from '../../core/show';
import { hushedUnits } from '../../playback';

/** How lanes are looked at and listened to; not part of the show. */
interface Lanes {
  /** Units that are sent nothing while a song plays. */
  readonly muted: ReadonlySet<string>;
  /** Where there are any, only these units are sent anything. */
  readonly solo: ReadonlySet<string>;
  /** Players whose units share one lane. */
  readonly folded: ReadonlySet<string>;
}

const NONE: ReadonlySet<string> = new Set();

export const useLanes = create<Lanes>(() => ({ muted: NONE, solo: NONE, folded: NONE }));

/** Turns one of them about. */
export const toggleLane = (what: keyof Lanes, id: string): void =>
  useLanes.setState((s) => {
    const had = s[what];
    return { [what]: had.has(id) ? new Set([...had].filter((x) => x !== id)) : new Set([...had, id]) };
  });

/** All units are sent what is theirs again. */
export const hearAll = (): void => useLanes.setState({ muted: NONE, solo: NONE });

export const foldAll = (show: Show, fold: boolean): void =>
  useLanes.setState({ folded: fold ? new Set([...show.players.map((p) => p.id), NOBODY]) : NONE });

/** Whom units belong to that have no player. */
export const NOBODY = 'nobody';

/** Units that are sent nothing while a song plays. */
export const hushed = (show: Show, { muted, solo }: Pick<Lanes, 'muted' | 'solo'>): string[] => [
  ...hushedUnits({ show, muted, solo, gone: NONE }),
];
