import { finding, type Check } from './finding';

/** Names that MIDI 1.0 gives to control numbers; on a unit that uses the number for something of its own they mislead. */
const GENERIC = new Set([
  'modulation',
  'modulation wheel',
  'breath',
  'breath controller',
  'foot controller',
  'portamento',
  'portamento time',
  'data entry',
  'balance',
  'pan',
  'expression',
  'expression controller',
  'damper pedal',
  'sustain pedal',
  'sostenuto',
  'soft pedal',
  'legato footswitch',
  'hold 2',
  'general purpose controller',
  'effect control 1',
  'effect control 2',
]);

/** A control named after its number's general meaning, not after what the unit does with it. */
export const genericName: Check = (show) =>
  show.units.flatMap((unit) =>
    unit.profile.controls
      .filter((c) => GENERIC.has(c.name.trim().toLowerCase()))
      .map((c) =>
        finding(
          'map.generic-name',
          'note',
          { in: 'unit', unitId: unit.id, controlId: c.id },
          { unit: unit.name, control: c.name },
        ),
      ),
  );
