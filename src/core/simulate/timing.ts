import { acceptsAgainAfter, effectAfter, type Called, type UnitSpec } from '../rig';
import type { Micros } from '../time';

/** How long each thing takes in a run, asked each time that it happens. */
export interface Timing {
  /** From a message's arrival to its effect. */
  readonly effect: (unit: UnitSpec, called: Called, slot?: number | null) => Micros;
  /** From a recall's arrival until the unit accepts messages again. */
  readonly settle: (unit: UnitSpec) => Micros;
  /** What passing a message on takes, beside its length. */
  readonly thru: (unit: UnitSpec) => Micros;
}

/** Always what the unit's pace says. */
export const BY_PACE: Timing = { effect: effectAfter, settle: acceptsAgainAfter, thru: ({ pace }) => pace.thru };
