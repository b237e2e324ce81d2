import type { Millis } from '../time';

/** A time that somebody took, and how far the takes were from each other. */
export interface TakenTime {
  readonly millis: Millis;
  /** The mean distance of the takes from their middle. */
  readonly spread: Millis;
}

const middle = (list: readonly number[]): number => {
  const sorted = list.toSorted((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
};

/**
 * How long a unit takes, from how long after each message somebody pressed a key on hearing
 * the change, and how long the same person takes to press on a known beep. Null with fewer
 * than three of either. Middle values, so that one slip does no harm.
 */
export function timeFromPresses(presses: readonly Millis[], reactions: readonly Millis[]): TakenTime | null {
  if (presses.length < 3 || reactions.length < 3) return null;
  const at = middle(presses);
  const spread = presses.reduce((sum, p) => sum + Math.abs(p - at), 0) / presses.length;
  return { millis: Math.max(0, Math.round(at - middle(reactions))), spread: Math.round(spread) };
}

/** Loudness is taken over windows of this length, in seconds. */
const WINDOW = 0.005;
/** What is quieter than this share of the sound before it is a gap. */
const QUIET = 0.15;
/** Shorter pauses belong to the sound. */
const SHORTEST = 0.015;

/** Where a sound stops and comes back, in seconds from the first sample. */
export interface Gap {
  readonly from: number;
  readonly to: number;
}

/**
 * The longest gap in a held sound: quiet that has sound on both sides. Null where nothing
 * sounds, or where the sound never stops.
 */
export function findGap(samples: Float32Array, rate: number): Gap | null {
  const size = Math.max(1, Math.round(WINDOW * rate));
  const loud: number[] = [];
  for (let i = 0; i + size <= samples.length; i += size) {
    let sum = 0;
    for (let k = i; k < i + size; k++) sum += samples[k]! ** 2;
    loud.push(Math.sqrt(sum / size));
  }
  // Most of the recording is sound: the upper quarter says how loud it is, however long the gap.
  const level = loud.toSorted((a, b) => a - b)[Math.floor(loud.length * 0.75)] ?? 0;
  if (level < 1e-4) return null;
  let best: Gap | null = null;
  let from = -1;
  for (let i = 0; i < loud.length; i++) {
    if (loud[i]! < level * QUIET) {
      if (from < 0) from = i;
      continue;
    }
    const length = (i - from) * WINDOW;
    // Quiet from the very start has no sound before it.
    if (from > 0 && length >= SHORTEST && (best === null || length > best.to - best.from)) {
      best = { from: (from * size) / rate, to: (i * size) / rate };
    }
    from = -1;
  }
  return best;
}
