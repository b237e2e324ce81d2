import type { Seconds } from '../time';

/** A beat that was tapped along to a recording: which one, from 0, and when in the recording. */
export interface Tap {
  readonly beat: number;
  readonly at: Seconds;
}

/** Beats of a recording as a line: beat n is at `first + n * length`. */
export interface SteadyBeats {
  readonly first: Seconds;
  readonly length: Seconds;
}

/** Two taps closer than this, in seconds, are one: 600 beats a minute. */
const AT_ONCE = 0.1;

const middleOf = (list: readonly number[]): number => list.toSorted((a, b) => a - b)[list.length >> 1] ?? 0;

/**
 * Which beat each tap is. One that was missed leaves a gap of two beats or more, one that came twice (within a third of a
 * beat) counts once. Taps are seconds in the recording, in any order.
 */
export function numberTaps(times: readonly Seconds[]): readonly Tap[] {
  const sorted = times.filter((t) => Number.isFinite(t)).toSorted((a, b) => a - b);
  const gaps = sorted.slice(1).map((t, i) => t - sorted[i]!);
  const usual = middleOf(gaps.filter((g) => g > AT_ONCE));
  const taps: Tap[] = [];
  let pace = usual;
  for (const at of sorted) {
    const last = taps.at(-1);
    if (!last) {
      taps.push({ beat: 0, at });
      continue;
    }
    const gap = at - last.at;
    if (gap < AT_ONCE || gap < pace / 3) continue;
    const beats = Math.max(1, Math.round(gap / pace));
    taps.push({ beat: last.beat + beats, at });
    // A player who speeds up is followed: what counts as one beat goes along, slowly.
    pace += (gap / beats - pace) * 0.3;
  }
  return taps;
}

/** The steady beat that lies closest to the taps (least squares). Null for fewer than two. */
export function steadyBeats(taps: readonly Tap[]): SteadyBeats | null {
  if (taps.length < 2) return null;
  return lineThrough(taps.map((tap) => ({ ...tap, weight: 1 })));
}

interface Weighted extends Tap {
  readonly weight: number;
}

function lineThrough(taps: readonly Weighted[]): SteadyBeats | null {
  const sum = (of: (t: Weighted) => number): number => taps.reduce((all, t) => all + t.weight * of(t), 0);
  const all = sum(() => 1);
  const [beat, at] = [sum((t) => t.beat) / all, sum((t) => t.at) / all];
  const spread = sum((t) => (t.beat - beat) ** 2);
  if (!(spread > 0)) return null;
  const length = sum((t) => (t.beat - beat) * (t.at - at)) / spread;
  return length > 0 ? { first: at - length * beat, length } : null;
}

/** So many beats to each side have a say in where a beat is, the nearer the more. */
const REACH = 6;

/** Where a beat is, smoothed over the taps around it, for a player who is no machine. Beyond the taps it goes on as it was there. */
export function beatAt(taps: readonly Tap[], beat: number): Seconds | null {
  const [from, to] = [taps[0]?.beat ?? 0, taps.at(-1)?.beat ?? 0];
  const near = Math.max(from, Math.min(to, beat));
  const weighted = taps.flatMap((tap): Weighted[] => {
    const weight = 1 - Math.abs(tap.beat - near) / (REACH + 1);
    return weight > 0 ? [{ ...tap, weight }] : [];
  });
  const line = (weighted.length >= 2 ? lineThrough(weighted) : null) ?? steadyBeats(taps);
  return line && line.first + line.length * beat;
}

/** How far each tap is from where its beat was put, in seconds: late is positive. */
export const tapsOff = (taps: readonly Tap[], where: (beat: number) => Seconds | null): readonly Seconds[] =>
  taps.map(({ beat, at }) => at - (where(beat) ?? at));
