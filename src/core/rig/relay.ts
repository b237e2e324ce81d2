import type { RelaySpec } from './rigSpec';
import type { Stored } from './unitState';

/**
 * The rules that fire when a unit reaches a slot, or a variant in the slot that it is in.
 * A rule that names no variant waits for the slot alone; one that names a variant fires
 * whenever that variant is reached, also when the preset brings it along.
 */
export function relaysFired(
  relays: readonly RelaySpec[],
  reached: 'slot' | 'variant',
  slot: number | null,
  variant: number | Stored | null,
): readonly RelaySpec[] {
  if (relays.length === 0) return relays;
  return relays.filter((r) => {
    if (r.slot !== null && r.slot !== slot) return false;
    return r.variant === null ? reached === 'slot' : r.variant === variant;
  });
}
