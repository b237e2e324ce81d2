import type { Profile } from '../addressing';
import { EFFECTS } from './effects';
import { toHex } from '../midi';
import { CONTROLLERS } from './controllers';
import type { LibraryEntry } from './entry';
import { MODELERS } from './modelers';
import { OTHERS } from './others';

const hex = (value: number): string => toHex([value]).toUpperCase();

/** All generic kinds of unit, those that a guitarist meets first in front. */
export const LIBRARY: readonly LibraryEntry[] = [...MODELERS, ...EFFECTS, ...OTHERS, ...CONTROLLERS].map(identified);

/** Says who an entry's unit is when it is asked: 7D is the id for what no maker sells (MIDI 1.0), the family is its place here. */
function identified(entry: LibraryEntry, place: number): LibraryEntry {
  const known = (profile: Profile): Profile => ({
    ...profile,
    identity: {
      maker: '7D',
      family: `${hex(place + 1)}00`,
      member: '0000',
      version: [0, 1, 2, 3].map((i) => hex(Number(profile.firmware.split('.')[i] ?? 0))).join(''),
    },
  });
  return { ...entry, profile: known(entry.profile), versions: entry.versions.map(known) };
}

/** A library entry by id. Throws when the library has none. */
export function libraryEntry(id: string): LibraryEntry {
  const entry = LIBRARY.find((e) => e.id === id);
  if (!entry) throw new RangeError(`the library has no profile "${id}"`);
  return entry;
}

/** The profile of a library entry. Throws where there is no entry of that id. */
export const libraryProfile = (id: string): Profile => libraryEntry(id).profile;
