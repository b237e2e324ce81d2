import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, checkOption, claimControl, optionRange, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';

/** Value 1 (on) and 0 (off) have a byte each; a receiver reads `onFrom` and above as on. */
export const setSwitchEncodingSchema = z.strictObject({
  kind: z.literal('set-switch'),
  number: byteSchema,
  on: byteSchema,
  off: byteSchema,
  onFrom: z.int().min(1).max(127),
});

export type SetSwitchEncoding = Deep<z.infer<typeof setSwitchEncodingSchema>>;

/** Some units call the switch "bypass": their on value is the low one. */
const upsideDown = (e: SetSwitchEncoding): boolean => e.on < e.onFrom;

export const setSwitchEncoding: EncodingKind<SetSwitchEncoding> = {
  kind: 'set-switch',
  schema: setSwitchEncodingSchema,
  continuous: false,
  twoStates: true,
  keeps: 'value',
  range: () => optionRange(2),
  claims: claimControl,
  encode: (e, channel, value) => {
    checkOption('a switch', value, 2);
    return writeControl(channel, e.number, value === 1 ? e.on : e.off);
  },
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    return value >= e.onFrom !== upsideDown(e) ? 1 : 0;
  },
};
