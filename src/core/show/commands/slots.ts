import { LIMITS } from '../limits';
import { labelOf, slotCount } from '../../addressing';
import type { Edit, Path } from '../edits';
import { indexShow, openingOf } from '../find';
import { newSlot } from '../builders';
import type { Show, Slot } from '../schema';

const slotsPath = (unitId: string): Path => ['units', { id: unitId }, 'slots'];

/** The slot at a place of a unit's plan, where somebody named or used it. */
export const slotAt = (show: Show, unitId: string, index: number): Slot | undefined =>
  indexShow(show)
    .units.get(unitId)
    ?.slots.find((s) => s.index === index);

/** The slot at a place, and what enters it into the unit's list where nobody named or used it yet. */
export function slotFor(
  show: Show,
  unitId: string,
  index: number,
  newId: () => string,
): { readonly slotId: string; readonly edits: readonly Edit[] } {
  const slot = slotAt(show, unitId, index);
  if (slot) return { slotId: slot.id, edits: [] };
  const slots = indexShow(show).units.get(unitId)?.slots ?? [];
  const place = slots.findIndex((s) => s.index > index);
  const value = newSlot(newId(), index, '');
  const insert: Edit = {
    kind: 'insert',
    path: slotsPath(unitId),
    index: place < 0 ? slots.length : place,
    value,
  };
  return { slotId: value.id, edits: [insert] };
}

/**
 * Gives the slot at a place a name; a slot that nobody named yet gets the id `newId`. An
 * empty name takes the slot's entry away, unless a tone or a relay rule uses it. Null when
 * nothing would change.
 */
export function nameSlot(show: Show, unitId: string, index: number, name: string, newId: string): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit || index < 0 || index >= slotCount(unit.profile.plan)) return null;
  const path = slotsPath(unitId);
  const text = name.trim().slice(0, LIMITS.title);
  const slot = slotAt(show, unitId, index);
  if (!slot) {
    if (text === '') return null;
    const place = unit.slots.findIndex((s) => s.index > index);
    const value = newSlot(newId, index, text);
    return { kind: 'insert', path, index: place < 0 ? unit.slots.length : place, value };
  }
  if (slot.name === text) return null;
  if (
    text === '' &&
    slot.startVariant === null &&
    slot.startControls.length === 0 &&
    slot.panel.length === 0 &&
    slotUses(show, unitId, slot.id).length === 0 &&
    !relayed(show, slot.id)
  ) {
    return { kind: 'remove', path, index: unit.slots.indexOf(slot), value: slot };
  }
  return { kind: 'set', path: [...path, { id: slot.id }, 'name'], before: slot.name, after: text };
}

/** A relay rule calls it or waits for it, or it is a page of a foot controller. */
const relayed = (show: Show, slotId: string): boolean =>
  show.feet.some((f) => f.pages.some((p) => p.id === slotId)) ||
  show.units.some((u) => u.relays.some((r) => r.toSlotId === slotId || r.when.slotId === slotId));

/** Ids of the tones that use a slot. */
export const slotUses = (show: Show, unitId: string, slotId: string): string[] =>
  show.tones.filter((t) => t.parts.some((p) => p.unitId === unitId && p.slotId === slotId)).map((t) => t.id);

/** What follows slots of a unit by their identity, wherever they move and whatever they are called. */
export interface Dependents {
  readonly tones: number;
  readonly songs: number;
  readonly relays: number;
}

/** Songs in which each slot of a unit sounds, by the slot's id; slots of no song are left out. */
export function songsBySlot(show: Show, unitId: string): ReadonlyMap<string, ReadonlySet<string>> {
  const songsOf = new Map(show.tones.map((t) => [t.id, [] as string[]]));
  for (const song of show.songs) {
    const opening = openingOf(show, song);
    const tones = new Set<string>(opening === null ? [] : [opening]);
    for (const { action } of song.cues) if (action.kind === 'tone') tones.add(action.toneId);
    for (const id of tones) songsOf.get(id)?.push(song.id);
  }
  const found = new Map<string, Set<string>>();
  for (const { id, parts } of show.tones) {
    const slotId = parts.find((p) => p.unitId === unitId)?.slotId ?? null;
    const songs = songsOf.get(id)!;
    if (slotId === null || songs.length === 0) continue;
    const known = found.get(slotId);
    if (known) for (const song of songs) known.add(song);
    else found.set(slotId, new Set(songs));
  }
  return found;
}

/** How much depends on some slots of a unit. */
export function slotDependents(show: Show, unitId: string, slotIds: ReadonlySet<string>): Dependents {
  const uses = (id: string | null): boolean => id !== null && slotIds.has(id);
  const tones = show.tones.filter((t) => t.parts.some((p) => p.unitId === unitId && uses(p.slotId))).length;
  const songs = new Set<string>();
  for (const [id, own] of songsBySlot(show, unitId)) if (slotIds.has(id)) for (const song of own) songs.add(song);
  const relays = show.units.flatMap((u) =>
    u.relays.filter((r) => (r.toUnitId === unitId && uses(r.toSlotId)) || (u.id === unitId && uses(r.when.slotId))),
  ).length;
  return { tones, songs: songs.size, relays };
}

/** How a slot is called in lists: its label as the unit writes it, and its name. */
export function slotTitle(show: Show, unitId: string, slotId: string): string {
  const unit = indexShow(show).units.get(unitId);
  const slot = unit && indexShow(show).slots(unitId).get(slotId);
  if (!unit || !slot) return '';
  return `${labelOf(unit.profile.plan, slot.index)} ${slot.name}`.trim();
}
