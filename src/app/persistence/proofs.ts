import type { CueProof } from '../../core/proof';
import type { Shelf } from './db';
import { readProofRow } from './rows';

/** Keeps what is proven of a song, in place of what was. */
export const keepProof = (
  shelf: Shelf,
  showId: string,
  songId: string,
  proofs: Readonly<Record<string, CueProof>>,
): Promise<unknown> => shelf.proofs.put({ showId, songId, proofs });

/** All kept proofs of a show, by song and fingerprint. Damaged rows are left out: what they said is proven again. */
export async function loadProofs(
  shelf: Shelf,
  showId: string,
): Promise<Readonly<Record<string, Readonly<Record<string, CueProof>>>>> {
  const rows = await shelf.proofs.where('showId').equals(showId).toArray();
  return Object.fromEntries(
    rows.flatMap((row) => {
      const read = readProofRow(row);
      return read ? [[read.songId, read.proofs]] : [];
    }),
  );
}
