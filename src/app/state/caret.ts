import { create } from 'zustand';
import type { Ticks } from '../../core/time';

/** Where the next thing goes, and where playing starts: a place in a song. */
export interface Caret {
  readonly songId: string | null;
  readonly at: Ticks;
}

export const useCaret = create<Caret>(() => ({ songId: null, at: 0 }));

export const setCaret = (songId: string, at: Ticks): void => useCaret.setState({ songId, at: Math.max(0, at) });
