import { z } from 'zod';
import type { Deep } from './readonly';
import { TRIGGERS } from './triggers';

/** Where something stands: bytes from the start of what it is part of. */
const offset = z.int().min(0).max(65_535);
const byte = z.int().min(0).max(255);
const size = z.int().min(1).max(65_535);

/** A name of fixed length, filled up behind its letters. */
const nameSchema = z.strictObject({ at: offset, length: z.int().min(1).max(60), pad: byte });
/** A channel as it is written: the first one as 0 or as 1. */
const channelSchema = z.strictObject({ at: offset, first: z.union([z.literal(0), z.literal(1)]) });
/** Parts of one size, one behind the other. */
const rowSchema = z.strictObject({ at: offset, size, count: z.int().min(1).max(1024) });

/**
 * How a controller of some kind writes its pages into a dump: its header, how its bytes are packed, and where in its memory
 * names, switches, messages and pedals stand. Whatever is not named is kept as it came.
 */
export const dumpFormSchema = z.strictObject({
  /** The bytes that a dump begins with, from F0 on, as hexadecimal. */
  head: z.string().regex(/^f0(?:[0-7][0-9a-f]){1,32}$/),
  /** The bytes that ask the controller for a dump; empty where it has to be sent from its own menu. */
  ask: z.string().regex(/^(?:f0(?:[0-7][0-9a-f]){1,32}f7)?$/),
  /** One message for each page, with the page's place right behind the head; else one message for all. */
  perPage: z.boolean(),
  /**
   * How eight bits travel in seven: as they are; each byte in two halves, the upper first or the lower; or seven bytes in eight,
   * the first with the upper bits of the others, that of the first byte as its lowest bit or as its highest (bit 6).
   */
  packing: z.enum(['none', 'halves-high', 'halves-low', 'eighth-low', 'eighth-high']),
  /** A byte of seven bits before F7, over all behind the head: their sum, what is missing of it to 128, or their exclusive or. */
  checksum: z.enum(['none', 'sum', 'missing', 'xor']),
  /** Pages in the memory; with a message for each page, `at` counts in that message. */
  pages: rowSchema,
  /** The rest counts from the start of a page, of a switch, of a message. */
  name: nameSchema.nullable(),
  switches: rowSchema,
  switchName: nameSchema.nullable(),
  actions: z
    .array(z.strictObject({ trigger: z.enum(TRIGGERS), messages: rowSchema }))
    .min(1)
    .max(TRIGGERS.length),
  message: z.strictObject({
    /** What kind it is of: the byte for each; null for a kind that the controller has not. `none` is no message. */
    kind: z.strictObject({
      at: offset,
      none: byte,
      program: byte.nullable(),
      control: byte.nullable(),
      note: byte.nullable(),
    }),
    channel: channelSchema,
    number: z.strictObject({ at: offset }),
    value: z.strictObject({ at: offset }),
  }),
  /** Expression inputs of a page; `unused` is the control number of one that does nothing. */
  pedals: z
    .strictObject({
      row: rowSchema,
      channel: channelSchema,
      number: offset,
      from: offset,
      to: offset,
      unused: byte,
    })
    .nullable(),
});

export type DumpForm = Deep<z.infer<typeof dumpFormSchema>>;
