import { indexShow, type Show, type Song } from '../show';
import { sameControl } from '../rig';
import { contextOf, passMoment } from './context';
import { moments } from './moments';
import { partAims } from './partAims';
import { StateFold } from './stateFold';

/** Something that a tone leaves as it is, where an earlier change of the song has moved it. */
export interface Leftover {
  readonly unitId: string;
  readonly controlId: string;
  readonly value: number;
  /** Id of the moment that left it so: a cue, the opening, a sweep. */
  readonly from: string;
}

/**
 * What a tone's cue leaves on its own units as something before it has set it: controls that the
 * tone does not name, that are not at rest, and that no preset has loaded since.
 */
export function leftovers(show: Show, song: Song, cueId: string): Leftover[] {
  const context = contextOf(show);
  const { tones, units } = indexShow(show);
  const fold = new StateFold(context.units);
  const whose = new Map<string, string>();
  for (const moment of moments(show, song)) {
    const before = new Map<string, Readonly<Record<string, number | 'stored'>>>();
    for (const unit of show.units) before.set(unit.id, { ...fold.get(unit.id).controls });
    const doings = passMoment(show, context, fold, moment, 'changes');
    for (const { unit } of doings) {
      const was = before.get(unit.id)!;
      for (const [id, value] of Object.entries(fold.get(unit.id).controls)) {
        if (was[id] !== value) whose.set(`${unit.id} ${id}`, moment.id);
      }
    }
    if (moment.id !== cueId || moment.action.kind !== 'tone') continue;
    const found: Leftover[] = [];
    for (const [unitId, aim] of partAims(show, tones.get(moment.action.toneId)!)) {
      const unit = units.get(unitId)!;
      for (const control of unit.profile.controls) {
        const value = fold.get(unitId).controls[control.id];
        if (typeof value !== 'number' || aim.controls[control.id] !== undefined) continue;
        const rests = control.rest !== null && sameControl(unit.profile, control.id, value, control.rest);
        const from = whose.get(`${unitId} ${control.id}`);
        if (rests || from === undefined || from === cueId) continue;
        found.push({ unitId, controlId: control.id, value, from });
      }
    }
    return found;
  }
  return [];
}
