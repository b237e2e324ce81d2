import { z } from 'zod';

/**
 * What goes over the line between the desk, the server and screens elsewhere, as JSON texts: one object a
 * message. A screen is told, and tells nothing but who it is. Times are microseconds of song time.
 */

const id = z.string().max(64);

/** A song that was played, with microseconds from the epoch. */
const played = z.strictObject({
  entryId: id.nullable(),
  songId: id,
  title: z.string().max(200),
  at: z.number(),
  until: z.number().nullable(),
  how: z.enum(['asked', 'follows', 'launched', 'code']),
  struck: z.boolean(),
});

/** So many songs that were played are told: what a stage says of a night hangs on the last ones. */
export const TOLD_SONGS = 30;

/** Where the song that is on stage is, as a screen draws it. */
export const stageNewsSchema = z.strictObject({
  playing: z.boolean(),
  /** The song that the desk's stage shows. */
  songId: id.nullable(),
  place: z.number(),
  /** Where it was started from; null while nothing plays. */
  from: z.number().nullable(),
  /** Where its next start begins, in ticks. */
  begins: z.number().nonnegative(),
  /** The show that is on; null for a rehearsal. */
  night: id.nullable(),
  entryId: id.nullable(),
  queued: id.nullable(),
  following: z.strictObject({ entryId: id, seconds: z.number() }).nullable(),
  history: z.array(played).max(TOLD_SONGS),
  /** What each unit is on, by its id. */
  rig: z.record(
    id,
    z.strictObject({
      slot: z.number().nullable(),
      variant: z.union([z.number(), z.literal('stored')]).nullable(),
    }),
  ),
  /** What is wrong, in one line; null for nothing. */
  wrong: z.string().max(400).nullable(),
});
export type StageNews = Readonly<z.infer<typeof stageNewsSchema>>;

const show = z.looseObject({ format: z.string(), version: z.number() });

/** From the desk that shares its stage. */
export const fromDeskSchema = z.discriminatedUnion('kind', [
  /** A code is wanted by which one screen may join. */
  z.strictObject({ kind: z.literal('new-code') }),
  /** The show as a file holds it. Whoever draws it reads it as one. */
  z.strictObject({ kind: z.literal('show'), show }),
  z.strictObject({ kind: z.literal('news'), news: stageNewsSchema }),
  /** All screens are let go, and their passes end. */
  z.strictObject({ kind: z.literal('end-screens') }),
]);
export type FromDesk = z.infer<typeof fromDeskSchema>;

export const toDeskSchema = z.discriminatedUnion('kind', [
  /** `seconds` from now on it holds, for one screen. */
  z.strictObject({ kind: z.literal('code'), code: z.string(), seconds: z.number() }),
  z.strictObject({ kind: z.literal('screens'), count: z.int() }),
  /** So many wrong codes were tried just now. */
  z.strictObject({ kind: z.literal('wrong-codes'), count: z.int().positive() }),
  /** Addresses under which a screen finds this server. */
  z.strictObject({ kind: z.literal('addresses'), addresses: z.array(z.string()) }),
  z.strictObject({ kind: z.literal('taken') }),
]);
export type ToDesk = z.infer<typeof toDeskSchema>;

export const fromScreenSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('join'), code: z.string().max(12) }),
  /** A screen that was in comes back with what it was given. */
  z.strictObject({ kind: z.literal('back'), pass: z.string().max(64) }),
]);

export const toScreenSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('joined'), pass: z.string() }),
  z.strictObject({ kind: z.literal('refused'), why: z.enum(['code', 'often', 'pass', 'full']) }),
  z.strictObject({ kind: z.literal('desk'), there: z.boolean() }),
  z.strictObject({ kind: z.literal('show'), show }),
  z.strictObject({ kind: z.literal('news'), news: stageNewsSchema }),
]);
export type ToScreen = z.infer<typeof toScreenSchema>;

/** A message of the line from its text; undefined for anything else. */
export function readLine<T>(schema: z.ZodType<T>, text: string): T | undefined {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return undefined;
  }
  const read = schema.safeParse(data);
  return read.success ? read.data : undefined;
}
