import type { Shelf, SoundRow } from './db';
import { readSoundRow } from './rows';

export const keepSound = (shelf: Shelf, row: SoundRow): Promise<unknown> => shelf.sounds.put(row);

/** A sound of a show; undefined where its bytes are not in this browser, are damaged, or nothing can be read at all. */
export async function loadSound(shelf: Shelf, showId: string, id: string): Promise<SoundRow | undefined> {
  const row = await shelf.sounds.get([showId, id]).catch(() => undefined);
  return readSoundRow(row);
}

/** The sounds of a show go with it to another one: its copy. */
export async function copySounds(shelf: Shelf, from: string, to: string): Promise<void> {
  const rows = await shelf.sounds.where('showId').equals(from).toArray();
  await shelf.sounds.bulkPut(rows.map((row) => ({ ...row, showId: to })));
}
