import { TICKS_PER_QUARTER, type Seconds, type Ticks } from './units';

/**
 * A tempo from `at` on. `bpm` counts beats of `beat` quarters (1.5 is a dotted quarter).
 * With `rampTo` the tempo moves in a straight line against quarter notes and reaches
 * `rampTo` (same beat) at the next mark, which may then set another tempo at once.
 */
export interface TempoMark {
  readonly at: Ticks;
  readonly bpm: number;
  readonly beat: number;
  readonly rampTo?: number | undefined;
}

interface Segment {
  readonly tick: Ticks;
  readonly seconds: Seconds;
  /** Quarters a minute where the segment starts. */
  readonly bpm: number;
  /** Change of quarters a minute for each quarter; 0 where the tempo is steady. */
  readonly slope: number;
}

/** A song's tempo, ready for questions. Steady at the first tempo before its first mark, at the last after its last. */
export interface TempoMap {
  readonly segments: readonly Segment[];
}

const DEFAULT_MARK: TempoMark = { at: 0, bpm: 120, beat: 1 };

/** Marks must be in order of `at`; a ramp on the last mark has nowhere to go and is taken as steady. */
export function buildTempoMap(marks: readonly TempoMark[]): TempoMap {
  const list = marks.length > 0 ? marks : [DEFAULT_MARK];
  const segments: Segment[] = [];
  let seconds = 0;
  const first = list[0]!;
  // The line is anchored at tick 0, whichever mark comes first.
  if (first.at > 0) seconds = (first.at / TICKS_PER_QUARTER) * (60 / (first.bpm * first.beat));
  for (let i = 0; i < list.length; i++) {
    const mark = list[i]!;
    const next = list[i + 1];
    const bpm = mark.bpm * mark.beat;
    const quarters = next ? (next.at - mark.at) / TICKS_PER_QUARTER : 0;
    const slope = mark.rampTo !== undefined && quarters > 0 ? (mark.rampTo * mark.beat - bpm) / quarters : 0;
    const segment = { tick: mark.at, seconds, bpm, slope };
    segments.push(segment);
    if (next) seconds += secondsInto(segment, quarters);
  }
  return { segments };
}

/** Seconds from a segment's start to `x` quarters after it: t(x) = 60/k · ln(1 + k·x/b0), or 60·x/b0 where steady. */
function secondsInto(s: Segment, x: number): Seconds {
  if (s.slope === 0 || x < 0) return (60 * x) / s.bpm;
  // log1p keeps the digits where the ramp is nearly flat.
  return (60 / s.slope) * Math.log1p((s.slope * x) / s.bpm);
}

function quartersInto(s: Segment, t: Seconds): number {
  if (s.slope === 0 || t < 0) return (t * s.bpm) / 60;
  return (s.bpm / s.slope) * Math.expm1((t * s.slope) / 60);
}

/** Index of the last segment whose `key` is at or before `x`; 0 when `x` is before them all. */
function segmentAt(map: TempoMap, key: 'tick' | 'seconds', x: number): number {
  let low = 0;
  let high = map.segments.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (map.segments[middle]![key] <= x) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Seconds from tick 0. Ticks before 0 run at the first tempo. */
export function ticksToSeconds(map: TempoMap, ticks: Ticks): Seconds {
  const s = map.segments[segmentAt(map, 'tick', ticks)]!;
  return s.seconds + secondsInto(s, (ticks - s.tick) / TICKS_PER_QUARTER);
}

/** The tick at a time, with ramps followed exactly; a fraction where it lies between two ticks. */
export function secondsToTicks(map: TempoMap, seconds: Seconds): Ticks {
  const s = map.segments[segmentAt(map, 'seconds', seconds)]!;
  return s.tick + quartersInto(s, seconds - s.seconds) * TICKS_PER_QUARTER;
}

/** Quarter notes a minute at a place; at a mark, the tempo that starts there. */
export function tempoAt(map: TempoMap, ticks: Ticks): number {
  const s = map.segments[segmentAt(map, 'tick', ticks)]!;
  const x = (ticks - s.tick) / TICKS_PER_QUARTER;
  return x > 0 ? s.bpm + s.slope * x : s.bpm;
}
