import { storingSteps } from '../meaning';
import { finding, type Check } from './finding';

/** A stored state that another unit calls, but of which nobody wrote down how the panel stands. */
export const stateUndescribed: Check = (show) =>
  show.units.flatMap((unit) =>
    storingSteps(show, unit).flatMap(({ slotId, label, panel }) => {
      const missing = panel.filter((p) => p.setting === null).map((p) => p.name);
      if (missing.length === 0) return [];
      const place = { in: 'unit', unitId: unit.id, slotId } as const;
      return [finding('map.state-undescribed', 'warning', place, { unit: unit.name, label, missing })];
    }),
  );
