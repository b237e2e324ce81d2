import { groupOf } from '../addressing';
import { slotsById } from '../show';
import { storingSteps } from '../meaning';
import { finding, type Check } from './finding';

/** A state that has to be stored in a unit, for another to call it, in a slot that nothing can be stored in. */
export const readOnlySlot: Check = (show) =>
  show.units.flatMap((unit) =>
    storingSteps(show, unit).flatMap(({ slotId, label, panel }) => {
      const slot = slotsById(unit).get(slotId);
      const group = slot && groupOf(unit.profile.plan, slot.index).group;
      // Where a state is all in the preset, a preset of the maker's may be what is wanted.
      if (!group?.readOnly || panel.length === 0) return [];
      const place = { in: 'unit', unitId: unit.id, slotId } as const;
      return [finding('map.read-only', 'error', place, { unit: unit.name, label, group: group.name })];
    }),
  );
