import { indexShow, setOf, withoutControls } from '../show';
import { matchOther, stillThere, writtenOf } from '../tonight';
import { finding, type Check, type Finding } from './finding';

/** What songs, moves and switches do with controls that the unit in the place of ours has not got tonight: it is left out. */
export const leftOut: Check = (show) => {
  const written = writtenOf(show);
  const { units } = indexShow(written);
  return setOf(show).tonight.flatMap((other): Finding[] => {
    const unit = other.how === 'other' ? units.get(other.unitId) : undefined;
    if (other.how !== 'other' || !unit) return [];
    const dropped = new Map<string, Set<string>>();
    withoutControls(written, unit.id, stillThere(matchOther(written, unit, other)), (where, controlId) => {
      const name = unit.profile.controls.find((c) => c.id === controlId)?.name ?? controlId;
      dropped.set(where, (dropped.get(where) ?? new Set()).add(name));
    });
    return [...dropped].map(([where, controls]) =>
      finding(
        'rig.left-out',
        'error',
        { in: 'unit', unitId: unit.id },
        { unit: other.name, where, controls: [...controls] },
      ),
    );
  });
};
