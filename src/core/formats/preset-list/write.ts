import Papa from 'papaparse';
import { addressOf, labelOf } from '../../addressing';
import type { Unit } from '../../show';

/**
 * A unit's named slots as a table (RFC 4180, UTF-8): label, number from 0 and from 1, bank
 * and program as they are on the wire (empty where no program calls the slot), name.
 */
export function writePresetList(unit: Unit): string {
  const { plan } = unit.profile;
  const rows = unit.slots.map(({ index, name }) => {
    const address = addressOf(plan, index);
    return [labelOf(plan, index), index, index + 1, address?.bank ?? '', address?.program ?? '', name];
  });
  return `${Papa.unparse({ fields: ['label', 'from 0', 'from 1', 'bank', 'program', 'name'], data: rows })}\r\n`;
}
