import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, checkOption, claimControl, optionRange, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';

/**
 * Every message turns the state over, whatever was meant. `only` is the one value that does
 * so; null where any value does. A sender has to know the state to reach another.
 */
export const flipEncodingSchema = z.strictObject({
  kind: z.literal('flip'),
  number: byteSchema,
  send: byteSchema,
  only: byteSchema.nullable(),
});

export type FlipEncoding = Deep<z.infer<typeof flipEncodingSchema>>;

export const flipEncoding: EncodingKind<FlipEncoding> = {
  kind: 'flip',
  schema: flipEncodingSchema,
  continuous: false,
  twoStates: true,
  keeps: 'flip',
  range: () => optionRange(2),
  claims: claimControl,
  encode: (e, channel, value) => {
    checkOption('a switch', value, 2);
    return writeControl(channel, e.number, e.send);
  },
  /** 1 for a message that turns the state over. */
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    return e.only === null || e.only === value ? 1 : undefined;
  },
};
