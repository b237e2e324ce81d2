import { z } from 'zod';
import { byteSchema, readControl, writeControl } from './carrier';
import { outside, type EncodingKind } from './encoding';

/** Option i of a list is sent as base + step · i. */
export const indexEncodingSchema = z.strictObject({
  kind: z.literal('index'),
  number: byteSchema,
  base: byteSchema,
  step: z.int().min(1).max(127),
  count: z.int().min(1).max(128),
});

export type IndexEncoding = z.infer<typeof indexEncodingSchema>;

const range = (e: IndexEncoding) => ({ low: 0, high: e.count - 1, step: 1 });

export const indexEncoding: EncodingKind<IndexEncoding> = {
  kind: 'index',
  schema: indexEncodingSchema,
  continuous: false,
  range,
  number: (e) => e.number,
  encode: (e, channel, value) => {
    if (!Number.isInteger(value) || value < 0 || value >= e.count) throw outside('the list', value, range(e));
    return writeControl(channel, e.number, e.base + e.step * value);
  },
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    // A value between two options, or past the last, calls nothing.
    const option = (value - e.base) / e.step;
    return Number.isInteger(option) && option >= 0 && option < e.count ? option : undefined;
  },
};
