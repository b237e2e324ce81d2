import { each } from './each';
import type { Migration } from './migration';

/** Room for named actions, for sweeps, and for taps that give units the tempo. */
export const movesAndSweeps: Migration = {
  from: 2,
  name: 'moves and sweeps',
  up: (show) => ({ ...show, moves: [], songs: each(show.songs, (s) => ({ ...s, sweeps: [], taps: [] })) }),
};
