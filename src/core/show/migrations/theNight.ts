import { each, isData, type Data } from './each';
import type { Migration } from './migration';

const withIdentity = (unit: Data): Data => ({
  ...unit,
  answered: null,
  profile: isData(unit.profile) ? nobody(unit.profile) : unit.profile,
  versions: each(unit.versions, nobody),
});

const nobody = (profile: Data): Data => ({
  ...profile,
  identity: null,
  silence: { usual: true, bytes: '' },
});

/** Units say who they are; what arrives is reacted to; songs follow a clock and have levels; a set says who and what is missing. */
export const theNight: Migration = {
  from: 6,
  name: 'the night',
  up: (show) => ({
    ...show,
    units: each(show.units, withIdentity),
    songs: each(show.songs, (s) => ({
      ...s,
      tracks: each(s.tracks, (t) => ({ ...t, playerId: null })),
      followsPortId: null,
      levels: { click: 0, calls: 0, backing: 0, guide: 0 },
    })),
    sets: each(show.sets, (s) => ({ ...s, missing: [], tonight: [] })),
    reactions: [],
  }),
};
