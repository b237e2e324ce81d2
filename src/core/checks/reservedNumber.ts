import { RESERVED_CONTROLS, encodingClaims } from '../addressing';
import { finding, type Check } from './finding';

/** A control on a number that MIDI 1.0 gives a fixed meaning, such as bank select. */
export const reservedNumber: Check = (show) =>
  show.units.flatMap((unit) =>
    unit.profile.controls.flatMap(({ id, name, encoding }) =>
      encodingClaims(encoding)
        .filter((c) => c.on === 'control' && RESERVED_CONTROLS.has(c.number))
        .map(({ number }) =>
          finding(
            'map.reserved-number',
            'warning',
            { in: 'unit', unitId: unit.id, controlId: id },
            { unit: unit.name, control: name, number },
          ),
        ),
    ),
  );
