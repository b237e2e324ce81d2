import type { Edit } from '../edits';
import { indexShow } from '../find';
import type { Port, Show, Unit } from '../schema';

/** Adds a unit, and with it the port that it hangs on where that is new. */
export function addUnit(show: Show, unit: Unit, port: Port | null): Edit {
  const insert: Edit = { kind: 'insert', path: ['units'], index: show.units.length, value: unit };
  if (!port) return insert;
  return { kind: 'group', edits: [{ kind: 'insert', path: ['ports'], index: show.ports.length, value: port }, insert] };
}

/** Sets one field of a unit. Null when nothing would change. */
export function setUnitField<K extends keyof Unit>(show: Show, unitId: string, field: K, after: Unit[K]): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit || JSON.stringify(unit[field]) === JSON.stringify(after)) return null;
  return { kind: 'set', path: ['units', { id: unitId }, field], before: unit[field], after };
}

export function setShowTitle(show: Show, title: string): Edit | null {
  const text = title.trim().slice(0, 120);
  if (text === '' || text === show.title) return null;
  return { kind: 'set', path: ['title'], before: show.title, after: text };
}
