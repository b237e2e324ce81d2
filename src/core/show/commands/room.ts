import type { Edit } from '../edits';
import { indexShow } from '../find';
import { RANGES } from '../limits';
import type { Show } from '../schema';

/** What is kept free around changes, in milliseconds. */
export type RoomField = 'margin' | 'guard';

const rangeOf = { margin: RANGES.marginMillis, guard: RANGES.guardMillis } as const;

const fits = (field: RoomField, millis: number): boolean => millis >= rangeOf[field][0] && millis <= rangeOf[field][1];

/** Sets what the show keeps free around changes. Null when nothing would change, or out of range. */
export const setRoom = (show: Show, field: RoomField, millis: number): Edit | null =>
  !fits(field, millis) || show[field] === millis
    ? null
    : { kind: 'set', path: [field], before: show[field], after: millis };

/** The same for the changes of one unit; null for the show's. */
export function setUnitRoom(show: Show, unitId: string, field: RoomField, millis: number | null): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit || unit[field] === millis || (millis !== null && !fits(field, millis))) return null;
  return { kind: 'set', path: ['units', { id: unitId }, field], before: unit[field], after: millis };
}
