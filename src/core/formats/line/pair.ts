import { z } from 'zod';

/**
 * What two computers of one show tell each other, as JSON texts: one object a message. Whoever leads tells what it
 * plays and every byte that it sends; whoever follows tells that it is there. Clock times are microseconds of the
 * clock of whoever sends the message; each finds out by itself how far the other's clock is off.
 */

const id = z.string().max(64);
/** Clock times are from the epoch or so, song times within it; a place in ticks is within any song. */
const micros = z.number().min(-1e17).max(1e17);
const ticks = z.number().nonnegative().max(1e10);

const played = z.strictObject({
  entryId: id.nullable(),
  songId: id,
  title: z.string().max(200),
  at: micros,
  until: micros.nullable(),
  how: z.enum(['asked', 'follows', 'launched', 'code']),
  struck: z.boolean(),
});

/** A session as the other computer has to know it to go on with it. */
const mirroredSchema = z.strictObject({
  showId: id,
  songId: id.nullable(),
  entryId: id.nullable(),
  queued: id.nullable(),
  /** What plays: the place it was started from, and the clock time of its start. */
  plays: z.strictObject({ from: ticks, zero: micros }).nullable(),
  /** Where a song stands that does not play, in its time as it is planned. */
  place: micros,
  speed: z.number().min(0.05).max(20),
  counted: z.boolean(),
  countsIn: z.boolean(),
  outside: z.number().min(1).max(2000).nullable(),
  isLed: z.boolean(),
  loop: z
    .strictObject({ songId: id, from: ticks, to: ticks })
    .refine(({ from, to }) => to > from)
    .nullable(),
  following: z.strictObject({ entryId: id, at: micros }).nullable(),
  history: z.array(played).max(200),
  night: id.nullable(),
  muted: z.array(id).max(1000),
  solo: z.array(id).max(1000),
  next: z.strictObject({ songId: id, entryId: id.nullable(), place: ticks }).nullable(),
  beside: id.nullable(),
});
export type Mirrored = Readonly<z.infer<typeof mirroredSchema>>;

/** What a unit is on: as the simulated rig has it. */
const state = z.strictObject({
  slot: z.number().nullable(),
  bank: z.number().nullable(),
  variant: z.union([z.number(), z.literal('stored')]).nullable(),
  controls: z.record(id, z.union([z.number(), z.literal('stored')])),
});

/** A message that left, or will: of a cue and for a unit, '' for none. */
const sent = z.strictObject({
  portId: id,
  cueId: id,
  unitId: id,
  at: micros,
  bytes: z.array(z.int().min(0).max(255)).max(1 << 20),
});

export const fromPeerSchema = z.discriminatedUnion('kind', [
  /** Said ten times a second by both, whatever happens. `echo`: when the last one that was heard was sent, and how long ago it came. */
  z.strictObject({
    kind: z.literal('beat'),
    at: micros,
    leads: z.boolean(),
    /** Counts who led: whoever takes the lead counts one further. */
    term: z.int().nonnegative(),
    /** It has the show and what plays, and takes over by itself. */
    ready: z.boolean(),
    echo: z.strictObject({ at: micros, held: micros }).nullable(),
  }),
  z.strictObject({ kind: z.literal('session'), session: mirroredSchema }),
  z.strictObject({ kind: z.literal('sent'), list: z.array(sent).max(10_000) }),
  /** What all units are on, now that nothing is on its way. */
  z.strictObject({ kind: z.literal('rig'), rig: z.record(id, state) }),
  /** Somebody wants the lead, by hand. */
  z.strictObject({ kind: z.literal('wants'), term: z.int().nonnegative() }),
  /** It leaves, and will not take over. */
  z.strictObject({ kind: z.literal('bye') }),
]);
export type FromPeer = z.infer<typeof fromPeerSchema>;
export type PeerSent = z.infer<typeof sent>;

const pass = z.string().max(64);

/** What the first computer's page says to its server. */
export const fromFirstSchema = z.discriminatedUnion('kind', [
  /** A code is wanted by which a second computer may join. */
  z.strictObject({ kind: z.literal('new-code') }),
  /** A second computer that was let in before comes back with this. */
  z.strictObject({ kind: z.literal('pass'), pass }),
  /** The second computer is let go, and does not come back. */
  z.strictObject({ kind: z.literal('end') }),
]);

export const toFirstSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('code'), code: z.string(), seconds: z.number() }),
  z.strictObject({ kind: z.literal('wrong-codes'), count: z.int().positive() }),
  /** Addresses under which a second computer finds this server. */
  z.strictObject({ kind: z.literal('addresses'), addresses: z.array(z.string()) }),
  z.strictObject({ kind: z.literal('let-in'), pass }),
  z.strictObject({ kind: z.literal('peer'), there: z.boolean() }),
  /** Another page of this machine is the first computer now. */
  z.strictObject({ kind: z.literal('taken') }),
]);
export type ToFirst = z.infer<typeof toFirstSchema>;

/** What a page says first to the server of its own machine: whom it wants to follow. */
export const fromFollowerSchema = z.strictObject({ kind: z.literal('reach'), address: z.string().max(300) });

export const fromSecondSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('join'), code: z.string().max(12) }),
  z.strictObject({ kind: z.literal('back'), pass }),
]);

export const toSecondSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('joined'), pass }),
  z.strictObject({
    kind: z.literal('refused'),
    why: z.enum(['code', 'often', 'pass', 'address', 'unreachable']),
  }),
  z.strictObject({ kind: z.literal('peer'), there: z.boolean() }),
  /** Another one comes in its place. */
  z.strictObject({ kind: z.literal('taken') }),
]);
export type ToSecond = z.infer<typeof toSecondSchema>;

const MARK = '>';

/** A message for the other computer: servers pass it on as it is. */
export const forPeer = (message: unknown): string => `${MARK}${JSON.stringify(message)}`;
/** Whether a text of the line is one. */
export const isForPeer = (text: string): boolean => text.startsWith(MARK);
/** The JSON text of a message from the other computer. */
export const peerText = (text: string): string => text.slice(MARK.length);

/** What pages of the two computers tell each other: the show, with what changed of it since it was told last. */
export const peerShowSchema = z.strictObject({
  kind: z.literal('show'),
  frame: z.looseObject({ format: z.string(), version: z.number(), id: z.string() }).nullable(),
  songs: z.array(z.looseObject({ id: z.string() })),
  order: z.array(z.string()),
});
