import {
  barStart,
  buildBarMap,
  buildTempoMap,
  microsToSeconds,
  secondsToMicros,
  secondsToTicks,
  ticksToSeconds,
  type BarMap,
  type Micros,
  type Seconds,
  type TempoMap,
  type Ticks,
} from '../time';
import type { Song } from './schema';

export interface SongTime {
  readonly tempo: TempoMap;
  readonly bars: BarMap;
  /** First tick after the last bar. */
  readonly end: Ticks;
}

const times = new WeakMap<Song, SongTime>();

/** A song's tempo and bars, ready for questions; made once a song and kept while it lives. */
export function songTime(song: Song): SongTime {
  let time = times.get(song);
  if (!time) {
    const bars = buildBarMap(song.metre, song.pickup, song.printed);
    const tempo = buildTempoMap(song.tempo.map((m) => ({ ...m, rampTo: m.rampTo ?? undefined })));
    time = { tempo, bars, end: barStart(bars, song.bars + 1) };
    times.set(song, time);
  }
  return time;
}

/** How long a song plays, as written, from bar 1 to the end of its last bar. */
export const songLength = (song: Song): Seconds => {
  const time = songTime(song);
  return ticksToSeconds(time.tempo, time.end);
};

/** The song time of a tick, in microseconds from the song's start. */
export const microsAt = (time: SongTime, at: Ticks): Micros => secondsToMicros(ticksToSeconds(time.tempo, at));

/** The tick at a song time; a fraction where it lies between two. */
export const ticksAt = (time: SongTime, at: Micros): Ticks => secondsToTicks(time.tempo, microsToSeconds(at));
