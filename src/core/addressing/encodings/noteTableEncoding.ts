import { z } from 'zod';
import type { Deep } from '../readonly';
import { noteOff, noteOn } from '../../midi';
import { byteSchema, checkOption, optionRange } from './carrier';
import { HEARD, type EncodingKind } from './encoding';

/** Option i is the note `values[i]`, struck and let go: for notes that do not follow each other. */
export const noteTableEncodingSchema = z.strictObject({
  kind: z.literal('note-table'),
  values: z.array(byteSchema).min(1).max(128),
  velocity: z.int().min(1).max(127),
});

export type NoteTableEncoding = Deep<z.infer<typeof noteTableEncodingSchema>>;

export const noteTableEncoding: EncodingKind<NoteTableEncoding> = {
  kind: 'note-table',
  schema: noteTableEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.values.length),
  claims: (e) => e.values.map((number) => ({ on: 'note', number })),
  encode: (e, channel, value) => {
    checkOption('the notes', value, e.values.length);
    return [noteOn(channel, e.values[value]!, e.velocity), noteOff(channel, e.values[value]!)];
  },
  decode: (e, message) => {
    if (message.kind !== 'note-on' && message.kind !== 'note-off') return undefined;
    const option = e.values.indexOf(message.note);
    if (option < 0) return undefined;
    // A note-on with velocity 0 is a note-off (MIDI 1.0, note on).
    return message.kind === 'note-on' && message.velocity > 0 ? option : HEARD;
  },
};
