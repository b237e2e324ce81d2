import type { DamagedSong } from '../persistence/shows';
import { create } from 'zustand';
import type { Edit, Show } from '../../core/show';

/** How numbers are shown; what is stored and sent is always counted from 0. */
export type Counting = 'zero' | 'one' | 'label';

/** The light of the desk; `system` follows the computer. */
export type Light = 'light' | 'dark' | 'system';

export interface Done {
  readonly edit: Edit;
  /** What was done, as the undo button says it. */
  readonly label: string;
  /** It is what a night needs: done and undone also while a show is on. */
  readonly forTonight?: boolean;
}

export type SaveState = 'saved' | 'unsaved' | 'conflict' | 'gone' | 'failed';

/** The show that is open, with its way back and forth. */
export interface OpenShow {
  readonly show: Show;
  /** Revision on the shelf that this grew out of; null before the first save. */
  readonly revision: number | null;
  readonly past: readonly Done[];
  readonly future: readonly Done[];
  readonly save: SaveState;
}

/** The document and what is said about it. What changes thirty times a second is in `news`. */
export interface AppState {
  readonly open: OpenShow | null;
  /** Why the show of the address cannot be opened. */
  readonly refusal: string | null;
  readonly counting: Counting;
  readonly light: Light;
  /** The player whose units stand out in views; null for all. */
  readonly playerFilter: string | null;
  /** Shows that this computer shows only the stage of. */
  readonly stageOnly: readonly string[];
  /** Rows of songs of the open show that could not be read, as they lie in the browser's storage. */
  readonly damaged: readonly DamagedSong[];
  /** What the last edit meant beyond itself, for a moment. */
  readonly note: string | null;
}

export const useApp = create<AppState>(() => ({
  open: null,
  refusal: null,
  damaged: [],
  counting: 'label',
  light: 'light',
  note: null,
  stageOnly: [],
  playerFilter: null,
}));

export const setPlayerFilter = (playerFilter: string | null): void => useApp.setState({ playerFilter });

/** The open show. Throws outside the views of a show. */
export function useShow(): Show {
  const show = useApp((s) => s.open?.show);
  if (!show) throw new Error('a view of a show was drawn without one');
  return show;
}
