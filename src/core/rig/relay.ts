import type { RelaySpec } from './rigSpec';
import type { Stored } from './unitState';

/**
 * The rules that fire when a unit reaches a slot, or a variant in the slot that it is in.
 * A rule that names no variant waits for the slot alone; one that names a variant fires
 * whenever that variant is reached, also when the preset brings it along. Rules that wait for
 * the slot alone are carried out first.
 */
export function relaysFired(
  relays: readonly RelaySpec[],
  reached: 'slot' | 'variant',
  slot: number | null,
  variant: number | Stored | null,
): readonly RelaySpec[] {
  if (relays.length === 0) return relays;
  const holds = (r: RelaySpec): boolean => r.slot === null || r.slot === slot;
  const bySlot = reached === 'slot' ? relays.filter((r) => r.variant === null && holds(r)) : [];
  return [...bySlot, ...relays.filter((r) => r.variant !== null && r.variant === variant && holds(r))];
}
