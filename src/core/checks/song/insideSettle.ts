import { indexShow } from '../../show';
import { formatPosition, microsToSeconds, secondsToTicks } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A message that reaches a unit while it settles after a recall, and that it does not take: from another rule, or from another way. */
export const insideSettle: SongCheck = (facts) => {
  const { show, song, time, run } = facts;
  if (!run) return [];
  const { units } = indexShow(show);
  const found = new Map<string, Finding>();
  for (const entry of run.dry.trace) {
    if (entry.kind !== 'ignored' || entry.why !== 'settling') continue;
    // The cue that it belongs to is the one that the unit was due for about then.
    const verdict = run.dry.verdicts
      .filter((v) => v.unitId === entry.unitId)
      .toSorted((a, b) => Math.abs(a.due - entry.at) - Math.abs(b.due - entry.at))[0];
    const tick = Math.max(0, Math.round(secondsToTicks(time.tempo, microsToSeconds(verdict?.due ?? entry.at))));
    const key = `${entry.unitId} ${tick}`;
    if (found.has(key)) continue;
    const at = formatPosition(time.bars, Math.min(tick, time.end - 1), song.bars);
    const data = { song: song.title, at, unit: units.get(entry.unitId)!.name };
    const where = song.cues.some((c) => c.id === verdict?.cueId) ? { cueId: verdict!.cueId } : {};
    found.set(key, finding('song.inside-settle', 'error', inSong(facts, tick, where), data));
  }
  return [...found.values()];
};
