import type { Millis } from './units';

/** A pause this long, or so many times the beat so far, begins a new count. */
const LONGEST_GAP: Millis = 2500;

/**
 * Beats a minute of taps at these times, in order: the mean of the intervals since the last
 * pause. Undefined before the second tap.
 */
export function tapTempo(taps: readonly Millis[]): number | undefined {
  let start = taps.length - 1;
  while (start > 0 && taps[start]! - taps[start - 1]! <= LONGEST_GAP) start -= 1;
  const beats = taps.length - 1 - start;
  if (beats < 1) return undefined;
  const span = taps.at(-1)! - taps[start]!;
  return span > 0 ? (60_000 * beats) / span : undefined;
}
