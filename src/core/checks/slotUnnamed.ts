import { labelOf } from '../addressing';
import { usedSlots } from '../show';
import { finding, type Check } from './finding';

/** A slot that tones or relay rules use, and of which nobody wrote down what is in it. */
export const slotUnnamed: Check = (show) =>
  show.units.flatMap((unit) => {
    const used = usedSlots(show, unit.id);
    return unit.slots
      .filter((s) => used.has(s.id) && s.name.trim() === '')
      .map((s) => {
        const data = { unit: unit.name, label: labelOf(unit.profile.plan, s.index) };
        return finding('map.slot-unnamed', 'note', { in: 'unit', unitId: unit.id, slotId: s.id }, data);
      });
  });
