import { StateFold, contextOf, passMoment } from '../../meaning';
import { meets, sameControl, type UnitState } from '../../rig';
import { hasTwoStates, isHeld, type Profile } from '../../addressing';
import { indexShow } from '../../show';
import { barAt, formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import type { Passed } from './facts';
import { inSong, type SongCheck } from './songCheck';

/**
 * An effect that one section switches on and a later one off again: whoever skips the later one,
 * by foot or by hand, still has it on where the song goes on, because the tone there does not
 * speak of it. Playing from there is not concerned: it catches up.
 */
export const sectionState: SongCheck = (facts) => {
  const { show, song, time, passed } = facts;
  const { units } = indexShow(show);
  const context = contextOf(show);
  const starts = song.sections.map((s) => ({ section: s, at: s.bar === 0 ? 0 : barAt(time.bars, s.bar).tick }));
  const found: Finding[] = [];
  for (const [k, { section, at }] of starts.entries()) {
    const here = passed.filter((p) => p.moment.at === at && p.moment.action.kind === 'tone');
    if (k < 2 || here.length === 0) continue;
    const right = here.at(-1)!.after;
    const relayed = new Map<string, string>();
    for (const { section: earlier, at: from } of starts.slice(0, k - 1)) {
      const end = starts[starts.findIndex((s) => s.section === earlier) + 1]!.at;
      const last = lastWithin(passed, from, end);
      if (!last) continue;
      const fold = new StateFold(context.units, last.after);
      for (const { moment } of here) passMoment(show, context, fold, moment, 'changes');
      for (const [unitId, wanted] of Object.entries(right)) {
        const unit = units.get(unitId);
        const left = unit && leftOn(unit.profile, wanted, fold.get(unitId));
        if (unit && left !== undefined) relayed.set(`${unit.name}\n${left}`, earlier.name);
      }
    }
    for (const [key, from] of relayed) {
      const [unit, control] = key.split('\n') as [string, string];
      const data = {
        song: song.title,
        at: formatPosition(time.bars, at, song.bars),
        section: section.name,
        from,
        unit,
        control,
      };
      found.push(finding('song.section-state', 'note', inSong(facts, at, { sectionId: section.id }), data));
    }
  }
  return found;
};

const lastWithin = (passed: readonly Passed[], from: number, to: number): Passed | undefined =>
  passed.findLast((p) => p.moment.at >= from && p.moment.at < to);

/** The name of a switch that is on where it should be off. */
function leftOn(profile: Profile, wanted: UnitState, is: UnitState): string | undefined {
  const same = meets(profile, is, { slot: wanted.slot ?? undefined, controls: {} });
  if (!same) return undefined;
  return profile.controls.find((c) => {
    const [a, b] = [wanted.controls[c.id], is.controls[c.id]];
    const two = hasTwoStates(c.encoding) && !isHeld(c.encoding);
    return two && a === 0 && b === 1 && !sameControl(profile, c.id, a, b);
  })?.name;
}
