import { z } from 'zod';
import { byteSchema, readControl, writeControl } from './carrier';
import { outside, type EncodingKind } from './encoding';

/**
 * A figure of the unit's own (%, dB, ms) from `low` to `high`, sent as a byte from `from`
 * to `to`. `from` above `to` is an inverted control. On a logarithmic curve equal steps of
 * the byte are equal ratios of the figure.
 */
export const continuousEncodingSchema = z.strictObject({
  kind: z.literal('continuous'),
  number: byteSchema,
  from: byteSchema,
  to: byteSchema,
  low: z.number(),
  high: z.number(),
  unit: z.string().max(8),
  curve: z.enum(['linear', 'logarithmic']),
});

export type ContinuousEncoding = z.infer<typeof continuousEncodingSchema>;

const range = (e: ContinuousEncoding) => ({
  low: Math.min(e.low, e.high),
  high: Math.max(e.low, e.high),
  step: 0,
});

/** Where a figure stands between `low` and `high`, 0 to 1. */
function share(e: ContinuousEncoding, value: number): number {
  if (e.curve === 'logarithmic') return Math.log(value / e.low) / Math.log(e.high / e.low);
  return (value - e.low) / (e.high - e.low);
}

function figure(e: ContinuousEncoding, at: number): number {
  if (e.curve === 'logarithmic') return e.low * (e.high / e.low) ** at;
  return e.low + at * (e.high - e.low);
}

export const continuousEncoding: EncodingKind<ContinuousEncoding> = {
  kind: 'continuous',
  schema: continuousEncodingSchema,
  continuous: true,
  range,
  number: (e) => e.number,
  encode: (e, channel, value) => {
    const { low, high } = range(e);
    if (!(value >= low && value <= high)) throw outside('the control', value, range(e));
    return writeControl(channel, e.number, Math.round(e.from + share(e, value) * (e.to - e.from)));
  },
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    // A byte outside the range is taken as the nearer end.
    const at = e.from === e.to ? 0 : (value - e.from) / (e.to - e.from);
    return figure(e, Math.min(1, Math.max(0, at)));
  },
};
