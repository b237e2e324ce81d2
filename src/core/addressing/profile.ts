import { z } from 'zod';
import { encodingSchema } from './encodings/registry';
import { addressPlanSchema } from './plan';
import type { Deep } from './readonly';

const idSchema = z.string().min(1).max(64);
const millis = z.number().min(0).max(60000);

export const controlSchema = z.strictObject({
  id: idSchema,
  /** The unit's own name for it; never a generic controller name. */
  name: z.string().min(1).max(60),
  encoding: encodingSchema,
  /** The value at rest, in the encoding's own figure. */
  rest: z.number().nullable(),
});

export const variantsSchema = z.strictObject({
  /** The unit's own word: scene, snapshot, channel, … */
  word: z.string().min(1).max(24),
  names: z.array(z.string().max(60)).min(1).max(128),
  encoding: encodingSchema,
});

/** What a kind of unit is like: its numbers, and how long it takes to obey. */
export const profileSchema = z.strictObject({
  name: z.string().min(1).max(60),
  firmware: z.string().max(24),
  plan: addressPlanSchema,
  variants: variantsSchema.nullable(),
  controls: z.array(controlSchema).max(512),
  times: z.strictObject({
    /** From the program change to the sound. */
    recall: millis,
    variant: millis,
    control: millis,
    /** From a program change until the next message is accepted. */
    settle: millis,
  }),
  /** What becomes of a message that arrives while the unit settles. */
  whileSettling: z.enum(['ignore', 'queue']),
  /** What a recalled preset brings with it, over what was set before. */
  recallLoads: z.strictObject({ variant: z.boolean(), controls: z.boolean() }),
  /** Whether nothing sounds while a preset loads. */
  silentInGap: z.boolean(),
});

export type Control = Deep<z.infer<typeof controlSchema>>;
export type Variants = Deep<z.infer<typeof variantsSchema>>;
export type Profile = Deep<z.infer<typeof profileSchema>>;
