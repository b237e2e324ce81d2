import { encodingClaims } from '../addressing';
import { finding, type Check } from './finding';

/**
 * Names that MIDI 1.0 gives to control numbers (Control Change Messages, table of controller
 * numbers); on a unit that uses a number for something of its own they mislead. By name, in
 * small letters, the numbers that it belongs to.
 */
const GENERIC: ReadonlyMap<string, readonly number[]> = new Map([
  ['modulation', [1]],
  ['modulation wheel', [1]],
  ['breath', [2]],
  ['breath controller', [2]],
  ['foot controller', [4]],
  ['portamento time', [5]],
  ['data entry', [6]],
  ['channel volume', [7]],
  ['balance', [8]],
  ['pan', [10]],
  ['expression', [11]],
  ['expression controller', [11]],
  ['effect control 1', [12]],
  ['effect control 2', [13]],
  ['general purpose controller', [16, 17, 18, 19, 80, 81, 82, 83]],
  ...[16, 17, 18, 19, 80, 81, 82, 83].map((n, i): [string, number[]] => [`general purpose controller ${i + 1}`, [n]]),
  ['damper pedal', [64]],
  ['sustain', [64]],
  ['sustain pedal', [64]],
  ['portamento', [65]],
  ['sostenuto', [66]],
  ['soft pedal', [67]],
  ['legato footswitch', [68]],
  ['hold 2', [69]],
  ['portamento control', [84]],
]);

/** A control named after a number's general meaning, not after what the unit does with it. */
export const genericName: Check = (show) =>
  show.units.flatMap((unit) =>
    unit.profile.controls.flatMap((c) => {
      const general = GENERIC.get(c.name.trim().toLowerCase());
      if (!general) return [];
      const own = encodingClaims(c.encoding).find((claim) => claim.on === 'control')?.number ?? null;
      const named = own !== null && general.includes(own) ? own : general[0]!;
      const data = { unit: unit.name, control: c.name, number: own, named };
      return [finding('map.generic-name', 'note', { in: 'unit', unitId: unit.id, controlId: c.id }, data)];
    }),
  );
