import { TICKS_PER_QUARTER, ticksToSeconds, type TempoMap, type Ticks } from '../../time';

export interface TempoStep {
  readonly tick: Ticks;
  /** Whole microseconds a quarter, as a file holds them. */
  readonly micros: number;
}

/** How far a moment may be from where it was, in a file whose tempos are whole microseconds and whose ramps are steps. */
export const STEP_ERROR_MICROS = 200;

const MAX_MICROS = 0xffffff;

/**
 * A tempo map as the steps that a file can hold. Each step makes good what the one before
 * it rounded, so the error stays below twice `STEP_ERROR_MICROS`, however long the song. Steps start where tempos change and, within
 * a tempo, whole ticks after that.
 */
export function tempoSteps(map: TempoMap, end: Ticks): TempoStep[] {
  const steps: TempoStep[] = [];
  let error = 0;
  const edges = map.segments.map((s) => s.tick).filter((t) => t > 0 && t < end);
  const starts = [...new Set([0, ...edges])];
  for (const [i, start] of starts.entries()) {
    const stop = starts[i + 1] ?? Math.max(end, start + 1);
    for (let tick = start; tick < stop;) {
      const to = Math.min(stop, tick + stepLength(map, tick, stop));
      const quarters = (to - tick) / TICKS_PER_QUARTER;
      const truth = (ticksToSeconds(map, to) - ticksToSeconds(map, tick)) * 1e6;
      const micros = Math.min(MAX_MICROS, Math.max(1, Math.round((truth - error) / quarters)));
      error += micros * quarters - truth;
      if (steps.at(-1)?.micros !== micros) steps.push({ tick, micros });
      tick = to;
    }
  }
  return steps;
}

/** Ticks that one whole-microsecond tempo may stand for from `tick` on. */
function stepLength(map: TempoMap, tick: Ticks, stop: Ticks): Ticks {
  const segment = map.segments.findLast((s) => s.tick <= tick) ?? map.segments[0]!;
  const x = Math.max(0, tick - segment.tick) / TICKS_PER_QUARTER;
  const bpm = segment.bpm + segment.slope * x;
  if (segment.slope === 0) {
    const exact = 60e6 / bpm;
    const drift = Math.abs(Math.round(exact) - exact);
    // A tempo read from a file is whole but for the last digits of a double. Of any other, what makes good
    // the rounding is itself rounded by up to half a microsecond a quarter.
    const quarters = drift < 1e-6 ? Number.POSITIVE_INFINITY : STEP_ERROR_MICROS / Math.max(drift, 0.5);
    return Math.max(1, Math.min(stop - tick, Math.floor(quarters * TICKS_PER_QUARTER)));
  }
  // Within a step of h quarters a ramp leaves the chord by |t''|·h²/8, with t'' = 60·k/b².
  // A ramp ends at `stop`: beyond it the slope leads anywhere, below zero too.
  const ahead = Math.min(x + 1, (stop - segment.tick) / TICKS_PER_QUARTER);
  const low = Math.min(bpm, segment.bpm + segment.slope * ahead);
  const quarters = Math.sqrt((8 * (STEP_ERROR_MICROS / 1e6) * low * low) / (60 * Math.abs(segment.slope)));
  return Math.max(1, Math.floor(Math.min(1, quarters) * TICKS_PER_QUARTER));
}
