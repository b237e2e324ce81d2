import { keepsOf } from '../../addressing';
import { indexShow } from '../../show';
import { toneAims } from '../../meaning';
import { formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A switch that only turns over, wanted in a certain state where nobody knows in which it is. */
export const flipInSong: SongCheck = (facts) => {
  const { show, song, time, passed } = facts;
  const { tones, units } = indexShow(show);
  const found = new Map<string, Finding>();
  for (const { moment, after } of passed) {
    const { action, at, id } = moment;
    if (action.kind === 'message') continue;
    const aims =
      action.kind === 'tone'
        ? toneAims(show, tones.get(action.toneId)!)
        : new Map([[action.unitId, { controls: action.values }]]);
    for (const [unitId, { controls }] of aims) {
      const unit = units.get(unitId);
      for (const control of unit?.profile.controls ?? []) {
        if (keepsOf(control.encoding) !== 'flip' || controls[control.id] === undefined) continue;
        if (typeof after[unitId]?.controls[control.id] === 'number') continue;
        // Once a song is enough: until it is known it is the same question.
        const key = `${unitId}\n${control.id}`;
        if (found.has(key)) continue;
        const data = {
          song: song.title,
          at: formatPosition(time.bars, at, song.bars),
          unit: unit!.name,
          control: control.name,
        };
        const where = moment.source === 'cue' ? { cueId: id } : {};
        found.set(key, finding('song.flip-unknown', 'warning', inSong(facts, at, where), data));
      }
    }
  }
  return [...found.values()];
};
