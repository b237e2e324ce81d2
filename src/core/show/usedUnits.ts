import { indexShow, openingOf } from './find';
import type { Show, Song } from './schema';

/** The units that anything of a song goes to: its opening, cues and sweeps, and what relay rules of these call. */
export function unitsInSong(show: Show, song: Song): ReadonlySet<string> {
  const { tones, units } = indexShow(show);
  const moves = new Map(show.moves.map((m) => [m.id, m]));
  const used = new Set<string>();
  const called = new Set<string>();
  /** A unit that may be brought to another preset or variant: values of controls trigger no relay rules. */
  const call = (id: string): void => {
    if (called.has(id)) return;
    called.add(id);
    used.add(id);
    for (const { toUnitId } of units.get(id)?.relays ?? []) call(toUnitId);
  };
  const addTone = (id: string | null): void => tones.get(id ?? '')?.parts.forEach((p) => call(p.unitId));
  addTone(openingOf(show, song));
  for (const { action } of song.cues) {
    if (action.kind === 'tone') addTone(action.toneId);
    else if (action.kind === 'move') moves.get(action.moveId)?.steps.forEach((s) => used.add(s.unitId));
    else if (action.kind === 'message') call(action.unitId);
    else used.add(action.unitId);
  }
  for (const { unitId } of song.sweeps) used.add(unitId);
  return used;
}
