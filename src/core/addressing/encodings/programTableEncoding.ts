import { z } from 'zod';
import type { Deep } from '../readonly';
import { programChange } from '../../midi';
import { byteSchema, checkOption, optionRange } from './carrier';
import type { EncodingKind } from './encoding';

/** Option i is the program change `values[i]`, which then calls no slot: for programs that do not follow each other. */
export const programTableEncodingSchema = z.strictObject({
  kind: z.literal('program-table'),
  values: z.array(byteSchema).min(1).max(128),
});

export type ProgramTableEncoding = Deep<z.infer<typeof programTableEncodingSchema>>;

export const programTableEncoding: EncodingKind<ProgramTableEncoding> = {
  kind: 'program-table',
  schema: programTableEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.values.length),
  claims: (e) => e.values.map((number) => ({ on: 'program', number })),
  encode: (e, channel, value) => {
    checkOption('the programs', value, e.values.length);
    return [programChange(channel, e.values[value]!)];
  },
  decode: (e, message) => {
    if (message.kind !== 'program') return undefined;
    const option = e.values.indexOf(message.program);
    return option < 0 ? undefined : option;
  },
};
