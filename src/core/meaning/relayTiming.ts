import { acceptsAgainAfter, effectAfter } from '../rig';
import type { Micros } from '../time';
import type { RelayCall } from './course';

// When relay rules may call a unit, and when it is through with it. All times count from the effect that fires the rules.

/** So that what two relay rules call comes one after the other also by the last nanosecond. */
const BEHIND: Micros = 1;

/** When a unit that was called accepts messages again, and when what was called is there. */
export interface CalledUntil {
  readonly settled: Micros;
  readonly there: Micros;
}

/** What is ignored as reckoned may come a little later, and be taken: it counts as if it were. */
export function calledUntil({
  unit,
  arrives,
  there,
}: Pick<RelayCall<unknown>, 'unit' | 'arrives' | 'there'>): CalledUntil {
  return { settled: arrives + acceptsAgainAfter(unit), there: there ?? arrives + effectAfter(unit, 'recall') };
}

/** The earliest effect whose call reaches the unit when it accepts messages again. */
export const afterSettled = (
  settled: Micros,
  { first, spread }: Pick<RelayCall<unknown>, 'first' | 'spread'>,
): Micros => settled - first + spread;

/** The earliest effect whose call takes effect after what was called before. */
export const afterThere = (
  there: Micros,
  { arrives, spread }: Pick<RelayCall<unknown>, 'arrives' | 'spread'>,
): Micros => there + BEHIND - arrives + spread;
