import { z } from 'zod';
import { dumpFormSchema } from './dumpForm';
import { TRIGGERS } from './triggers';

const idSchema = z.string().min(1).max(64);
const count = z.int().min(0).max(256);

/** Where a switch lies on the floor: rows from the far side to the feet, columns from the left. Its name is the sender's. */
const placedSchema = z.strictObject({
  id: idSchema,
  row: z.int().min(0).max(15),
  column: z.int().min(0).max(15),
});

/** What a kind of foot controller is like: how it lies on the floor, what its pages can hold, how it is programmed. */
export const controllerSchema = z.strictObject({
  /** Senders of the profile that are switches, in their places. */
  switches: z.array(placedSchema).min(1).max(128),
  /** Senders of the profile that are expression inputs. */
  pedals: z.array(idSchema).max(16),
  triggers: z.array(z.enum(TRIGGERS)).min(1).max(TRIGGERS.length),
  /** Messages that one switch of one page holds, by kind and in all. */
  holds: z.strictObject({ program: count, control: count, note: count, exclusive: count, all: count }),
  /** Whether a switch can go to another page: not at all, with nothing else, or together with messages. */
  jumps: z.enum(['none', 'alone', 'with-messages']),
  /** It has switches of its own for the page before and the next. */
  stepsPages: z.boolean(),
  /** What its displays show of a name: so many letters, of which kind. */
  display: z.strictObject({
    length: z.int().min(0).max(60),
    letters: z.enum(['none', 'capitals', 'plain', 'any']),
  }),
  /** Whether a light at each switch tells on from off. */
  lights: z.boolean(),
  /** The messages that identify its switches to the computer: the first number that they use, on a channel. */
  call: z.strictObject({
    kind: z.enum(['control', 'note', 'program']),
    channel: z.int().min(1).max(16),
    first: z.int().min(0).max(127),
  }),
  /** Whether it takes its pages over the cable, in the format of docs/foot-format.md, or has to be programmed by hand. */
  takes: z.enum(['transfer', 'nothing']),
  /** What has to be done at the controller before a transfer, and after it, in order. */
  before: z.array(z.string().min(1).max(200)).max(12),
  after: z.array(z.string().min(1).max(200)).max(12),
  /** How its pages stand in a dump of its memory; null where nobody described it. */
  memory: dumpFormSchema.nullable(),
  /** Millimetres from the middle of a switch to the middle of the next. */
  pitch: z.number().min(10).max(200),
});
