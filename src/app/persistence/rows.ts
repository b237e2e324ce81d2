import { z } from 'zod';
import type { CueProof } from '../../core/proof';
import type { SoundRow } from './db';

const verdict = z.looseObject({
  cueId: z.string(),
  unitId: z.string(),
  due: z.number(),
  outcome: z.enum(['on-time', 'early', 'late', 'never']),
  offset: z.number().nullable(),
  reason: z.looseObject({ kind: z.string() }),
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
  return read.success ? (read.data as SoundRow) : undefined;
};

const listed = z.tuple([z.number().finite(), z.string(), z.string()]);

/** What the shelf's index says of a show; a date that is none is 0. */
export function readListed(
  key: unknown,
): { readonly id: string; readonly title: string; readonly savedAt: number } | undefined {
  const read = listed.safeParse(key);
  if (read.success) return { savedAt: read.data[0], id: read.data[1], title: read.data[2] };
  const parts = Array.isArray(key) ? key : [];
  return typeof parts[1] === 'string'
    ? { savedAt: 0, id: parts[1], title: typeof parts[2] === 'string' ? parts[2] : 'A show without a title' }
    : undefined;
}

/** What this computer remembers, whatever show is open. */
export const deviceSchema = z.object({
  counting: z.enum(['zero', 'one', 'label']),
});
export type Device = z.infer<typeof deviceSchema>;
