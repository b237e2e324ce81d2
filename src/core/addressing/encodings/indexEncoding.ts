import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, checkOption, claimControl, optionRange, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';

/** Option i of a list is sent as base + step · i. */
export const indexEncodingSchema = z.strictObject({
  kind: z.literal('index'),
  number: byteSchema,
  base: byteSchema,
  step: z.int().min(1).max(127),
  count: z.int().min(1).max(128),
});

export type IndexEncoding = Deep<z.infer<typeof indexEncodingSchema>>;

export const indexEncoding: EncodingKind<IndexEncoding> = {
  kind: 'index',
  schema: indexEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.count),
  claims: claimControl,
  encode: (e, channel, value) => {
    checkOption('the list', value, e.count);
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
