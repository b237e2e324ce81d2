import { worstOf } from '../../addressing';
import { indexShow, microsAt } from '../../show';
import { formatPosition, millisToMicros } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** How long before a change its messages may leave, and after it its effect may come. */
const AROUND = millisToMicros(400);

/** A tone that lets an effect ring, on a unit that cuts it by loading a preset for the same change. */
export const trailCut: SongCheck = (facts) => {
  const { show, song, time, passed, run } = facts;
  if (!run) return [];
  const { units, tones } = indexShow(show);
  const found: Finding[] = [];
  for (const { moment } of passed) {
    const { action } = moment;
    if (action.kind !== 'tone') continue;
    const due = microsAt(time, moment.at) + millisToMicros(moment.shift);
    for (const { unitId, effects } of tones.get(action.toneId)?.parts ?? []) {
      const unit = units.get(unitId);
      for (const { effectId, how } of effects) {
        const effect = unit?.profile.effects.find((e) => e.id === effectId);
        if (!unit || !effect || how !== 'ring') continue;
        const load = millisToMicros(worstOf(unit.profile.times.recall)) + AROUND;
        const cut = run.dry.trace.some(
          (t) =>
            t.kind === 'tail' &&
            t.unitId === unitId &&
            t.tail.effectId === effectId &&
            t.tail.how === 'cut' &&
            t.at > due - load &&
            t.at < due + AROUND,
        );
        if (!cut) continue;
        const at = formatPosition(time.bars, Math.min(moment.at, time.end - 1), song.bars);
        const where = song.cues.some((c) => c.id === moment.id) ? { cueId: moment.id } : {};
        const data = { song: song.title, at, unit: unit.name, effect: effect.name };
        found.push(finding('song.trail-cut', 'warning', inSong(facts, moment.at, where), data));
      }
    }
  }
  return found;
};
