import { aimOf } from '../../core/meaning';
import { indexShow, type Show, type Tone } from '../../core/show';
import { audition } from '../state/desk';

/** Sends all that a tone wants, unit by unit. */
export async function sendTone(show: Show, tone: Tone): Promise<void> {
  for (const part of tone.parts) {
    const unit = indexShow(show).units.get(part.unitId);
    if (unit) await audition(unit.id, aimOf(unit, part));
  }
}
