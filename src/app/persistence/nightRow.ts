import { z } from 'zod';

const playedChange = z.strictObject({
  cueId: z.string(),
  unitId: z.string(),
  /** When its first message was to leave, in milliseconds from the epoch. */
  planned: z.number(),
  /** By how many milliseconds the latest of its messages left late; null where one did not leave at all. */
  late: z.number().min(0).nullable(),
  /** By how much they could have left later before it would have missed, in milliseconds; null where that is not known. */
  margin: z.number().min(0).nullable(),
});
const playedSong = z.strictObject({
  songId: z.string(),
  title: z.string(),
  /** Milliseconds from the epoch. */
  begun: z.number(),
  messages: z.int().min(0),
  changes: z.array(playedChange).readonly(),
});
const playedNight = z.object({
  showId: z.string(),
  /** The day that it began on. */
  id: z.string(),
  songs: z.array(playedSong).readonly(),
});

/** A change of a song as it was played on real ports. */
export type PlayedChange = Readonly<z.infer<typeof playedChange>>;
/** A song as it was played. */
export type PlayedSong = Readonly<z.infer<typeof playedSong>>;
/** What was played on one night on this computer's own ports. */
export type PlayedNight = Readonly<z.infer<typeof playedNight>>;

/** A row of a night as it should be; undefined for one that is damaged. */
export const readNightRow = (row: unknown): PlayedNight | undefined => {
  const read = playedNight.safeParse(row);
  return read.success ? read.data : undefined;
};
