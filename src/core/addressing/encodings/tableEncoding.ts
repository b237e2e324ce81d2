import { z } from 'zod';
import type { Deep } from '../readonly';
import { byteSchema, checkOption, claimControl, optionRange, readControl, writeControl } from './carrier';
import type { EncodingKind } from './encoding';

/** Each option has a value of its own, written out. */
export const tableEncodingSchema = z.strictObject({
  kind: z.literal('table'),
  number: byteSchema,
  values: z.array(byteSchema).min(1).max(128),
});

export type TableEncoding = Deep<z.infer<typeof tableEncodingSchema>>;

export const tableEncoding: EncodingKind<TableEncoding> = {
  kind: 'table',
  schema: tableEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.values.length),
  claims: claimControl,
  encode: (e, channel, value) => {
    checkOption('the table', value, e.values.length);
    return writeControl(channel, e.number, e.values[value]!);
  },
  decode: (e, message) => {
    const value = readControl(message, e.number);
    if (value === undefined) return undefined;
    // What is not in the table calls nothing.
    const option = e.values.indexOf(value);
    return option < 0 ? undefined : option;
  },
};
