import { indexShow, openingOf, setSongField } from '../../show';
import { moments, toneAims } from '../../meaning';
import { finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A unit that the song uses, but that its opening leaves as the song before left it. */
export const noOpening: SongCheck = (facts) => {
  const { show, song } = facts;
  const { tones, units } = indexShow(show);
  const used = new Set<string>();
  for (const { action, source } of moments(show, song)) {
    if (source === 'opening' || source === 'taps') continue;
    if (action.kind === 'tone') for (const id of toneAims(show, tones.get(action.toneId)!).keys()) used.add(id);
    else used.add(action.unitId);
  }
  const tone = tones.get(openingOf(show, song) ?? '');
  const opened = tone ? toneAims(show, tone) : new Map<string, unknown>();
  const left = [...used].filter((id) => units.has(id) && !opened.has(id) && hasState(id));
  if (left.length === 0) return [];
  const names = left.map((id) => units.get(id)!.name);
  const data = { song: song.title, opening: tone?.name ?? '', units: names };
  // Without any opening the song is not finished; with one that leaves units out, something was overlooked.
  // The first of its own tones that sets all of them is what it begins with, as far as anybody can tell.
  const own = moments(show, song).flatMap(({ action, source }) =>
    source === 'cue' && action.kind === 'tone' ? [action.toneId] : [],
  );
  const full = own.find((id) => {
    const aims = toneAims(show, tones.get(id)!);
    return [...used].every((unitId) => aims.has(unitId) || !units.has(unitId) || !hasState(unitId));
  });
  const fix = full === undefined ? null : setSongField(show, song.id, 'openingToneId', full);
  return [finding('song.no-opening', tone ? 'warning' : 'note', inSong(facts, 0), data, fix)];

  /** What keeps no state has nothing to be opened with. */
  function hasState(id: string): boolean {
    const { plan, variants, controls } = units.get(id)!.profile;
    return plan.groups.length > 0 || variants !== null || controls.length > 0;
  }
};
