import type { Profile } from '../addressing';

/** A unit's map as far as messages are concerned. How long things take is not in it: that is the unit's pace. */
export type WireProfile = Omit<Profile, 'times'>;
