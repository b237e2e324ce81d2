import type { Destination, ListedName } from './reorder';
import type { Slot } from './schema';

/** One line of the before-and-after list of a reorder. */
export interface ReorderLine {
  /** Null for a preset that the map did not know. */
  readonly slotId: string | null;
  readonly what: 'same' | 'moved' | 'renamed' | 'moved-renamed' | 'gone' | 'new';
  readonly before: ListedName | null;
  readonly after: ListedName | null;
}

/** What a reorder does to every slot, in the order of the places before; what is new comes last. */
export function reorderList(
  slots: readonly Slot[],
  destinations: ReadonlyMap<string, Destination>,
  fresh: readonly ListedName[],
): ReorderLine[] {
  const lines = slots.map((slot): ReorderLine => {
    const before = { index: slot.index, name: slot.name };
    const after = destinations.get(slot.id) ?? null;
    return { slotId: slot.id, what: changeOf(before, after), before, after };
  });
  return [...lines, ...fresh.map((after): ReorderLine => ({ slotId: null, what: 'new', before: null, after }))];
}

function changeOf(before: ListedName, after: Destination): ReorderLine['what'] {
  if (!after) return 'gone';
  const moved = before.index !== after.index;
  if (before.name === after.name) return moved ? 'moved' : 'same';
  return moved ? 'moved-renamed' : 'renamed';
}

/** Names of a new list that no slot goes to: what is new, after somebody changed where slots go. */
export function leftOver(
  now: readonly ListedName[],
  destinations: ReadonlyMap<string, Destination>,
): readonly ListedName[] {
  const taken = new Set([...destinations.values()].map((d) => d?.index));
  return now.filter((n) => !taken.has(n.index));
}
