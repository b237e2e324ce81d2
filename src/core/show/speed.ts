import { CLOCK_TICKS } from '../clock';
import { barAt, ticksToSeconds } from '../time';
import { LIMITS } from './limits';
import type { Song } from './schema';
import { songTime } from './songTime';

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

const followed = new WeakMap<Song, Map<number, Song>>();

/** A song along a clock from outside: its own tempos are nothing, the clock's is all. In hundredths of a quarter a minute. */
export function atTempo(song: Song, bpm: number): Song {
  const rounded = Math.round(bpm * 100) / 100;
  const known = followed.get(song)?.get(rounded);
  if (known) return known;
  const made: Song = { ...song, tempo: [{ at: 0, bpm: rounded, beat: 1, rampTo: null }] };
  // Along a clock that goes faster and faster there is no end of tempos: the last one is kept.
  followed.set(song, new Map([[rounded, made]]));
  return made;
}

/** How a song is played: a share of its speed, along a clock that is heard, counted in or not. */
export interface Way {
  readonly speed: number;
  readonly outside: number | null;
  readonly counted?: boolean;
}

/** How a song is played: along a clock that it follows and that is heard, or as much slower or faster as was asked. */
export const songAsPlayed = (song: Song, { speed, outside, counted = true }: Way): Song => {
  const whole = withoutEnd(counted ? song : uncounted(song));
  return outside !== null && song.followsPortId !== null ? atTempo(whole, outside) : atSpeed(whole, speed);
};

const withoutCount = new WeakMap<Song, Song>();

/** A song that begins without its count-in. */
function uncounted(song: Song): Song {
  if (song.click.countIn === 0) return song;
  let made = withoutCount.get(song);
  if (!made) withoutCount.set(song, (made = { ...song, click: { ...song.click, countIn: 0 } }));
  return made;
}

/** An open-ended song goes on for so long behind its last bar, as written, in seconds: nobody plays longer on one sound. */
const OPEN_SECONDS = 30 * 60;

const endless = new WeakMap<Song, Song>();

/** A song as it is played: an open-ended one with as many bars more as there is time for. */
export function withoutEnd(song: Song): Song {
  if (!song.open) return song;
  let made = endless.get(song);
  if (!made) {
    const { bars, tempo, end } = songTime(song);
    const { length } = barAt(bars, song.bars);
    const seconds = ticksToSeconds(tempo, end + length) - ticksToSeconds(tempo, end);
    // A clock that it sends has to have room for all of its pulses.
    const clock = song.clocks.length === 0 ? Infinity : Math.floor((LIMITS.clockPulses * CLOCK_TICKS - end) / length);
    const more = Math.min(LIMITS.bars - song.bars, Math.ceil(OPEN_SECONDS / seconds), clock);
    endless.set(song, (made = { ...song, bars: song.bars + Math.max(0, more) }));
  }
  return made;
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
