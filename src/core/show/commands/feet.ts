import { labelOf, slotCount } from '../../addressing';
import { newFeet, newFootPage, newSlot } from '../builders';
import { applyEdit, type Edit } from '../edits';
import { indexShow } from '../find';
import { LIMITS } from '../limits';
import type { Feet, FootPage, FootPedal, FootSwitch, Show } from '../schema';
import { nameSlot } from './slots';
import { changedLayers, keptLayer } from './unlinked';

/** What is programmed into a controller; nothing yet where nobody said. */
export const feetOf = (show: Pick<Show, 'feet'>, unitId: string): Feet =>
  show.feet.find((f) => f.id === unitId) ?? newFeet(unitId);

/** Changes what is programmed into a controller. Null when nothing would change, or the rig has no such unit. */
export function changeFeet(show: Show, unitId: string, change: (feet: Feet) => Feet): Edit | null {
  const before = show.feet.find((f) => f.id === unitId);
  if (!indexShow(show).units.has(unitId)) return null;
  const after = change(before ?? newFeet(unitId));
  if (JSON.stringify(after) === JSON.stringify(before ?? newFeet(unitId))) return null;
  return before
    ? { kind: 'set', path: ['feet', { id: unitId }], before, after }
    : { kind: 'insert', path: ['feet'], index: show.feet.length, value: after };
}

/** A controller's pages in the order in which it keeps them; those that it has no place for any more come last. */
export function pagesOf(show: Show, unitId: string): readonly FootPage[] {
  const slots = indexShow(show).slots(unitId);
  const place = ({ id }: FootPage): number => slots.get(id)?.index ?? Number.POSITIVE_INFINITY;
  return feetOf(show, unitId).pages.toSorted((a, b) => place(a) - place(b));
}

/** How a page is called: as the controller writes its place, and its name. */
export function pageTitle(show: Show, unitId: string, pageId: string): string {
  const unit = indexShow(show).units.get(unitId);
  const slot = indexShow(show).slots(unitId).get(pageId);
  if (!unit || !slot) return unit?.lostSlots.find((s) => s.id === pageId)?.name ?? '';
  return `${labelOf(unit.profile.plan, slot.index)} ${slot.name}`.trim();
}

/** A layer of a controller: one of its pages, or (null) what stands on every page. */
export type LayerId = string | null;
type Layer = Feet['everywhere'];

const withLayer = (feet: Feet, id: LayerId, change: <L extends Layer>(layer: L) => L): Feet =>
  id === null
    ? { ...feet, everywhere: change(feet.everywhere) }
    : { ...feet, pages: feet.pages.map((p) => (p.id === id ? change(p) : p)) };

const isBare = ({ name, doings, pinned }: FootSwitch): boolean => name === '' && doings.length === 0 && !pinned;

const put = <T extends { readonly id: string }>(list: readonly T[], value: T): readonly T[] =>
  list.some((x) => x.id === value.id) ? list.map((x) => (x.id === value.id ? value : x)) : [...list, value];

/** Sets what switches of a layer do; one that does nothing any more leaves it. Null when nothing would change. */
export const putFootSwitches = (
  show: Show,
  unitId: string,
  layerId: LayerId,
  switches: readonly FootSwitch[],
): Edit | null =>
  changeFeet(show, unitId, (feet) =>
    withLayer(feet, layerId, (layer) => ({
      ...layer,
      switches: switches.reduce(put, layer.switches).filter((s) => !isBare(s)),
    })),
  );

/** Sets what a pedal of a layer does, or takes it out of the layer (null). */
export const putFootPedal = (
  show: Show,
  unitId: string,
  layerId: LayerId,
  pedalId: string,
  pedal: FootPedal | null,
): Edit | null =>
  changeFeet(show, unitId, (feet) =>
    withLayer(feet, layerId, (layer) => ({
      ...layer,
      pedals: pedal ? put(layer.pedals, pedal) : layer.pedals.filter((p) => p.id !== pedalId),
    })),
  );

export type PageAdded = { readonly edit: Edit; readonly pageId: string };

/**
 * Adds a page at the controller's first free place: a preset that is there without being a page becomes one
 * when `slotId` names it. Null where the controller is full.
 */
export function addFootPage(
  show: Show,
  unitId: string,
  name: string,
  newId: () => string,
  rest: Partial<FootPage> = {},
): PageAdded | null {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) return null;
  const own = new Set(feetOf(show, unitId).pages.map((p) => p.id));
  const text = name.trim().slice(0, LIMITS.title);
  // A preset of that name that is no page yet is the one that is meant.
  const named = unit.slots.find((s) => s.name === text && !own.has(s.id));
  const taken = new Set(unit.slots.map((s) => s.index));
  const index = Array.from({ length: slotCount(unit.profile.plan) }, (_, i) => i).find((i) => !taken.has(i));
  if (!named && index === undefined) return null;
  const pageId = named?.id ?? newId();
  const edits: Edit[] = [];
  if (!named) {
    const at = unit.slots.findIndex((s) => s.index > index!);
    edits.push({
      kind: 'insert',
      path: ['units', { id: unitId }, 'slots'],
      index: at < 0 ? unit.slots.length : at,
      value: newSlot(pageId, index!, text),
    });
  }
  const page = newFootPage(pageId, rest);
  edits.push(changeFeet(show, unitId, (feet) => ({ ...feet, pages: [...feet.pages, page] }))!);
  return { edit: { kind: 'group', edits }, pageId };
}

/** Takes a page away, with switches that go to it; its preset too, unless a tone calls it. Null when there is none. */
export function removeFootPage(show: Show, unitId: string, pageId: string): Edit | null {
  const away = changeFeet(show, unitId, (feet) => {
    const rest = { ...feet, pages: feet.pages.filter((p) => p.id !== pageId) };
    return changedLayers(rest, (layer) =>
      keptLayer(layer, (d) => d.kind !== 'page' || typeof d.to === 'string' || d.to.pageId !== pageId),
    );
  });
  if (!away) return null;
  const slot = indexShow(show).slots(unitId).get(pageId);
  const unnamed = slot && nameSlot(applyEdit(show, away), unitId, slot.index, '', '');
  const gone = unnamed?.kind === 'remove' ? [unnamed] : [];
  return { kind: 'group', edits: [away, ...gone] };
}

/** Puts a controller's pages in another order: they share out the places that they have among them. Null when nothing would change. */
export function orderFootPages(show: Show, unitId: string, order: readonly string[]): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  const slots = indexShow(show).slots(unitId);
  if (!unit || order.some((id) => !slots.has(id))) return null;
  const places = order.map((id) => slots.get(id)!.index).sort((a, b) => a - b);
  const to = new Map(order.map((id, i) => [id, places[i]!]));
  const after = unit.slots
    .map((s) => {
      const index = to.get(s.id) ?? s.index;
      return index === s.index ? s : { ...s, index };
    })
    .sort((a, b) => a.index - b.index);
  if (after.every((s, i) => s === unit.slots[i])) return null;
  return { kind: 'set', path: ['units', { id: unitId }, 'slots'], before: unit.slots, after };
}
