import { create } from 'zustand';
import type { Edit, Show } from '../../core/show';
import type { MonitorLine, PlaybackNews } from '../../playback';
import type { CueProof } from '../../core/proof';

/** How numbers are shown; what is stored and sent is always counted from 0. */
export type Counting = 'zero' | 'one' | 'label';

export interface Done {
  readonly edit: Edit;
  /** What was done, as the undo button says it. */
  readonly label: string;
}

export type SaveState = 'saved' | 'unsaved' | 'conflict' | 'failed';

/** The show that is open, with its way back and forth. */
export interface OpenShow {
  readonly show: Show;
  /** Revision on the shelf that this grew out of; null before the first save. */
  readonly revision: number | null;
  readonly past: readonly Done[];
  readonly future: readonly Done[];
  readonly save: SaveState;
}

export type Fingerprints = Readonly<Record<string, Readonly<Record<string, string>>>>;

export interface AppState {
  readonly open: OpenShow | null;
  /** Why the show of the address cannot be opened. */
  readonly refusal: string | null;
  readonly fingerprints: Fingerprints;
  readonly proofs: Readonly<Record<string, CueProof>>;
  /** Songs that a dry run is going on for. */
  readonly proving: readonly string[];
  readonly news: PlaybackNews;
  /** What left and arrived, oldest first. */
  readonly lines: readonly MonitorLine[];
  readonly counting: Counting;
  /** The player whose units stand out in views; null for all. */
  readonly playerFilter: string | null;
  /** What the last edit meant beyond itself, for a moment. */
  readonly note: string | null;
}

const COUNTING_KEY = 'hollow-lantern.counting';

function storedCounting(): Counting {
  const text = localStorage.getItem(COUNTING_KEY);
  return text === 'zero' || text === 'one' ? text : 'label';
}

export const useApp = create<AppState>(() => ({
  open: null,
  refusal: null,
  fingerprints: {},
  proofs: {},
  proving: [],
  news: {
    playing: false,
    songId: null,
    place: 0,
    from: null,
    zero: null,
    rig: {},
    loading: [],
    walk: null,
    lesson: null,
  },
  lines: [],
  counting: storedCounting(),
  note: null,
  playerFilter: null,
}));

export function setCounting(counting: Counting): void {
  localStorage.setItem(COUNTING_KEY, counting);
  useApp.setState({ counting });
}

export const setPlayerFilter = (playerFilter: string | null): void => useApp.setState({ playerFilter });

/** The open show. Throws outside the views of a show. */
export function useShow(): Show {
  const show = useApp((s) => s.open?.show);
  if (!show) throw new Error('a view of a show was drawn without one');
  return show;
}
