import { each } from './each';
import type { Migration } from './migration';

/** Time code: none comes or goes, and no song has a place in it, as before. */
export const timeCode: Migration = {
  from: 10,
  name: 'time code',
  up: (show) => ({
    ...show,
    timeCode: { portId: null, sends: [], rate: '25' },
    songs: each(show['songs'], (song) => ({ ...song, code: null })),
  }),
};
