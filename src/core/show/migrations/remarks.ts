import { each } from './each';
import type { Migration } from './migration';

/** Remarks at bars. */
export const remarks: Migration = {
  from: 8,
  name: 'remarks',
  up: (show) => ({ ...show, songs: each(show.songs, (song) => ({ ...song, remarks: [] })) }),
};
