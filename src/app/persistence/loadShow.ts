import { readShowData } from '../../core/formats/show-file';
import type { Read } from '../../core/problems';
import type { Show } from '../../core/show';
import type { Shelf } from './db';
import { dataOf, type Lying } from './shows';

export interface Loaded extends Omit<Lying, 'data'> {
  readonly read: Read<Show>;
}

/** A show from the shelf, read through the same door as a file. Undefined when there is none. */
export async function loadShow(shelf: Shelf, id: string): Promise<Loaded | undefined> {
  const lying = await dataOf(shelf, id);
  if (!lying) return undefined;
  const { data, ...rest } = lying;
  return { read: readShowData(data), ...rest };
}
