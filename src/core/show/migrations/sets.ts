import { each } from './each';
import type { Migration } from './migration';

/** A show has several running orders, with breaks and notes; songs say what follows them, and whether they have a clock. */
export const sets: Migration = {
  from: 5,
  name: 'sets',
  up: ({ set, ...show }) => ({
    ...show,
    songs: each(show.songs, (s) => ({ ...s, stepped: false })),
    sets: [
      {
        id: 'set',
        title: 'Set',
        onStage: null,
        between: 30,
        entries: each(set, (e) => ({ kind: 'song', ...e, follow: 'wait', pause: 0, bridgeToneId: null, launch: null })),
      },
    ],
    setId: 'set',
  }),
};
