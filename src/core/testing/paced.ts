import type { Profile } from '../addressing';
import type { Cable } from '../midi';
import { pacesOf, type PortSpec, type UnitSpec } from '../rig';

/** How long a unit of a profile takes, at its worst. */
export function paced(profile: Pick<Profile, 'times'>): Pick<UnitSpec, 'pace' | 'paces'> {
  const paces = pacesOf(profile);
  return { pace: paces.worst, paces };
}

/** A port that adds nothing to the time of its cable. */
export const plainPort = (id: string, cable: Cable): PortSpec => ({
  id,
  cable,
  softThru: false,
  delay: 0,
  delays: { soonest: 0, typical: 0, worst: 0 },
});
