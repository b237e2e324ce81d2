import { indexShow, removeCue } from '../../show';
import { formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** Cues that stand there twice. */
export const duplicateCues: SongCheck = (facts) => {
  const { show, song, time } = facts;
  const seen = new Set<string>();
  const found: Finding[] = [];
  for (const cue of song.cues) {
    if (cue.muted) continue;
    const key = JSON.stringify([cue.at, cue.shift, cue.action]);
    if (seen.has(key)) {
      const data = { song: song.title, at: formatPosition(time.bars, cue.at, song.bars), cueId: cue.id };
      const place = inSong(facts, cue.at, { cueId: cue.id });
      found.push(finding('song.duplicate', 'warning', place, data, removeCue(show, song.id, cue.id)));
    }
    seen.add(key);
  }
  return found;
};

/** Tones and values that the whole rig has already when they come: nothing is sent for them. */
export const changesNothing: SongCheck = (facts) => {
  const { show, song, time, passed } = facts;
  const { tones } = indexShow(show);
  const dull = new Map<string, boolean>();
  for (const { moment, before, after } of passed) {
    const { id, action, source } = moment;
    if (source !== 'cue' || action.kind === 'message' || (action.kind === 'tone' && action.reload)) continue;
    const same = Object.keys(after).every((unitId) => before[unitId] === after[unitId]);
    dull.set(id, (dull.get(id) ?? true) && same);
  }
  // The same cue twice is found as such.
  const twice = new Set(duplicateCues(facts).flatMap((f) => (f.place.in === 'song' ? (f.place.cueId ?? []) : [])));
  return song.cues.flatMap((cue) => {
    if (!dull.get(cue.id) || twice.has(cue.id)) return [];
    const { action } = cue;
    const what = action.kind === 'tone' ? (tones.get(action.toneId)?.name ?? '') : '';
    const data = { song: song.title, at: formatPosition(time.bars, cue.at, song.bars), what };
    const place = inSong(facts, cue.at, { cueId: cue.id });
    return [finding('song.no-change', 'note', place, data, removeCue(show, song.id, cue.id))];
  });
};
