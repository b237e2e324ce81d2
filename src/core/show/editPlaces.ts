import type { Edit, PathPart } from './edits';

/** What of a show an edit is about: a member of one of its lists, or the show itself. */
export interface EditPlace {
  /** The list, such as `songs`; null for the show itself. */
  readonly list: string | null;
  readonly id: string | null;
}

const THE_SHOW: EditPlace = { list: null, id: null };

function placeOf([list, member]: readonly PathPart[], value: unknown): EditPlace {
  if (typeof list !== 'string') return THE_SHOW;
  if (typeof member === 'object') return { list, id: member.id };
  const id = (value as { readonly id?: unknown } | null | undefined)?.id;
  return typeof id === 'string' ? { list, id } : THE_SHOW;
}

/** What an edit is about, each once, in the order of its parts. */
export function editPlaces(edit: Edit): readonly EditPlace[] {
  const found = new Map<string, EditPlace>();
  const walk = (part: Edit): void => {
    if (part.kind === 'group') {
      part.edits.forEach(walk);
      return;
    }
    const value = part.kind === 'insert' || part.kind === 'remove' ? part.value : undefined;
    const place = placeOf(part.path, value);
    found.set(`${place.list} ${place.id}`, place);
  };
  walk(edit);
  return [...found.values()];
}
