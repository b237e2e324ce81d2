import { slotUses } from '../show';
import { finding, type Check } from './finding';

/** A preset that tones want and that the unit's list has no longer. */
export const slotLost: Check = (show) =>
  show.units.flatMap((unit) =>
    unit.lostSlots.flatMap(({ id, name }) => {
      const tones = slotUses(show, unit.id, id).length;
      if (tones === 0) return [];
      const place = { in: 'unit', unitId: unit.id, slotId: id } as const;
      return [finding('map.slot-lost', 'error', place, { unit: unit.name, name, tones })];
    }),
  );
