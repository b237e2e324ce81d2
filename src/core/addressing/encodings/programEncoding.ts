import { z } from 'zod';
import type { Deep } from '../readonly';
import { programChange } from '../../midi';
import { byteSchema, checkOption, optionRange } from './carrier';
import type { EncodingKind } from './encoding';

/** Option i is the program change `first` + i, which then calls no slot. */
export const programEncodingSchema = z.strictObject({
  kind: z.literal('program'),
  first: byteSchema,
  count: z.int().min(1).max(128),
});

export type ProgramEncoding = Deep<z.infer<typeof programEncodingSchema>>;

export const programEncoding: EncodingKind<ProgramEncoding> = {
  kind: 'program',
  schema: programEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.count),
  claims: (e) => Array.from({ length: e.count }, (_, i) => ({ on: 'program', number: e.first + i })),
  encode: (e, channel, value) => {
    checkOption('the programs', value, e.count);
    return [programChange(channel, e.first + value)];
  },
  decode: (e, message) => {
    if (message.kind !== 'program') return undefined;
    const option = message.program - e.first;
    return option >= 0 && option < e.count ? option : undefined;
  },
};
