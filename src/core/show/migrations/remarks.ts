import { each } from './each';
import type { Migration } from './migration';

/** Remarks at bars; whether changes go on into the next song (no, as before). */
export const remarks: Migration = {
  from: 8,
  name: 'remarks',
  up: (show) => ({
    ...show,
    songs: each(show.songs, (song) => ({ ...song, remarks: [] })),
    sets: each(show.sets, (set) => ({ ...set, runsOn: false })),
  }),
};
