import { worstOf, type Time } from '../addressing';
import type { Millis, Seconds } from '../time';

/** A time that somebody took, and how far the takes were from each other. */
export interface TakenTime {
  readonly millis: Millis;
  /** The mean distance of the takes from their middle. */
  readonly spread: Millis;
  /** Each take by itself. */
  readonly trials: readonly Millis[];
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
  const reaction = middle(reactions);
  const spread = presses.reduce((sum, p) => sum + Math.abs(p - at), 0) / presses.length;
  return {
    millis: Math.max(0, Math.round(at - reaction)),
    spread: Math.round(spread),
    trials: presses.map((press) => Math.max(0, press - reaction)),
  };
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
  return best && refined(samples, rate, level, best);
}

/** The same gap by its samples: from the last loud one before it to the first loud one after it, within a window. */
function refined(samples: Float32Array, rate: number, level: number, gap: Gap): Gap {
  const size = Math.max(1, Math.round(WINDOW * rate));
  const loudness = level * QUIET * Math.SQRT2;
  const isLoud = (i: number): boolean => Math.abs(samples[i] ?? 0) > loudness;
  const [from, to] = [Math.round(gap.from * rate), Math.round(gap.to * rate)];
  let last = from + size;
  while (last > from - size && !isLoud(last)) last -= 1;
  let first = to - size;
  while (first < to + size && !isLoud(first)) first += 1;
  return { from: (last + 1) / rate, to: first / rate };
}

/** How loud a held tone is in a stand-in's sound, and how quiet the gap. */
const HELD = 0.5;
const HUSH = 0.002;
const STAND_IN_RATE = 8000;

/**
 * What a stand-in sounds like while it is measured: a held tone of so many seconds, at 8,000 samples a second, that
 * falls silent `before` seconds from its start for as long as a preset takes to load. `share` (0 to 1) says how near
 * to its worst that is this time.
 */
export function standInGap(
  { typical, worst }: Pick<Time, 'typical' | 'worst'>,
  seconds: Seconds,
  before: Seconds,
  share: number,
): Float32Array {
  const takes = (typical + (worstOf({ typical, worst }) - typical) * share) / 1000;
  return Float32Array.from({ length: Math.max(0, Math.round(seconds * STAND_IN_RATE)) }, (_, i) => {
    const t = i / STAND_IN_RATE;
    const loud = t >= before && t < before + takes ? HUSH : HELD;
    return loud * Math.sin(2 * Math.PI * 196 * t);
  });
}
