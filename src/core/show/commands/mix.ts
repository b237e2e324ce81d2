import type { Edit } from '../edits';
import { LIMITS } from '../limits';
import { SOURCES, type EarMix, type Show, type Source, type Stem } from '../schema';
import { changeTrack } from './sound';
import { unlinked } from './unlinked';

/** A name without blanks around it, as long as it may be; undefined for none, or one that another has. */
function freeName(
  list: readonly { readonly id: string; readonly name: string }[],
  id: string,
  name: string,
): string | undefined {
  const own = name.trim().slice(0, LIMITS.title).trim();
  const taken = list.some((x) => x.id !== id && x.name.toLowerCase() === own.toLowerCase());
  return own === '' || taken ? undefined : own;
}

/** Adds something to one of the show's lists, or puts it in the place of the one with its id. Null where nothing would change, or past the most. */
function put<T extends { readonly id: string }>(
  list: readonly T[],
  field: 'stems' | 'ears',
  most: number,
  value: T,
): Edit | null {
  const before = list.find((x) => x.id === value.id);
  if (!before) return list.length >= most ? null : { kind: 'insert', path: [field], index: list.length, value };
  if (JSON.stringify(before) === JSON.stringify(value)) return null;
  return { kind: 'set', path: [field, { id: value.id }], before, after: value };
}

/** Adds a stem, or gives it another name. Null for no name, or one that another stem has. */
export function putStem(show: Show, stem: Stem): Edit | null {
  const name = freeName(show.stems, stem.id, stem.name);
  return name === undefined ? null : put(show.stems, 'stems', LIMITS.stems, { ...stem, name });
}

/** Puts a recording of a song to the stem of a name, made where there is none (under an id for it); an empty name is none. */
export function setStemOf(show: Show, songId: string, trackId: string, name: string, newId: string): Edit | null {
  const own = name.trim().toLowerCase();
  const known = show.stems.find((s) => s.name.toLowerCase() === own);
  const made = own === '' || known ? null : putStem(show, { id: newId, name });
  if (own !== '' && !known && !made) return null;
  const edit = changeTrack(show, songId, trackId, { stemId: own === '' ? null : (known?.id ?? newId) });
  return edit && made ? { kind: 'group', edits: [made, edit] } : edit;
}

/** Takes a stem away: its recordings go out as their role says again, and no mix, reaction or foot switch knows it any more. */
export function removeStem(show: Show, stemId: string): Edit | null {
  const index = show.stems.findIndex((s) => s.id === stemId);
  if (index < 0) return null;
  const ears = show.ears.flatMap((ear): Edit[] => {
    const hears = ear.hears.filter((h) => h.of !== stemId);
    if (hears.length === ear.hears.length) return [];
    return [{ kind: 'set', path: ['ears', { id: ear.id }, 'hears'], before: ear.hears, after: hears }];
  });
  const remove: Edit = { kind: 'remove', path: ['stems'], index, value: show.stems[index] };
  return { kind: 'group', edits: [...unlinked(show, { kind: 'stem', id: stemId }), ...ears, remove] };
}

/** Adds a mix for somebody's ears, or puts it in the place of the one with its id. Null for no name, or one that another has. */
export function putEar(show: Show, ear: EarMix): Edit | null {
  const name = freeName(show.ears, ear.id, ear.name);
  return name === undefined ? null : put(show.ears, 'ears', LIMITS.ears, { ...ear, name });
}

/** Removes a person's ear mix. Null where it is not there. */
export function removeEar(show: Show, earId: string): Edit | null {
  const index = show.ears.findIndex((e) => e.id === earId);
  return index < 0 ? null : { kind: 'remove', path: ['ears'], index, value: show.ears[index] };
}

const SOURCE_NAMES: Readonly<Record<Source, string>> = {
  click: 'Click',
  calls: 'Calls',
  backing: 'Backing',
  guide: 'Guide',
  samples: 'Samples',
};

/** All that is heard by a way of its own: what every show has, and its stems, with their names. */
export const sourcesOf = (show: Show): readonly { readonly id: string; readonly name: string }[] => [
  ...SOURCES.map((id) => ({ id, name: SOURCE_NAMES[id] })),
  ...show.stems,
];

/** What a source is called; empty for one that is gone. */
export const sourceName = (show: Show, of: string): string => sourcesOf(show).find((s) => s.id === of)?.name ?? '';

/** A mix in which a source is heard at a level in decibels, or (null) not at all. */
export const hearing = (ear: EarMix, of: string, gain: number | null): EarMix => ({
  ...ear,
  hears: [...ear.hears.filter((h) => h.of !== of), ...(gain === null ? [] : [{ of, gain }])],
});
