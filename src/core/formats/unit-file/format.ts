import type { Unit } from '../../show';

export const UNIT_FORMAT = 'hollow-lantern-unit';

/** What a unit's file holds of it: all that is true of the unit wherever it stands. Cables, channel and relay rules belong to a rig. */
export type UnitParts = Pick<Unit, 'name' | 'monogram' | 'profile' | 'versions' | 'slots'>;
