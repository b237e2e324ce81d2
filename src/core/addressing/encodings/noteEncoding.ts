import { z } from 'zod';
import type { Deep } from '../readonly';
import { noteOff, noteOn } from '../../midi';
import { byteSchema, checkOption, optionRange } from './carrier';
import { HEARD, type EncodingKind } from './encoding';

/** Option i is the note `first` + i, struck and let go. */
export const noteEncodingSchema = z.strictObject({
  kind: z.literal('note'),
  first: byteSchema,
  count: z.int().min(1).max(128),
  velocity: z.int().min(1).max(127),
});

export type NoteEncoding = Deep<z.infer<typeof noteEncodingSchema>>;

export const noteEncoding: EncodingKind<NoteEncoding> = {
  kind: 'note',
  schema: noteEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => optionRange(e.count),
  claims: (e) => Array.from({ length: e.count }, (_, i) => ({ on: 'note', number: e.first + i })),
  encode: (e, channel, value) => {
    checkOption('the notes', value, e.count);
    return [noteOn(channel, e.first + value, e.velocity), noteOff(channel, e.first + value)];
  },
  decode: (e, message) => {
    if (message.kind !== 'note-on' && message.kind !== 'note-off') return undefined;
    const option = message.note - e.first;
    if (option < 0 || option >= e.count) return undefined;
    // A note-on with velocity 0 is a note-off (MIDI 1.0, note on).
    return message.kind === 'note-on' && message.velocity > 0 ? option : HEARD;
  },
};
