import { keepsOf } from '../addressing';
import { aimOf } from '../meaning';
import { indexShow, slotsById } from '../show';
import { finding, type Check } from './finding';

/**
 * A tone that wants a state of a switch that only turns over, with a preset of which nobody
 * wrote down how it stores that switch: sending it is as likely wrong as right.
 */
export const flipUnknown: Check = (show) =>
  show.tones.flatMap((tone) =>
    tone.parts.flatMap((part) => {
      const unit = indexShow(show).units.get(part.unitId);
      if (!unit) return [];
      const { controls } = aimOf(unit, part);
      const slot = part.slotId === null ? undefined : slotsById(unit).get(part.slotId);
      // A part without a slot rests on what came before, which a dry run of the song tells.
      if (part.slotId === null || !unit.profile.recallLoads.controls) return [];
      return unit.profile.controls
        .filter((c) => keepsOf(c.encoding) === 'flip' && controls[c.id] !== undefined)
        .filter((c) => !slot?.startControls.some((s) => s.controlId === c.id))
        .map((c) =>
          finding(
            'tone.flip-unknown',
            'warning',
            { in: 'tone', toneId: tone.id, unitId: unit.id },
            { tone: tone.name, unit: unit.name, control: c.name },
          ),
        );
    }),
  );
