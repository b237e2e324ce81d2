import { addressOf, labelOf } from '../../addressing';
import { csvText } from '../../csvText';
import type { ReorderLine, Unit } from '../../show';

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
  return csvText([['label', 'from 0', 'from 1', 'bank', 'program', 'name'], ...rows]);
}

/** The before-and-after list of a reorder as a table (RFC 4180, UTF-8), to keep beside the rig. */
export function writeReorderList(unit: Unit, lines: readonly ReorderLine[]): string {
  const { plan } = unit.profile;
  const cells = (place: ReorderLine['before']) => {
    const address = place && addressOf(plan, place.index);
    return place
      ? [labelOf(plan, place.index), address?.bank ?? '', address?.program ?? '', place.name]
      : ['', '', '', ''];
  };
  const side = (when: string) => [`label ${when}`, `bank ${when}`, `program ${when}`, `name ${when}`];
  const fields = ['change', ...side('before'), ...side('after')];
  return csvText([fields, ...lines.map((l) => [l.what, ...cells(l.before), ...cells(l.after)])]);
}
