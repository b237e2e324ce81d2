import type { UnitAim } from '../../core/rig';
import { millisToMicros, type Micros } from '../../core/time';

/** A run through places or values of a unit, one every so often. */
export interface Walk {
  readonly unitId: string;
  readonly aims: readonly UnitAim[];
  readonly everyMillis: number;
}

/** A walk under way. */
export interface Walking extends Walk {
  /** The aim that was sent last, counted from 0; -1 before the first. */
  readonly at: number;
  readonly next: Micros;
}

export const startWalk = (walk: Walk, now: Micros): Walking | null =>
  walk.aims.length === 0 ? null : { ...walk, at: -1, next: now };

/** Where a walk is at a time, and the aim that is sent now, if any. It ends one step after its last aim. */
export function walkOn(walking: Walking, now: Micros): { readonly walking: Walking | null; readonly aim?: UnitAim } {
  if (now < walking.next) return { walking };
  const at = walking.at + 1;
  const aim = walking.aims[at];
  if (!aim) return { walking: null };
  return { walking: { ...walking, at, next: now + millisToMicros(walking.everyMillis) }, aim };
}
