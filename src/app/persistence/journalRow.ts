import { z } from 'zod';

const played = z.strictObject({
  entryId: z.string().nullable(),
  songId: z.string(),
  title: z.string(),
  /** Microseconds from the epoch. */
  at: z.number(),
  until: z.number().nullable(),
  how: z.enum(['asked', 'follows', 'launched', 'code']),
  struck: z.boolean(),
});

const placeRow = z.strictObject({
  showId: z.string(),
  /** The show that is on for an audience, by the id of its list; null for a rehearsal. */
  night: z.string().nullable(),
  songId: z.string().nullable(),
  songTitle: z.string(),
  entryId: z.string().nullable(),
  /** In ticks of the song as it is written. */
  at: z.number().nonnegative(),
  playing: z.boolean(),
  queued: z.string().nullable(),
  /** Units whose lanes are muted, and those that alone are heard. */
  muted: z.array(z.string()).readonly(),
  solo: z.array(z.string()).readonly(),
  /** Milliseconds from the epoch. */
  when: z.number(),
});

const playedRow = z.strictObject({
  showId: z.string(),
  id: z.string(),
  kind: z.enum(['show', 'rehearsal']),
  /** As somebody named it; empty for its day. */
  name: z.string().max(80),
  /** Milliseconds from the epoch. */
  begun: z.number(),
  /** Oldest first. */
  history: z.array(played).readonly(),
});

/** Where a show is on this computer: the last thing that was written before whatever ran it ended. */
export type PlaceRow = Readonly<z.infer<typeof placeRow>>;
/** What was played in one show, or in the rehearsals of one day. */
export type PlayedRow = Readonly<z.infer<typeof playedRow>>;

/** A row of the journal as it should be; undefined for one that is damaged. */
export const readPlaceRow = (row: unknown): PlaceRow | undefined => placeRow.safeParse(row).data;
export const readPlayedRow = (row: unknown): PlayedRow | undefined => playedRow.safeParse(row).data;
