import type { Show } from '../show';
import { demoShow } from './demoShow';
import type { Fault } from './faultParts';
import { FEET_FAULTS } from './feetFaults';
import { RIG_FAULTS } from './rigFaults';
import { SONG_FAULTS } from './songFaults';

/** What the checks have to find, one fault a code. Together they make the faulty copy of the demo. */
export const FAULTS: readonly Fault[] = [...RIG_FAULTS, ...FEET_FAULTS, ...SONG_FAULTS];

/** The demo with all faults in it. */
export const faultyDemo = (): Show => ({
  ...FAULTS.reduce((show, fault) => fault.into(show), demoShow()),
  id: 'winter-pier-faulty',
  title: 'Winter Pier Residency, with faults',
});
