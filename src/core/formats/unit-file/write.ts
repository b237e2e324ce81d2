import { SHOW_VERSION, type HouseNumber, type Show, type Unit } from '../../show';
import { UNIT_FORMAT, type UnitParts } from './format';

const fileText = (parts: UnitParts, house: readonly HouseNumber[]): string => {
  const { name, monogram, profile, versions, slots } = parts;
  const unit = { name, monogram, profile, versions, slots };
  return `${JSON.stringify({ format: UNIT_FORMAT, version: SHOW_VERSION, unit, house }, null, 1)}\n`;
};

/** A unit's map as the text of a file of its own: profile, versions, named slots, and the shared control numbers that it follows. */
export function writeUnitFile(show: Show, unit: Unit): string {
  const followed = new Set([unit.profile, ...unit.versions].flatMap((p) => p.controls.map((c) => c.houseId)));
  return fileText(
    unit,
    show.house.filter((h) => followed.has(h.id)),
  );
}

/** A library entry as a unit's file: a starting point for somebody else. */
export const writeProfileFile = (entry: Pick<UnitParts, 'profile' | 'versions'>): string =>
  fileText(
    { name: entry.profile.name, monogram: entry.profile.name.slice(0, 2).toUpperCase(), slots: [], ...entry },
    [],
  );
