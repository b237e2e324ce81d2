import { z } from 'zod';
import type { Deep } from '../readonly';
import { controlChange } from '../../midi';
import { readControl, wordSchema } from './carrier';
import type { EncodingKind } from './encoding';
import { figureOf, scaleFields, scaleRange, wireOf } from './scale';

/** Distance from the number of a coarse control to that of its fine half (MIDI 1.0, controls 0-31 and 32-63). */
const FINE = 32;

/** A figure on a scale, sent as 14 bits: the upper seven on `number`, the lower seven on `number` + 32. */
export const fourteenBitEncodingSchema = z.strictObject({
  kind: z.literal('fourteen-bit'),
  number: z.int().min(1).max(31),
  from: wordSchema,
  to: wordSchema,
  ...scaleFields,
});

export type FourteenBitEncoding = Deep<z.infer<typeof fourteenBitEncodingSchema>>;

export const fourteenBitEncoding: EncodingKind<FourteenBitEncoding> = {
  kind: 'fourteen-bit',
  schema: fourteenBitEncodingSchema,
  continuous: true,
  keeps: 'value',
  range: scaleRange,
  claims: (e) => [
    { on: 'control', number: e.number },
    { on: 'control', number: e.number + FINE },
  ],
  encode: (e, channel, value) => {
    const wire = wireOf(e, e.from, e.to, value);
    return [controlChange(channel, e.number, wire >> 7), controlChange(channel, e.number + FINE, wire & 127)];
  },
  decode: (e, message, memory) => {
    // A coarse value alone sets the fine half to 0 (MIDI 1.0, control change, controls 0-63).
    const coarse = readControl(message, e.number);
    if (coarse !== undefined) return figureOf(e, e.from, e.to, coarse * 128);
    const fine = readControl(message, e.number + FINE);
    if (fine === undefined) return undefined;
    return figureOf(e, e.from, e.to, (memory.get(e.number) ?? 0) * 128 + fine);
  },
};
