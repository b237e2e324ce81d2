import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, claimControl, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';
import { figureOf, scaleFields, scaleRange, wireOf } from './scale';

/** A figure on a scale, sent as a byte from `from` to `to`. `from` above `to` is an inverted control. */
export const continuousEncodingSchema = z.strictObject({
  kind: z.literal('continuous'),
  number: byteSchema,
  from: byteSchema,
  to: byteSchema,
  ...scaleFields,
});

export type ContinuousEncoding = Deep<z.infer<typeof continuousEncodingSchema>>;

export const continuousEncoding: EncodingKind<ContinuousEncoding> = {
  kind: 'continuous',
  schema: continuousEncodingSchema,
  continuous: true,
  keeps: 'value',
  range: scaleRange,
  claims: claimControl,
  encode: (e, channel, value) => writeControl(channel, e.number, wireOf(e, e.from, e.to, value)),
  decode: (e, message) => {
    const value = readControl(message, e.number);
    return value === undefined ? undefined : figureOf(e, e.from, e.to, value);
  },
};
