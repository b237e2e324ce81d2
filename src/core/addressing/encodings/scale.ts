import { z } from 'zod';
import { outside, type ValueRange } from './encoding';

/**
 * A figure of the unit's own (%, dB, ms) from `low` to `high`. On a logarithmic curve equal
 * steps of the number on the wire are equal ratios of the figure; on a table the figures at
 * equal steps are written out, `low` and `high` being its ends.
 */
export const scaleFields = {
  low: z.number(),
  high: z.number(),
  unit: z.string().max(8),
  curve: z.enum(['linear', 'logarithmic', 'table']),
  /** Figures at equal steps, from the first to the last, always rising or always falling; empty unless the curve is a table. */
  points: z.array(z.number()).max(512),
} as const;

export interface Scale {
  readonly low: number;
  readonly high: number;
  readonly curve: 'linear' | 'logarithmic' | 'table';
  readonly points: readonly number[];
}

/** The values of a scale, low end first, also where the scale falls. */
export const scaleRange = (s: Scale): ValueRange => ({
  low: Math.min(s.low, s.high),
  high: Math.max(s.low, s.high),
  step: 0,
});

/** Where a figure stands between `low` and `high`, 0 to 1. */
function shareOf(s: Scale, value: number): number {
  switch (s.curve) {
    case 'linear':
      return (value - s.low) / (s.high - s.low);
    case 'logarithmic':
      return Math.log(value / s.low) / Math.log(s.high / s.low);
    case 'table': {
      const rising = s.high > s.low;
      const last = s.points.length - 1;
      let i = 0;
      while (i < last - 1 && (rising ? s.points[i + 1]! < value : s.points[i + 1]! > value)) i += 1;
      const a = s.points[i]!;
      const b = s.points[i + 1]!;
      return (i + (value - a) / (b - a)) / last;
    }
  }
}

function figureAt(s: Scale, share: number): number {
  switch (s.curve) {
    case 'linear':
      return s.low + share * (s.high - s.low);
    case 'logarithmic':
      return s.low * (s.high / s.low) ** share;
    case 'table': {
      const last = s.points.length - 1;
      const i = Math.min(last - 1, Math.floor(share * last));
      return s.points[i]! + (share * last - i) * (s.points[i + 1]! - s.points[i]!);
    }
  }
}

/** The number on the wire for a figure. `from` above `to` is an inverted control. Throws RangeError outside the scale. */
export function wireOf(s: Scale, from: number, to: number, value: number): number {
  const range = scaleRange(s);
  if (!(value >= range.low && value <= range.high)) throw outside('the control', value, range);
  return Math.round(from + shareOf(s, value) * (to - from));
}

/** The figure for a number on the wire; one outside the range is taken as the nearer end. */
export function figureOf(s: Scale, from: number, to: number, wire: number): number {
  const share = from === to ? 0 : (wire - from) / (to - from);
  return figureAt(s, Math.min(1, Math.max(0, share)));
}

export type ScaleProblem =
  | { readonly code: 'flat-range'; readonly low: number; readonly high: number }
  | { readonly code: 'log-through-zero'; readonly low: number; readonly high: number }
  | { readonly code: 'table-points'; readonly low: number; readonly high: number };

/** What is wrong with a scale, if anything. */
export function scaleProblem(s: Scale, from: number, to: number): ScaleProblem | undefined {
  const { low, high } = s;
  if (low === high || from === to) return { code: 'flat-range', low, high };
  if (s.curve === 'logarithmic' && low * high <= 0) return { code: 'log-through-zero', low, high };
  if (s.curve !== 'table') return undefined;
  const rising = high > low;
  const ordered = s.points.every((p, i) => i === 0 || (rising ? p > s.points[i - 1]! : p < s.points[i - 1]!));
  const ends = s.points.length >= 2 && s.points[0] === low && s.points.at(-1) === high;
  return ordered && ends ? undefined : { code: 'table-points', low, high };
}
