import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, checkOption, claimControl, optionRange, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';

/** The 128 values are cut into equal zones; each option is sent as the middle of its zone. */
export const zonesEncodingSchema = z.strictObject({
  kind: z.literal('zones'),
  number: byteSchema,
  count: z.int().min(2).max(128),
});

export type ZonesEncoding = Deep<z.infer<typeof zonesEncodingSchema>>;

export const zonesEncoding: EncodingKind<ZonesEncoding> = {
  kind: 'zones',
  schema: zonesEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.count),
  claims: claimControl,
  encode: (e, channel, value) => {
    checkOption('the zones', value, e.count);
    return writeControl(channel, e.number, Math.floor(((value + 0.5) * 128) / e.count));
  },
  // Every value lies in some zone, so no value is a stray one.
  decode: (e, message) => {
    const value = readControl(message, e.number);
    return value === undefined ? undefined : Math.floor((value * e.count) / 128);
  },
};
