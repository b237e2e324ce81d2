import { addressOf, labelOf } from '../addressing';
import { usedSlots } from '../show';
import { finding, type Check } from './finding';

/** A slot that is used, but that no program of the unit's own table calls. */
export const noProgram: Check = (show) =>
  show.units.flatMap((unit) => {
    const { plan } = unit.profile;
    if (!plan.table) return [];
    const used = usedSlots(show, unit.id);
    return unit.slots
      .filter((s) => used.has(s.id) && addressOf(plan, s.index) === undefined)
      .map((s) => {
        const data = { unit: unit.name, label: labelOf(plan, s.index), name: s.name };
        return finding('map.no-program', 'error', { in: 'unit', unitId: unit.id, slotId: s.id }, data);
      });
  });
