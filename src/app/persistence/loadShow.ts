import { readShowData } from '../../core/formats/show-file';
import type { Read } from '../../core/problems';
import type { Show } from '../../core/show';
import type { Shelf } from './db';

export interface Loaded {
  readonly read: Read<Show>;
  readonly revision: number;
}

/** A show from the shelf, read through the same door as a file. Undefined when there is none. */
export async function loadShow(shelf: Shelf, id: string): Promise<Loaded | undefined> {
  const row = await shelf.shows.get(id);
  return row && { read: readShowData(row.data), revision: row.revision };
}
