import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, claimControl, readControl, writeControl } from './carrier';
import { outside, type EncodingKind } from './encoding';

/** Each message is a tap. `values` are sent in turn: one value, or two that alternate. */
export const tapEncodingSchema = z.strictObject({
  kind: z.literal('tap'),
  number: byteSchema,
  values: z.array(byteSchema).min(1).max(2),
});

export type TapEncoding = Deep<z.infer<typeof tapEncodingSchema>>;

const range = () => ({ low: 0, high: 1_000_000, step: 1 });

export const tapEncoding: EncodingKind<TapEncoding> = {
  kind: 'tap',
  schema: tapEncodingSchema,
  continuous: false,
  keeps: 'nothing',
  range,
  claims: claimControl,
  /** `value` counts the taps from 0. */
  encode: (e, channel, value) => {
    if (!Number.isInteger(value) || value < 0) throw outside('a tap', value, range());
    return writeControl(channel, e.number, e.values[value % e.values.length]!);
  },
  decode: (e, message) => (readControl(message, e.number) === undefined ? undefined : 1),
};
