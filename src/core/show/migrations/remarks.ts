import { each, isData, type Data } from './each';
import type { Migration } from './migration';

/** Calls count bars: none, as before. */
const counting = (call: unknown): unknown => (isData(call) ? { ...call, count: 0 } : call);

/** Sections with their calls. */
const called = (sections: unknown): unknown =>
  each(sections, (section): Data => ({ ...section, call: counting(section['call']) }));

/** A controller of which nobody described the memory. */
const described = (profile: unknown): unknown =>
  isData(profile) && isData(profile['controller'])
    ? { ...profile, controller: { ...profile['controller'], memory: null } }
    : profile;

/** What stands on switches, without a colour. */
const uncoloured = (layer: Data): Data => ({
  ...layer,
  switches: each(layer['switches'], (s) => ({ ...s, colour: null })),
});

/** Remarks and calls at bars; stems and mixes for ears; whether changes go on into the next song (no, as before). */
export const remarks: Migration = {
  from: 8,
  name: 'remarks',
  up: (show) => ({
    ...show,
    colours: [],
    players: each(show.players, (player) => ({ ...player, colour: null })),
    feet: each(show.feet, (feet) => ({
      ...feet,
      everywhere: isData(feet['everywhere']) ? uncoloured(feet['everywhere']) : feet['everywhere'],
      pages: each(feet['pages'], uncoloured),
    })),
    stems: [],
    ears: [],
    units: each(show.units, (unit) => ({
      ...unit,
      profile: described(unit['profile']),
      versions: Array.isArray(unit['versions']) ? unit['versions'].map(described) : unit['versions'],
    })),
    songs: each(show.songs, (song) => ({
      ...song,
      remarks: [],
      calls: [],
      open: false,
      announce: counting(song['announce']),
      sections: called(song['sections']),
      tracks: each(song['tracks'], (track) => ({ ...track, stemId: null })),
    })),
    sets: each(show.sets, (set) => ({ ...set, runsOn: false })),
  }),
};
