import { LIMITS } from '../limits';
import type { Profile } from '../../addressing';
import { applyEdit, type Edit } from '../edits';
import { indexShow } from '../find';
import { unlinked } from './unlinked';
import { NOTHING_LEFT, withoutControls } from './withoutControls';
import type { HouseNumber, Player, Port, Relay, Show, Unit } from '../schema';

/**
 * Adds a unit, and with it the port that it hangs on where that is new, and the house
 * numbers that its controls follow. One of the same name that the show has already is
 * followed instead.
 */
export function addUnit(show: Show, unit: Unit, port: Port | null, house: readonly HouseNumber[] = []): Edit {
  const edits: Edit[] = port ? [addPort(show, port)] : [];
  const ids = new Map<string, string>();
  const taken = new Set(show.house.map((h) => h.id));
  let added = 0;
  for (const entry of house) {
    const own = show.house.find((h) => h.name.toLowerCase() === entry.name.toLowerCase());
    if (own) {
      ids.set(entry.id, own.id);
      continue;
    }
    let { id } = entry;
    while (taken.has(id)) id = `${id.slice(0, 60)}-2`;
    ids.set(entry.id, id);
    taken.add(id);
    const index = show.house.length + added;
    added += 1;
    edits.push({ kind: 'insert', path: ['house'], index, value: { ...entry, id } });
  }
  const follow = (profile: Profile): Profile => ({
    ...profile,
    controls: profile.controls.map((c) => (c.houseId === null ? c : { ...c, houseId: ids.get(c.houseId) ?? null })),
  });
  const value: Unit =
    house.length === 0 ? unit : { ...unit, profile: follow(unit.profile), versions: unit.versions.map(follow) };
  const insert: Edit = { kind: 'insert', path: ['units'], index: show.units.length, value };
  return edits.length === 0 ? insert : { kind: 'group', edits: [...edits, insert] };
}

/** Sets one field of a unit. Null when nothing would change. */
export function setUnitField<K extends keyof Unit>(show: Show, unitId: string, field: K, after: Unit[K]): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit || JSON.stringify(unit[field]) === JSON.stringify(after)) return null;
  return { kind: 'set', path: ['units', { id: unitId }, field], before: unit[field], after };
}

/**
 * Takes a unit out of the rig, and with it all that refers to it: parts of tones, relay
 * rules, cables, and what songs and moves do with it. Null when there is none.
 */
export function removeUnit(show: Show, unitId: string): Edit | null {
  const index = show.units.findIndex((u) => u.id === unitId);
  if (index < 0) return null;
  const edits: Edit[] = [];
  for (const unit of show.units) {
    const path = ['units', { id: unit.id }] as const;
    if (unit.input?.from === 'unit' && unit.input.unitId === unitId) {
      edits.push({ kind: 'set', path: [...path, 'input'], before: unit.input, after: null });
    }
    const relays = unit.relays.filter((r) => r.toUnitId !== unitId);
    if (relays.length < unit.relays.length) {
      edits.push({ kind: 'set', path: [...path, 'relays'], before: unit.relays, after: relays });
    }
  }
  for (const { id, parts } of show.tones) {
    const left = parts.filter((p) => p.unitId !== unitId);
    if (left.length < parts.length) {
      edits.push({ kind: 'set', path: ['tones', { id }, 'parts'], before: parts, after: left });
    }
  }
  const controls = withoutControls(show, unitId, NOTHING_LEFT);
  const without = applyEdit(show, { kind: 'group', edits: controls });
  edits.push(...controls, ...unlinked(without, { kind: 'unit', id: unitId }));
  // The unit as it stands once the edits before have run: its own cable or rules may be among them.
  const gone = show.units[index]!;
  const relays = gone.relays.filter((r) => r.toUnitId !== unitId);
  const input = gone.input?.from === 'unit' && gone.input.unitId === unitId ? null : gone.input;
  edits.push({ kind: 'remove', path: ['units'], index, value: { ...gone, relays, input } });
  return { kind: 'group', edits };
}

/** Adds a port, last in the list. */
export const addPort = (show: Show, port: Port): Edit => ({
  kind: 'insert',
  path: ['ports'],
  index: show.ports.length,
  value: port,
});

/** Sets one field of a port. Null when nothing would change. */
export function setPortField<K extends keyof Port>(show: Show, portId: string, field: K, after: Port[K]): Edit | null {
  const port = indexShow(show).ports.get(portId);
  if (!port || port[field] === after) return null;
  return { kind: 'set', path: ['ports', { id: portId }, field], before: port[field], after };
}

/** Takes a port away, pulls its cables, stops the clocks of songs on it, and forgets what was to come from it. Null when there is none. */
export function removePort(show: Show, portId: string): Edit | null {
  const index = show.ports.findIndex((p) => p.id === portId);
  if (index < 0) return null;
  const edits: Edit[] = [];
  for (const unit of show.units) {
    const path = ['units', { id: unit.id }] as const;
    if (unit.input?.from === 'port' && unit.input.portId === portId) {
      edits.push({ kind: 'set', path: [...path, 'input'], before: unit.input, after: null });
    }
    if (unit.returns?.portId === portId) {
      edits.push({ kind: 'set', path: [...path, 'returns'], before: unit.returns, after: null });
    }
  }
  for (const { id, clocks } of show.songs) {
    const after = clocks.filter((c) => c.portId !== portId);
    if (after.length < clocks.length) {
      edits.push({ kind: 'set', path: ['songs', { id }, 'clocks'], before: clocks, after });
    }
  }
  edits.push(...unlinked(show, { kind: 'port', id: portId }));
  return { kind: 'group', edits: [...edits, { kind: 'remove', path: ['ports'], index, value: show.ports[index] }] };
}

/** Adds a player, last in the list. */
export const addPlayer = (show: Show, player: Player): Edit => ({
  kind: 'insert',
  path: ['players'],
  index: show.players.length,
  value: player,
});

/** Changes one field of a player. Null where the player is missing, the field has that value, or a name would be empty. */
export function setPlayerField<K extends keyof Player>(
  show: Show,
  playerId: string,
  field: K,
  after: Player[K],
): Edit | null {
  const player = indexShow(show).players.get(playerId);
  if (!player || player[field] === after || (field === 'name' && String(after).trim() === '')) return null;
  return { kind: 'set', path: ['players', { id: playerId }, field], before: player[field], after };
}

/** Takes a player out of the show; the units stay and belong to nobody. */
export function removePlayer(show: Show, playerId: string): Edit | null {
  const index = show.players.findIndex((p) => p.id === playerId);
  if (index < 0) return null;
  const edits = show.units
    .filter((u) => u.playerId === playerId)
    .map((u): Edit => ({ kind: 'set', path: ['units', { id: u.id }, 'playerId'], before: playerId, after: null }));
  const links = unlinked(show, { kind: 'player', id: playerId });
  const remove: Edit = { kind: 'remove', path: ['players'], index, value: show.players[index] };
  return { kind: 'group', edits: [...edits, ...links, remove] };
}

/** Adds a relay rule, or puts it in the place of the one with its id. Null when its target is not there. */
export function putRelay(show: Show, unitId: string, relay: Relay): Edit | null {
  const { units } = indexShow(show);
  const unit = units.get(unitId);
  const target = units.get(relay.toUnitId);
  if (!unit || !target?.slots.some((s) => s.id === relay.toSlotId)) return null;
  const path = ['units', { id: unitId }, 'relays'] as const;
  const at = unit.relays.findIndex((r) => r.id === relay.id);
  if (at < 0) return { kind: 'insert', path, index: unit.relays.length, value: relay };
  if (JSON.stringify(unit.relays[at]) === JSON.stringify(relay)) return null;
  return { kind: 'set', path, before: unit.relays, after: unit.relays.with(at, relay) };
}

/** Removes a relay rule of a unit. Null where it is not there. */
export function removeRelay(show: Show, unitId: string, relayId: string): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  const index = unit?.relays.findIndex((r) => r.id === relayId) ?? -1;
  if (!unit || index < 0) return null;
  return { kind: 'remove', path: ['units', { id: unitId }, 'relays'], index, value: unit.relays[index] };
}

/** Renames the show. Null for an empty title, or the title that it has. */
export function setShowTitle(show: Show, title: string): Edit | null {
  const text = title.trim().slice(0, LIMITS.title);
  if (text === '' || text === show.title) return null;
  return { kind: 'set', path: ['title'], before: show.title, after: text };
}
