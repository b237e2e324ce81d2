import { z } from 'zod';
import type { Deep } from '../readonly';
import { controlChange } from '../../midi';
import { readControl, wordSchema } from './carrier';
import { HEARD, type EncodingKind } from './encoding';
import { figureOf, scaleFields, scaleRange, wireOf } from './scale';

/** Controls of a non-registered parameter (MIDI 1.0): which one, upper and lower half; its value, upper and lower. */
const WHICH_HIGH = 99;
const WHICH_LOW = 98;
const DATA_HIGH = 6;
const DATA_LOW = 38;

/** A figure on a scale, sent to a non-registered parameter. With `fine` off only the upper seven bits are sent. */
export const nrpnEncodingSchema = z.strictObject({
  kind: z.literal('nrpn'),
  number: wordSchema,
  fine: z.boolean(),
  /** Of 0-127 where only the upper half is sent, else of 0-16383. */
  from: wordSchema,
  to: wordSchema,
  ...scaleFields,
});

export type NrpnEncoding = Deep<z.infer<typeof nrpnEncodingSchema>>;

export const nrpnEncoding: EncodingKind<NrpnEncoding> = {
  kind: 'nrpn',
  schema: nrpnEncodingSchema,
  continuous: true,
  keeps: 'value',
  range: scaleRange,
  claims: (e) => [{ on: 'nrpn', number: e.number }],
  encode: (e, channel, value) => {
    const wire = wireOf(e, e.from, e.to, value);
    return [
      controlChange(channel, WHICH_HIGH, e.number >> 7),
      controlChange(channel, WHICH_LOW, e.number & 127),
      controlChange(channel, DATA_HIGH, e.fine ? wire >> 7 : wire),
      ...(e.fine ? [controlChange(channel, DATA_LOW, wire & 127)] : []),
    ];
  },
  decode: (e, message, memory) => {
    if (readControl(message, WHICH_HIGH) === e.number >> 7) return HEARD;
    if (readControl(message, WHICH_LOW) === (e.number & 127)) return HEARD;
    if (memory.get(WHICH_HIGH) !== e.number >> 7 || memory.get(WHICH_LOW) !== (e.number & 127)) return undefined;
    const high = readControl(message, DATA_HIGH);
    if (high !== undefined) return figureOf(e, e.from, e.to, e.fine ? high * 128 : high);
    const low = readControl(message, DATA_LOW);
    if (low === undefined) return undefined;
    return e.fine ? figureOf(e, e.from, e.to, (memory.get(DATA_HIGH) ?? 0) * 128 + low) : HEARD;
  },
};
