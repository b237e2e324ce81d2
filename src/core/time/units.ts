/** Ticks on the song's line; 960 a quarter note. May be fractional where a foreign file was finer than that. */
export type Ticks = number;
/** Seconds from tick 0 of the song. */
export type Seconds = number;
export type Millis = number;
/** Microseconds from tick 0 of the song. The unit of everything that happens on a cable. */
export type Micros = number;

export const TICKS_PER_QUARTER = 960;
export const TICKS_PER_WHOLE = TICKS_PER_QUARTER * 4;

/** Seconds in microseconds. */
export const secondsToMicros = (s: Seconds): Micros => s * 1e6;
/** Microseconds in seconds. */
export const microsToSeconds = (us: Micros): Seconds => us / 1e6;
/** Milliseconds, as people type them, in microseconds. */
export const millisToMicros = (ms: Millis): Micros => ms * 1e3;
