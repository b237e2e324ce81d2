import { z } from 'zod';
import { controllerSchema } from './controller';
import { encodingSchema } from './encodings/registry';
import { addressPlanSchema } from './plan';
import type { Deep } from './readonly';
import { timeSchema } from './times';

/** The most variants of a unit. */
export const VARIANT_LIMIT = 128;

const idSchema = z.string().min(1).max(64);

export const controlSchema = z.strictObject({
  id: idSchema,
  /** The unit's own name for it; never a generic controller name. */
  name: z.string().min(1).max(60),
  encoding: encodingSchema,
  /** The value at rest, in the encoding's own figure. */
  rest: z.number().nullable(),
  /** Names of a list's options in order; those without one are shown by number. */
  options: z.array(z.string().max(60)).max(128),
  /** The shared control number that this control follows, where its number can be chosen on the unit; else null. */
  houseId: idSchema.nullable(),
});

/** An effect that keeps ringing or not when it ends, and the switches that decide it. */
export const effectSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1).max(60),
  /** Off cuts the effect, and what still rings, at once. */
  cut: idSchema,
  /** Off closes only its input, so that it rings out; null where the unit has no such switch. */
  ring: idSchema.nullable(),
});

/** Something on a controller that sends: a switch, a pad, a pedal. */
export const senderSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1).max(60),
  channel: z.int().min(1).max(16),
  encoding: encodingSchema,
});

export const variantsSchema = z.strictObject({
  /** The unit's own word: scene, snapshot, channel, … */
  word: z.string().min(1).max(24),
  names: z.array(z.string().max(60)).min(1).max(VARIANT_LIMIT),
  encoding: encodingSchema,
});

const hexBytes = (least: number, most: number) => z.string().regex(new RegExp(`^(?:[0-7][0-9A-F]){${least},${most}}$`));

/** Who a unit says it is when it is asked by a device inquiry (MIDI 1.0, universal non-real-time 06 02): data bytes, two digits each. */
export const identitySchema = z.strictObject({
  /** One byte, or three that begin with 00. */
  maker: z.string().regex(/^(?:(?!00)[0-7][0-9A-F]|00(?:[0-7][0-9A-F]){2})$/),
  family: hexBytes(2, 2),
  member: hexBytes(2, 2),
  /** Four bytes of the firmware's version, in the maker's own way. */
  version: hexBytes(4, 4),
});

/** What a kind of unit is like: its numbers, and how long it takes to obey. */
export const profileSchema = z.strictObject({
  name: z.string().min(1).max(60),
  firmware: z.string().max(24),
  /** What it answers when it is asked who it is; null where nobody knows. */
  identity: identitySchema.nullable(),
  plan: addressPlanSchema,
  variants: variantsSchema.nullable(),
  controls: z.array(controlSchema).max(512),
  effects: z.array(effectSchema).max(128),
  /** The switch that a recall leaves off and that has to be sent before the preset sounds; null where recalling is enough. */
  engage: idSchema.nullable(),
  /** What a stored state of the unit holds that only its panel sets: channel, EQ, loop, … */
  panel: z.array(z.string().min(1).max(40)).max(32),
  /** What the unit sends when it is played; empty but for controllers. */
  senders: z.array(senderSchema).max(256),
  /** How it is laid out and programmed, where it is played by foot or hand; null for all else. */
  controller: controllerSchema.nullable(),
  times: z.strictObject({
    /** From the program change to the sound; single presets may have a time of their own (`Slot.recall`). */
    recall: timeSchema,
    variant: timeSchema,
    control: timeSchema,
    /** From a program change until the next message is accepted. */
    settle: timeSchema,
    /** What passing a message on takes, beside the length of the message. */
    thru: timeSchema,
  }),
  /** What becomes of a message that arrives while the unit settles. */
  whileSettling: z.enum(['ignore', 'queue']),
  /** What a recalled preset brings with it, over what was set before. */
  recallLoads: z.strictObject({ variant: z.boolean(), controls: z.boolean() }),
  /** Whether nothing sounds while a preset loads. */
  silentInGap: z.boolean(),
  /** What makes it fall silent: MIDI's own all sound off and all notes off, and bytes of its own as they stand. */
  silence: z.strictObject({
    usual: z.boolean(),
    bytes: z
      .string()
      .regex(/^([0-9a-f]{2})*$/)
      .max(4000),
  }),
});

export type Effect = Deep<z.infer<typeof effectSchema>>;
export type Sender = Deep<z.infer<typeof senderSchema>>;
export type Control = Deep<z.infer<typeof controlSchema>>;
export type Variants = Deep<z.infer<typeof variantsSchema>>;
export type Controller = Deep<z.infer<typeof controllerSchema>>;
export type Profile = Deep<z.infer<typeof profileSchema>>;
