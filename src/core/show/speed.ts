import type { Song } from './schema';

/** Speeds at which a song can be practised, as a share of what is written. */
export const SPEEDS = { low: 0.5, high: 1.5 } as const;

const tempos = new WeakMap<Song['tempo'], Map<number, Song['tempo']>>();
const songs = new WeakMap<Song, Map<number, Song>>();

/** What was made of something at a speed, made once. */
function once<K extends object, V>(kept: WeakMap<K, Map<number, V>>, key: K, speed: number, make: () => V): V {
  let bySpeed = kept.get(key);
  if (!bySpeed) kept.set(key, (bySpeed = new Map()));
  let made = bySpeed.get(speed);
  if (made === undefined) bySpeed.set(speed, (made = make()));
  return made;
}

/**
 * A song slower or faster than written: every tempo in the same proportion, so that a time of it
 * times `speed` is the time as written. What units and players need keeps its milliseconds: recall
 * times, shifts, the room before the song. Where a recording begins goes with the tempo.
 */
export function atSpeed(song: Song, speed: number): Song {
  if (speed === 1) return song;
  return once(songs, song, speed, () => ({
    ...song,
    tempo: once(tempos, song.tempo, speed, () =>
      song.tempo.map((m) => ({ ...m, bpm: m.bpm * speed, rampTo: m.rampTo === null ? null : m.rampTo * speed })),
    ),
    tracks: song.tracks.map((t) => ({ ...t, offset: t.offset / speed })),
  }));
}

/** The song with all its tempos in the proportion that brings the first to a tempo. */
export function withTempo(song: Song, bpm: number): Song {
  const first = song.tempo[0]!;
  const factor = bpm / (first.bpm * first.beat);
  if (Math.abs(factor - 1) < 1e-9) return song;
  return {
    ...song,
    tempo: song.tempo.map((m) => ({ ...m, bpm: m.bpm * factor, rampTo: m.rampTo === null ? null : m.rampTo * factor })),
  };
}
