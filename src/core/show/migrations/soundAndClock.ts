import { each } from './each';
import type { Migration } from './index';

/** Room for what is heard beside the units: click, calls, tracks; for MIDI clock, patterns for new songs, core tones, accepted findings; how far apart the values of a sweep are. */
export const soundAndClock: Migration = {
  from: 3,
  name: 'sound and clock',
  up: (show) => ({
    ...show,
    core: [],
    audio: [],
    accepted: [],
    songs: each(show.songs, (s) => ({
      ...s,
      sections: each(s.sections, (x) => ({ ...x, call: null })),
      sweeps: each(s.sweeps, (x) => ({ ...x, spacing: 10 })),
      clocks: [],
      click: { on: false, countIn: 0, parts: 1 },
      announce: null,
      tracks: [],
      pattern: false,
    })),
  }),
};
