import { addTo } from '../../groups';
import { indexShow, removeCue, type Cue, type Tone } from '../../show';
import { toneAims } from '../../meaning';
import { sameControl, type UnitAim } from '../../rig';
import type { Profile } from '../../addressing';
import { formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/**
 * Two tones at one place that want different things of one unit: whichever comes last wins, which nobody sees. Of several
 * that one clashes with, the nearest before it is told.
 */
export const tonesClash: SongCheck = (facts) => {
  const { show, song, time } = facts;
  const { tones, units } = indexShow(show);
  const found: Finding[] = [];
  const byPlace = new Map<string, Cue[]>();
  for (const cue of song.cues) {
    if (cue.muted || cue.action.kind !== 'tone') continue;
    const key = `${cue.at} ${cue.shift}`;
    addTo(byPlace, key, cue);
  }
  for (const list of byPlace.values()) {
    /** Tones at this place by now, each with its last cue, the newest last. */
    const before = new Map<Tone, Cue>();
    for (const second of list) {
      const b = tones.get(second.action.kind === 'tone' ? second.action.toneId : '');
      if (!b) continue;
      for (const [a, first] of [...before].toReversed()) {
        if (a === b) continue;
        const [own, other] = [toneAims(show, a), toneAims(show, b)];
        const unitId = [...own.keys()].find((id) => {
          const unit = units.get(id);
          return unit && other.has(id) && differ(unit.profile, own.get(id)!, other.get(id)!);
        });
        if (unitId === undefined) continue;
        const at = formatPosition(time.bars, second.at, song.bars);
        const data = { song: song.title, at, first: a.name, second: b.name, unit: units.get(unitId)!.name };
        const place = inSong(facts, second.at, { cueId: second.id });
        // The first has no say where every unit of it is named by the second too.
        const swallowed = [...own.keys()].every((id) => other.has(id));
        found.push(
          finding('song.tones-clash', 'error', place, data, swallowed ? removeCue(show, song.id, first.id) : null),
        );
        break;
      }
      before.delete(b);
      before.set(b, second);
    }
  }
  return found;
};

function differ(profile: Profile, a: UnitAim, b: UnitAim): boolean {
  if (a.slot !== undefined && b.slot !== undefined && a.slot !== b.slot) return true;
  if (a.variant !== undefined && b.variant !== undefined && a.variant !== b.variant) return true;
  return Object.entries(a.controls).some(
    ([id, value]) => b.controls[id] !== undefined && !sameControl(profile, id, value, b.controls[id]),
  );
}
