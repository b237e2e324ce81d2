import type { Effect } from '../addressing';
import type { UnitState, WireProfile } from '../rig';

/** What becomes of an effect's sound when it ends: cut at once, or left to ring. */
export type TailHow = 'cut' | 'rings';

export interface Tail {
  readonly effectId: string;
  readonly how: TailHow;
}

type Way = 'sounds' | 'rings' | 'off' | 'unknown';

/** What an effect does by the switches that decide it. */
function wayOf({ cut, ring }: Effect, { controls }: UnitState): Way {
  const passes = controls[cut];
  if (typeof passes !== 'number') return 'unknown';
  if (passes === 0) return 'off';
  const open = ring === null ? 1 : controls[ring];
  if (typeof open !== 'number') return 'unknown';
  return open === 0 ? 'rings' : 'sounds';
}

/** Trails that end or begin to ring as a unit goes from one state to the next. What was not known to sound has none. */
export function tailsOf({ effects }: WireProfile, before: UnitState, after: UnitState): Tail[] {
  return effects.flatMap((effect): Tail[] => {
    const [was, is] = [wayOf(effect, before), wayOf(effect, after)];
    if (was === 'sounds' && is === 'rings') return [{ effectId: effect.id, how: 'rings' }];
    return (was === 'sounds' || was === 'rings') && is === 'off' ? [{ effectId: effect.id, how: 'cut' }] : [];
  });
}

/** Trails that a preset cuts by loading, where the unit is silent meanwhile. */
export function tailsLost({ effects, silentInGap }: WireProfile, state: UnitState): Tail[] {
  if (!silentInGap) return [];
  return effects
    .filter((e) => ['sounds', 'rings'].includes(wayOf(e, state)))
    .map((e) => ({ effectId: e.id, how: 'cut' }));
}
