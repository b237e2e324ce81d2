import { indexShow, switchVersion, type Show, type Unit } from '../show';
import { finding, type Check, type Finding } from './finding';

/** What a unit said of itself when it was asked is not what its map is made for: another firmware, or another unit. */
export const firmwareDiffers: Check = (show) =>
  show.units.flatMap((unit): Finding[] => {
    const { answered, name, profile } = unit;
    const known = profile.identity;
    if (!answered || !known) return [];
    const place = { in: 'unit', unitId: unit.id } as const;
    const kind = (i: typeof known): string => `${i.maker} ${i.family} ${i.member}`;
    if (kind(answered) !== kind(known)) {
      return [
        finding('rig.other-unit', 'error', place, { unit: name, expected: kind(known), answered: kind(answered) }),
      ];
    }
    if (answered.version === known.version) return [];
    const data = { unit: name, mapped: known.version, answered: answered.version };
    return [finding('rig.firmware-differs', 'warning', place, data, toVersion(show, unit, answered.version))];
  });

/** Over to the version of the map that is made for a firmware, where there is one and nothing is lost by it. */
function toVersion(show: Show, unit: Unit, version: string) {
  const index = (indexShow(show).units.get(unit.id)?.versions ?? []).findIndex((v) => v.identity?.version === version);
  if (index < 0) return null;
  const change = switchVersion(show, unit.id, index);
  return change.ok && change.dropped.length === 0 ? change.edit : null;
}
