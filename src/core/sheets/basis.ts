import { timesBasis } from '../meaning';
import { indexShow, openingOf, type Show, type Song } from '../show';

/** Units that a song's tones call, and those that these tell. */
function unitsOf(show: Show, song: Song): ReadonlySet<string> {
  const { tones, units } = indexShow(show);
  const placed = song.cues.flatMap((c) => (c.action.kind === 'tone' ? [c.action.toneId] : []));
  const ids = [openingOf(show, song) ?? '', ...placed].flatMap((id) => tones.get(id)?.parts ?? []).map((p) => p.unitId);
  const used = new Set(ids);
  for (const id of used) for (const r of units.get(id)?.relays ?? []) used.add(r.toUnitId);
  return used;
}

/** Behind what stands on a sheet already: whose times its lanterns only guess, of the show or of one song. Empty where nobody's. */
export function withBasis(text: string, show: Show, song?: Song): string {
  const used = song && unitsOf(show, song);
  const names = timesBasis(show)
    .guess.filter((u) => !used || used.has(u.id))
    .map((u) => u.name);
  if (names.length === 0) return text;
  return `${text}${/[.!?]$/.test(text) ? '' : '.'} Lands by guessed times: ${names.join(', ')}.`;
}
