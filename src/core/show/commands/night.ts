import type { Edit, Path } from '../edits';
import { indexShow, setOf } from '../find';
import type { Levels, Show, Tonight } from '../schema';
import { setSongField } from './songs';

const REACTIONS: Path = ['reactions'];

/** Moves a reaction up or down in the order in which they are gone through. */
export function moveReaction(show: Show, id: string, by: 1 | -1): Edit | null {
  const from = show.reactions.findIndex((r) => r.id === id);
  const to = from + by;
  if (from < 0 || to < 0 || to >= show.reactions.length) return null;
  return { kind: 'move', path: REACTIONS, from, to };
}

/** Says in the set whether a player is missing. Null when that is what it says. */
export function setMissing(show: Show, playerId: string, missing: boolean): Edit | null {
  const set = setOf(show);
  if (set.missing.includes(playerId) === missing || !indexShow(show).players.has(playerId)) return null;
  const after = missing ? [...set.missing, playerId] : set.missing.filter((id) => id !== playerId);
  return { kind: 'set', path: ['sets', { id: set.id }, 'missing'], before: set.missing, after };
}

/** Says in the set that a unit is off for the night, or replaced; null for there as usual. */
export function setTonight(show: Show, unitId: string, how: Tonight | null): Edit | null {
  const set = setOf(show);
  if (!indexShow(show).units.has(unitId) || (how && how.unitId !== unitId)) return null;
  const rest = set.tonight.filter((t) => t.unitId !== unitId);
  const after = how ? [...rest, how] : rest;
  if (JSON.stringify(after) === JSON.stringify(set.tonight)) return null;
  return { kind: 'set', path: ['sets', { id: set.id }, 'tonight'], before: set.tonight, after };
}

/** Says several of that at once, in place of what the set says of the same units. */
export function setTonightAll(show: Show, hows: readonly Tonight[]): Edit | null {
  const set = setOf(show);
  const { units } = indexShow(show);
  const fresh = hows.filter((h) => units.has(h.unitId));
  const rest = set.tonight.filter((t) => !fresh.some((h) => h.unitId === t.unitId));
  if (fresh.length === 0) return null;
  return { kind: 'set', path: ['sets', { id: set.id }, 'tonight'], before: set.tonight, after: [...rest, ...fresh] };
}

/** The night is over: everybody and every unit is there as usual. Null where that is so. */
export function asUsual(show: Show): Edit | null {
  const { id, tonight, missing } = setOf(show);
  const path = ['sets', { id }] as const;
  const edits: Edit[] = [
    ...(tonight.length > 0 ? [{ kind: 'set', path: [...path, 'tonight'], before: tonight, after: [] } as const] : []),
    ...(missing.length > 0 ? [{ kind: 'set', path: [...path, 'missing'], before: missing, after: [] } as const] : []),
  ];
  return edits.length === 0 ? null : { kind: 'group', edits };
}

/** How loud a source is in a song. */
export function setLevel(show: Show, songId: string, source: keyof Levels, gain: number): Edit | null {
  const levels = indexShow(show).songs.get(songId)?.levels;
  return levels ? setSongField(show, songId, 'levels', { ...levels, [source]: gain }) : null;
}
