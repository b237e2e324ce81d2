import { encodingClaims } from '../addressing';
import { changeProfile, renumbered, withControl } from '../show';
import { finding, type Check } from './finding';

/** A control that follows a shared control number, but has another. */
export const houseDiffers: Check = (show) => {
  const house = new Map(show.house.map((h) => [h.id, h]));
  return show.units.flatMap((unit) =>
    unit.profile.controls.flatMap((control) => {
      const wanted = control.houseId === null ? undefined : house.get(control.houseId);
      const number = encodingClaims(control.encoding)[0]?.number;
      if (!wanted || number === undefined || number === wanted.number) return [];
      const change = changeProfile(show, unit.id, withControl(unit.profile, renumbered(control, wanted.number)));
      const data = { unit: unit.name, control: control.name, number, house: wanted.number, name: wanted.name };
      const place = { in: 'unit', unitId: unit.id, controlId: control.id } as const;
      return [finding('map.house-differs', 'warning', place, data, change.ok ? change.edit : null)];
    }),
  );
};
