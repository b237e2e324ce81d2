import { addTo, groupBy } from '../groups';
import type { Edit } from './edits';
import { indexShow } from './find';
import { newSlot } from './builders';
import type { Show, Slot } from './schema';

/** A name at a place, as a unit's own list has it. */
export interface ListedName {
  readonly index: number;
  readonly name: string;
}

/** What became of a slot that the map knew. */
export interface SlotMatch {
  readonly slotId: string;
  readonly before: ListedName;
  /** Where it is now, by the same name or by the nearest, or as before where the new list says nothing of its place; null where nothing is like it. */
  readonly after: ListedName | null;
  readonly how: 'same-name' | 'nearest' | 'unlisted' | 'none';
  /** 1 for the same name, down to 0 for nothing in common. */
  readonly likeness: number;
}

export interface Matching {
  readonly matches: readonly SlotMatch[];
  /** Names of the new list that nothing of the old became. */
  readonly fresh: readonly ListedName[];
}

/** Below this, two names have nothing to do with each other. */
const LEAST_LIKENESS = 0.35;

const plain = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ');

/** Pairs of letters of a name, with its ends counting too. */
function pairs(name: string): string[] {
  const text = ` ${plain(name)} `;
  return Array.from({ length: text.length - 1 }, (_, i) => text.slice(i, i + 2));
}

/**
 * Matches a unit's old slots with its new list: first by identical name (where a name is
 * there more than once, the nearest places go together), then each by the nearest name
 * that is left, the most alike first. Entries of the new list without a name only say that
 * their places are empty now; a slot at a place that the list says nothing of stays there.
 */
export function matchSlots(old: readonly Slot[], list: readonly ListedName[]): Matching {
  const now = list.filter((n) => n.name.trim() !== '');
  const listed = new Set(list.map((n) => n.index));
  const named = old.filter((s) => s.name.trim() !== '');
  const found = new Map<string, { after: ListedName; how: 'same-name' | 'nearest'; likeness: number }>();
  const taken = new Set<ListedName>();
  matchSame(named, now, (slot, after) => {
    found.set(slot.id, { after, how: 'same-name', likeness: 1 });
    taken.add(after);
  });
  const open = named.filter((s) => !found.has(s.id));
  const rest = now.filter((n) => !taken.has(n));
  for (const { slot, after, likeness } of byLikeness(open, rest)) {
    if (found.has(slot.id) || taken.has(after)) continue;
    found.set(slot.id, { after, how: 'nearest', likeness });
    taken.add(after);
  }
  const matches = old.map((slot): SlotMatch => {
    const hit = found.get(slot.id);
    const before = { index: slot.index, name: slot.name };
    if (hit) return { slotId: slot.id, before, ...hit };
    if (!listed.has(slot.index)) return { slotId: slot.id, before, after: before, how: 'unlisted', likeness: 1 };
    return { slotId: slot.id, before, after: null, how: 'none', likeness: 0 };
  });
  return { matches, fresh: now.filter((n) => !taken.has(n)) };
}

function matchSame(
  old: readonly Slot[],
  now: readonly ListedName[],
  onMatch: (slot: Slot, after: ListedName) => void,
): void {
  const byName = groupBy(now, (e) => plain(e.name));
  const groups = groupBy(old, (s) => plain(s.name));
  for (const [name, slots] of groups) {
    const entries = byName.get(name) ?? [];
    // Those that did not move come first, then the nearest.
    const near = slots
      .flatMap((slot) => entries.map((entry) => ({ slot, entry, away: Math.abs(entry.index - slot.index) })))
      .sort((a, b) => a.away - b.away);
    const used = new Set<unknown>();
    for (const { slot, entry } of near) {
      if (used.has(slot) || used.has(entry)) continue;
      used.add(slot).add(entry);
      onMatch(slot, entry);
    }
  }
}

/** Pairs of names that have something in common, the most alike first (Dice's coefficient over pairs of letters). */
function byLikeness(
  old: readonly Slot[],
  now: readonly ListedName[],
): { slot: Slot; after: ListedName; likeness: number }[] {
  const where = new Map<string, number[]>();
  const sizes: number[] = [];
  for (const [i, entry] of now.entries()) {
    const own = new Set(pairs(entry.name));
    sizes.push(own.size);
    for (const pair of own) addTo(where, pair, i);
  }
  const result: { slot: Slot; after: ListedName; likeness: number }[] = [];
  const shared = new Uint16Array(now.length);
  for (const slot of old) {
    const own = new Set(pairs(slot.name));
    const touched: number[] = [];
    for (const pair of own) {
      for (const i of where.get(pair) ?? []) {
        if (shared[i]!++ === 0) touched.push(i);
      }
    }
    for (const i of touched) {
      const likeness = (2 * shared[i]!) / (own.size + sizes[i]!);
      shared[i] = 0;
      if (likeness >= LEAST_LIKENESS) result.push({ slot, after: now[i]!, likeness });
    }
  }
  return result.sort((a, b) => b.likeness - a.likeness || a.slot.index - b.slot.index);
}

/** Where a slot goes: to an entry of the new list, or nowhere. */
export type Destination = ListedName | null;

/**
 * Puts a unit's slots where the new list has them. `destinations` says it for each old slot
 * (those that are missing in it are lost); `newId` makes ids for names that are new. Tones
 * and relay rules follow, because they refer to slots by identity. A slot that is gone but
 * referred to is kept among the lost, so that nothing forgets what it wanted. Null when
 * nothing would change.
 */
export function reorderSlots(
  show: Show,
  unitId: string,
  destinations: ReadonlyMap<string, Destination>,
  fresh: readonly ListedName[],
  newId: () => string,
): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) return null;
  const used = usedSlots(show, unitId);
  const slots: Slot[] = [];
  const lost = [...unit.lostSlots];
  const places = new Set<number>();
  for (const slot of unit.slots) {
    const to = destinations.get(slot.id) ?? null;
    if (to && !places.has(to.index)) {
      places.add(to.index);
      slots.push({ ...slot, index: to.index, name: to.name });
    } else if (used.has(slot.id)) lost.push({ id: slot.id, name: slot.name, lastIndex: slot.index });
  }
  const found = new Set<string>();
  for (const entry of fresh) {
    if (places.has(entry.index)) continue;
    places.add(entry.index);
    // A preset that comes back under its name is the one that was lost.
    const back = lost.find((l) => plain(l.name) === plain(entry.name) && !found.has(l.id));
    if (back) found.add(back.id);
    slots.push(newSlot(back?.id ?? newId(), entry.index, entry.name));
  }
  slots.sort((a, b) => a.index - b.index);
  const path = ['units', { id: unitId }] as const;
  const edits: Edit[] = [];
  if (JSON.stringify(slots) !== JSON.stringify(unit.slots)) {
    edits.push({ kind: 'set', path: [...path, 'slots'], before: unit.slots, after: slots });
  }
  const left = lost.filter((l) => !found.has(l.id));
  if (JSON.stringify(left) !== JSON.stringify(unit.lostSlots)) {
    edits.push({ kind: 'set', path: [...path, 'lostSlots'], before: unit.lostSlots, after: left });
  }
  return edits.length === 0 ? null : { kind: 'group', edits };
}

/** Ids of a unit's slots that a tone or a relay rule refers to. */
export function usedSlots(show: Show, unitId: string): ReadonlySet<string> {
  const used = new Set<string>();
  for (const tone of show.tones) {
    for (const part of tone.parts) if (part.unitId === unitId && part.slotId !== null) used.add(part.slotId);
  }
  for (const unit of show.units) {
    for (const relay of unit.relays) {
      if (relay.toUnitId === unitId) used.add(relay.toSlotId);
      if (unit.id === unitId && relay.when.slotId !== null) used.add(relay.when.slotId);
    }
  }
  for (const { id, pages } of show.feet) if (id === unitId) for (const page of pages) used.add(page.id);
  return used;
}
