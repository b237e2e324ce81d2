import type { Profile } from '../addressing';
import { EFFECTS } from './effects';
import type { LibraryEntry } from './entry';
import { MODELERS } from './modelers';
import { OTHERS } from './others';

/** All generic kinds of unit, those that a guitarist meets first in front. */
export const LIBRARY: readonly LibraryEntry[] = [...MODELERS, ...EFFECTS, ...OTHERS];

/** A library entry by id. Throws when the library has none. */
export function libraryEntry(id: string): LibraryEntry {
  const entry = LIBRARY.find((e) => e.id === id);
  if (!entry) throw new RangeError(`the library has no profile "${id}"`);
  return entry;
}

export const libraryProfile = (id: string): Profile => libraryEntry(id).profile;
