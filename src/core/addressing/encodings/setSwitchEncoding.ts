import { z } from 'zod';
import { byteSchema, readControl, writeControl } from './carrier';
import { outside, type EncodingKind } from './encoding';

/** Value 1 (on) and 0 (off) have a byte each; a receiver reads `onFrom` and above as on. */
export const setSwitchEncodingSchema = z.strictObject({
  kind: z.literal('set-switch'),
  number: byteSchema,
  on: byteSchema,
  off: byteSchema,
  onFrom: z.int().min(1).max(127),
});

export type SetSwitchEncoding = z.infer<typeof setSwitchEncodingSchema>;

const range = () => ({ low: 0, high: 1, step: 1 });
/** Some units call the switch "bypass": their on value is the low one. */
const upsideDown = (e: SetSwitchEncoding): boolean => e.on < e.onFrom;

export const setSwitchEncoding: EncodingKind<SetSwitchEncoding> = {
  kind: 'set-switch',
  schema: setSwitchEncodingSchema,
  continuous: false,
  range,
  number: (e) => e.number,
  encode: (e, channel, value) => {
    if (value !== 0 && value !== 1) throw outside('a switch', value, range());
    return writeControl(channel, e.number, value === 1 ? e.on : e.off);
  },
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    return value >= e.onFrom !== upsideDown(e) ? 1 : 0;
  },
};
