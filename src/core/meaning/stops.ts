import { songTime, type Show, type Song } from '../show';
import type { Ticks } from '../time';
import { moments } from './moments';

/** A place of a song at which something changes, and the cues that do it. */
export interface Stop {
  readonly at: Ticks;
  /** Ids, in the order of the song; none at a start at which nothing stands. */
  readonly cueIds: readonly string[];
}

const kept = new WeakMap<Song, { readonly show: Show; readonly stops: readonly Stop[] }>();

/** Where a song changes, in its order; the first is its start. What is muted is no stop. */
export function stopsOf(show: Show, song: Song): readonly Stop[] {
  const known = kept.get(song);
  if (known?.show === show) return known.stops;
  const { end } = songTime(song);
  const places = new Map<Ticks, Set<string>>([[0, new Set()]]);
  for (const { id, source, at } of moments(show, song)) {
    if (source !== 'cue' || at >= end) continue;
    const cues = places.get(at) ?? new Set();
    places.set(at, cues.add(id));
  }
  const stops = [...places].map(([at, ids]): Stop => ({ at, cueIds: [...ids] })).sort((a, b) => a.at - b.at);
  kept.set(song, { show, stops });
  return stops;
}
