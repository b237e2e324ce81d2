import { readShowData } from '../../core/formats/show-file';
import { hasErrors, type Problem, type Read } from '../../core/problems';
import { SHOW_VERSION, type Show } from '../../core/show';
import type { Shelf } from './db';
import { dataOf, type Lying } from './shows';

export interface Loaded extends Omit<Lying, 'data'> {
  readonly read: Read<Show>;
  /** What lies there is of an older version: no row of it is as it was read. */
  readonly lifted: boolean;
}

/**
 * A show from the shelf, read through the same door as a file. A song that is damaged is left out, as one that is
 * missing is: its row stays as it is, and is given as `damaged`. Undefined when there is no such show.
 */
export async function loadShow(shelf: Shelf, id: string): Promise<Loaded | undefined> {
  const but = new Set<string>();
  for (;;) {
    const lying = await dataOf(shelf, id, but);
    if (!lying) return undefined;
    const { data, ...rest } = lying;
    const read = readShowData(data);
    const bad = read.value ? [] : songsAt(read.problems, lying.songIds);
    // What is wrong with the rest of the show is not for a song to answer for.
    if (bad.length === 0) return { read, lifted: (data as { version?: unknown }).version !== SHOW_VERSION, ...rest };
    for (const song of bad) but.add(song);
  }
}

/** Ids of the songs that problems lie in. */
function songsAt(problems: readonly Problem[], songIds: readonly string[]): readonly string[] {
  if (!hasErrors(problems)) return [];
  const places = problems.flatMap(({ place }) =>
    place.in === 'show' && place.path[0] === 'songs' && typeof place.path[1] === 'number' ? [place.path[1]] : [],
  );
  return [...new Set(places)].flatMap((i) => songIds[i] ?? []);
}
