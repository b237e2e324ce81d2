import { each, isData, type Data } from './each';
import type { Migration } from './migration';

/** Room for what is heard beside the units: click, calls, tracks; for MIDI clock, patterns for new songs, core tones, accepted findings; how far apart the values of a sweep are; an opening that songs share; slots that nothing can be stored in. */
export const soundAndClock: Migration = {
  from: 3,
  name: 'sound and clock',
  up: (show) => ({
    ...show,
    units: each(show.units, (u) => ({
      ...u,
      profile: liftProfile(u.profile),
      versions: each(u.versions, (v) => liftProfile(v) as Data),
    })),
    tolerance: { after: 2, before: 250 },
    openingToneId: null,
    core: [],
    audio: [],
    accepted: [],
    songs: each(show.songs, (s) => ({
      ...s,
      sections: each(s.sections, (x) => ({ ...x, call: null })),
      opening: 'own',
      sweeps: each(s.sweeps, (x) => ({ ...x, spacing: 10 })),
      clocks: [],
      click: { on: false, countIn: 0, parts: 1 },
      announce: null,
      tracks: [],
      pattern: false,
    })),
  }),
};

/** Nothing was said of what can be stored where: all of it can. */
function liftProfile(profile: unknown): unknown {
  if (!isData(profile) || !isData(profile.plan)) return profile;
  const groups = each(profile.plan.groups, (g) => ({ ...g, readOnly: false }));
  return { ...profile, plan: { ...profile.plan, groups } };
}
