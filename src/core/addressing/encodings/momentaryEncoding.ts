import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, checkOption, claimControl, optionRange, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';

/** On while it is held: a value when it is pressed, another when it is let go. */
export const momentaryEncodingSchema = z.strictObject({
  kind: z.literal('momentary'),
  number: byteSchema,
  press: byteSchema,
  release: byteSchema,
});

export type MomentaryEncoding = Deep<z.infer<typeof momentaryEncodingSchema>>;

export const momentaryEncoding: EncodingKind<MomentaryEncoding> = {
  kind: 'momentary',
  schema: momentaryEncodingSchema,
  continuous: false,
  twoStates: true,
  held: true,
  keeps: 'value',
  range: () => optionRange(2),
  claims: claimControl,
  encode: (e, channel, value) => {
    checkOption('a switch', value, 2);
    return writeControl(channel, e.number, value === 1 ? e.press : e.release);
  },
  // A stray value counts as whichever of the two it is nearer to; in the middle, as let go.
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    return Math.abs(value - e.press) < Math.abs(value - e.release) ? 1 : 0;
  },
};
