import type { Check } from '../finding';
import { boatPassedOn, boatShared, boatUnreached } from './boats';
import { callsTaken } from './calls';
import { labelsDiffer, pagesFit, pedalsMeanOne } from './pages';
import { footInTime, pagesLeadOn, tonesReached } from './reach';
import { switchesHold } from './switches';

/** All checks of what is programmed into foot controllers. */
export const FEET_CHECKS: readonly Check[] = [
  pagesFit,
  switchesHold,
  boatUnreached,
  boatShared,
  boatPassedOn,
  callsTaken,
  tonesReached,
  footInTime,
  pagesLeadOn,
  pedalsMeanOne,
  labelsDiffer,
];
