import type { Shelf, SoundRow } from './db';
import { readSoundRow } from './rows';

export const keepSound = (shelf: Shelf, row: SoundRow): Promise<unknown> => shelf.sounds.put(row);

/** A sound of a show; undefined where its bytes are not in this browser, or are damaged. */
export const loadSound = async (shelf: Shelf, showId: string, id: string): Promise<SoundRow | undefined> =>
  readSoundRow(await shelf.sounds.get([showId, id]));

/** The sounds of a show go with it to another one: its copy. */
export async function copySounds(shelf: Shelf, from: string, to: string): Promise<void> {
  const rows = await shelf.sounds.where('showId').equals(from).toArray();
  await shelf.sounds.bulkPut(rows.map((row) => ({ ...row, showId: to })));
}
