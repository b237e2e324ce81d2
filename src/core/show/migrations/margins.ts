import { each, isData, type Data } from './each';
import type { Migration } from './migration';

/** One figure of an older show. Nobody wrote down where it was from, so it counts as a guess. */
const once = (millis: unknown): unknown => ({ typical: millis, worst: null, source: 'guess', trials: [], date: null });

/** None at all, for certain. */
const none = { typical: 0, worst: 0, source: 'guess', trials: [], date: null };

/** A profile whose times may vary. */
function varying(profile: unknown): unknown {
  if (!isData(profile) || !isData(profile['times'])) return profile;
  const times = Object.entries(profile['times']).map(([thing, millis]): [string, unknown] => [thing, once(millis)]);
  return { ...profile, times: { ...Object.fromEntries(times), thru: none } };
}

/** Times with a typical and a worst figure, by slot where one differs, of ports and thrus too; margin and guard. */
export const margins: Migration = {
  from: 9,
  name: 'margins',
  up: (show) => ({
    ...show,
    margin: 5,
    guard: 3,
    ports: each(show['ports'], (port) => ({ ...port, delay: none, known: { out: '', in: '' } })),
    units: each(show['units'], (unit): Data => ({
      ...unit,
      profile: varying(unit['profile']),
      versions: Array.isArray(unit['versions']) ? unit['versions'].map(varying) : unit['versions'],
      slots: each(unit['slots'], (slot) => ({ ...slot, recall: null })),
      margin: null,
      guard: null,
    })),
  }),
};
