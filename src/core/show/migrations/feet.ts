import { each, isData, type Data } from './each';
import type { Migration } from './migration';

const unplaced = (profile: Data): Data => ({ ...profile, controller: null });

/** Foot controllers: how they are laid out, and what is programmed into them. */
export const feet: Migration = {
  from: 7,
  name: 'feet',
  up: (show) => ({
    ...show,
    units: each(show.units, (u) => ({
      ...u,
      profile: isData(u.profile) ? unplaced(u.profile) : u.profile,
      versions: each(u.versions, unplaced),
    })),
    feet: [],
  }),
};
