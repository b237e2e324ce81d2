import { z } from 'zod';
import type { CueProof } from '../../core/proof';
import type { SoundRow } from './db';

const limit = z.number().or(z.literal(Number.POSITIVE_INFINITY));
const becomes = z.enum(['late', 'lost']);

const verdict = z.looseObject({
  cueId: z.string(),
  unitId: z.string(),
  due: z.number(),
  outcome: z.enum(['on-time', 'early', 'late', 'never']),
  offset: z.number().nullable(),
  reason: z.looseObject({ kind: z.string() }),
  margin: z
    .strictObject({ slower: limit, slowerBecomes: becomes, later: limit, laterBecomes: becomes, sooner: limit })
    .nullable(),
});

const proofRow = z.object({
  songId: z.string(),
  proofs: z.record(z.string(), z.object({ lantern: z.enum(['hollow', 'lit', 'cracked']), verdicts: z.array(verdict) })),
});

/** A row of proofs as it should be; undefined for one that is damaged: what it said is proven again. */
export function readProofRow(
  row: unknown,
): { readonly songId: string; readonly proofs: Readonly<Record<string, CueProof>> } | undefined {
  const read = proofRow.safeParse(row);
  return read.success ? (read.data as { songId: string; proofs: Record<string, CueProof> }) : undefined;
}

const soundRow = z.object({
  showId: z.string(),
  id: z.string(),
  type: z.string(),
  bytes: z.instanceof(ArrayBuffer),
  peaks: z.instanceof(Uint8Array),
});

/** A row of a sound as it should be; undefined for one that is damaged: it counts as missing, and can be put back. */
export const readSoundRow = (row: unknown): SoundRow | undefined => {
  const read = soundRow.safeParse(row);
  return read.success ? read.data : undefined;
};

const realName = z.object({
  key: z.string(),
  name: z.string(),
  maker: z.string(),
  /** How many of the same name and maker there were, and which of them it is, from 0. */
  twins: z.int().min(1).default(1),
  place: z.int().min(0).default(0),
});
const portUse = z.object({
  /** Whether a stand-in answers on it. */
  standIn: z.boolean(),
  out: realName.nullable(),
  in: realName.nullable(),
});

/** Outputs of the sound card, from 0. */
const route = z.array(z.int().min(0).max(63)).max(2).readonly();

/** A port of this computer, so that it is found again when it is plugged in again. */
export type RealName = Readonly<z.infer<typeof realName>>;
/** What this computer has a port of a show be. */
export type PortUse = Readonly<z.infer<typeof portUse>>;

/** So many of a real port's messages are remembered. */
export const LATENESS_TRIALS = 1000;

const lateness = z.object({
  /** Messages in all. */
  count: z.int().min(0),
  /** By how many milliseconds each of the last ones left late. */
  trials: z.array(z.number().min(0).max(60_000)).min(1).max(LATENESS_TRIALS).readonly(),
  /** The day of the last one, as 2026-12-01. */
  date: z.string().regex(/^\d{4}-\d{2}-\d{2}$/),
});

/** How late messages left this computer on one of its ports. */
export type Lateness = Readonly<z.infer<typeof lateness>>;

const pair = z.object({
  seat: z.enum(['first', 'second']),
  /** Of the first computer, for the second. */
  address: z.string(),
  /** By what the second one comes back; null before it was let in. */
  pass: z.string().nullable(),
  showId: z.string().nullable(),
  when: z.number(),
  /** What turns a switch box to this computer. */
  box: z.object({ portId: z.string(), bytes: z.array(z.int().min(0).max(255)) }).nullable(),
});

/** A pair of computers that this one is one of. */
export type PairRow = Readonly<z.infer<typeof pair>>;

/** What this computer remembers, whatever show is open. */
export const deviceSchema = z.object({
  counting: z.enum(['zero', 'one', 'label']),
  /** The light of the desk; `system` follows the computer. */
  light: z.enum(['light', 'dark', 'system']),
  /** Outputs by source and by mix for ears, and milliseconds that sound is later than the browser knows of. */
  routes: z.record(z.string(), route),
  earRoutes: z.record(z.string(), route),
  delay: z.number().min(-1000).max(1000),
  /** Shows that are open for a stand-in player: stage only, until somebody unlocks them. */
  stageOnly: z.array(z.string()),
  /** By show and by port of the show. */
  ports: z.record(z.string(), z.record(z.string(), portUse)),
  /** What foot controllers were last known to hold, as hexadecimal, by show and by unit. */
  controllers: z.record(z.string(), z.record(z.string(), z.string().regex(/^([0-9a-f]{2})*$/))),
  /** When each show went out as a file last, or was opened here first. */
  exported: z.record(z.string(), z.number()),
  /** Places whose rarer fields are open. */
  opened: z.array(z.string()),
  /** How late messages left, by name and maker of the real port. */
  portTimes: z.record(z.string(), lateness),
  /** The pair of computers that it was one of last; null where it is alone. */
  pair: pair.nullable(),
  /** What was ticked off of lists that are typed into controllers, by show. */
  typed: z.record(z.string(), z.array(z.string())),
});
export type Device = z.infer<typeof deviceSchema>;
