import { TICKS_PER_QUARTER } from '../../time';
import { newSection, newSong, toneCue } from '../builders';
import { indexShow } from '../find';
import type { Show, Song } from '../schema';

/**
 * A new song that begins as a copy of another: its frame, opening, cues, sweeps, taps, clock
 * and calls, under ids of its own. Recordings stay with the song that they were made for.
 */
export function startFrom(pattern: Song, id: string, title: string, newId: () => string): Song {
  const fresh = <T extends { readonly id: string }>(list: readonly T[]): T[] =>
    list.map((thing) => ({ ...thing, id: newId() }));
  return {
    ...pattern,
    id,
    title,
    sections: fresh(pattern.sections),
    remarks: fresh(pattern.remarks),
    calls: fresh(pattern.calls),
    cues: fresh(pattern.cues),
    sweeps: fresh(pattern.sweeps),
    taps: fresh(pattern.taps),
    clocks: fresh(pattern.clocks),
    tracks: [],
    pattern: false,
  };
}

/** Bars that each core tone gets in a song that is made of them. */
const CORE_BARS = 8;

/** A new song of the core tones: a section each, opening with the first. */
export function songOfCore(
  show: Show,
  id: string,
  title: string,
  frame: Parameters<typeof newSong>[2],
  newId: () => string,
): Song {
  const { tones } = indexShow(show);
  const core = show.core.flatMap((toneId) => tones.get(toneId) ?? []);
  const song = newSong(id, title, { ...frame, bars: Math.max(1, core.length) * CORE_BARS });
  const { beats, unit } = song.metre[0]!;
  const bar = (beats * TICKS_PER_QUARTER * 4) / unit;
  return {
    ...song,
    opening: 'own',
    openingToneId: core[0]?.id ?? null,
    sections: core.map((tone, i) => newSection(newId(), tone.name, i * CORE_BARS + 1)),
    cues: core.slice(1).map((tone, i) => toneCue(newId(), (i + 1) * CORE_BARS * bar, tone.id)),
  };
}
