import { OPENING_CUE, moments } from '../../../core/meaning';
import { indexShow, songTime, type Show, type Song, type Tone, type TonePart } from '../../../core/show';
import type { Ticks } from '../../../core/time';

/** A tone as it stands in a song. */
export interface Placed {
  readonly at: Ticks;
  readonly tone: Tone;
}

/** The tones of a song in the order in which they come, its opening first; what is muted is left out. */
export function tonesOf(show: Show, song: Song): readonly Placed[] {
  const { tones } = indexShow(show);
  const placed = moments(show, song).flatMap(({ id, source, at, action }): Placed[] => {
    if (action.kind !== 'tone' || (source !== 'cue' && id !== OPENING_CUE)) return [];
    const tone = tones.get(action.toneId);
    return tone ? [{ at, tone }] : [];
  });
  return placed.filter((p) => p.at < songTime(song).end).sort((a, b) => a.at - b.at);
}

/** What each unit of a player was told last, up to a place of a song: by the tone that is on, or by one before it. */
export function partsOf(show: Show, song: Song, at: Ticks, playerId: string): ReadonlyMap<string, TonePart> {
  const own = new Set(show.units.filter((u) => u.playerId === playerId).map((u) => u.id));
  const parts = new Map<string, TonePart>();
  for (const { at: begins, tone } of tonesOf(show, song)) {
    if (begins > at + 1) break;
    for (const part of tone.parts) if (own.has(part.unitId)) parts.set(part.unitId, part);
  }
  return parts;
}

/** What is on at a place of a song, and what comes next. */
export function stageOf(
  show: Show,
  song: Song,
  at: Ticks,
): { readonly now: Placed | undefined; readonly next: Placed | undefined } {
  const all = tonesOf(show, song);
  return { now: all.findLast((p) => p.at <= at + 1), next: all.find((p) => p.at > at + 1) };
}
