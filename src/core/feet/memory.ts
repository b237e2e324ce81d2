import { encodeValue, type Trigger, isFigure } from '../addressing';
import { decodeMessage, type Bytes } from '../midi';
import { feetOf, indexShow, pagesOf, type Feet, type FootPage, type FootPedal, type Show } from '../show';
import { shownName, switchSends } from './switchSends';

/** Where a switch that turns pages goes: to the place of a page, or one on or back. */
export type StoredPageTo = number | 'next' | 'previous';

/** What a switch of a page does on one trigger, as the controller keeps it. */
export interface StoredAction {
  readonly trigger: Trigger;
  readonly messages: readonly Bytes[];
  readonly page: StoredPageTo | null;
}

export interface StoredSwitch {
  /** Which of the controller's switches, in their order. */
  readonly place: number;
  readonly name: string;
  readonly actions: readonly StoredAction[];
}

export interface StoredPedal {
  readonly place: number;
  readonly channel: number;
  readonly number: number;
  /** What it sends with the heel and with the toe down. */
  readonly from: number;
  readonly to: number;
  readonly bend: FootPedal['bend'];
}

export interface StoredPage {
  readonly place: number;
  readonly name: string;
  readonly switches: readonly StoredSwitch[];
  readonly pedals: readonly StoredPedal[];
}

/** All that a foot controller keeps: numbers and names, nothing of the show. */
export interface FootMemory {
  readonly pages: readonly StoredPage[];
}

export const EMPTY_MEMORY: FootMemory = { pages: [] };

/** What the pages of a show come to in the controller: as much of each switch as it holds. */
export function memoryOf(show: Show, unitId: string): FootMemory {
  const unit = indexShow(show).units.get(unitId);
  const controller = unit?.profile.controller;
  if (!unit || !controller) return EMPTY_MEMORY;
  const feet = feetOf(show, unitId);
  const slots = indexShow(show).slots(unitId);
  const pages = pagesOf(show, unitId).flatMap((page): StoredPage[] => {
    const slot = slots.get(page.id);
    if (!slot) return [];
    const switches = controller.switches.flatMap(({ id }, place): StoredSwitch[] => {
      const { entry, name, sends } = switchSends(show, unitId, page.id, id);
      if (!entry || (sends.length === 0 && name === '')) return [];
      const actions = sends.map(({ trigger, messages, page: to }) => ({
        trigger,
        messages: messages.map((m) => m.bytes),
        page: to,
      }));
      return [{ place, name, actions }];
    });
    const pedals = controller.pedals.flatMap((id, place): StoredPedal[] => {
      const stored = storedPedal(show, pedalOn(feet, page, id));
      return stored ? [{ place, ...stored }] : [];
    });
    return [{ place: slot.index, name: shownName(slot.name, controller.display), switches, pedals }];
  });
  return { pages };
}

/** What a pedal does on a page: the page's own, or what it does on every page. */
export const pedalOn = (feet: Feet, page: FootPage | null, pedalId: string): FootPedal | null =>
  page?.pedals.find((p) => p.id === pedalId) ?? feet.everywhere.pedals.find((p) => p.id === pedalId) ?? null;

/** A pedal as numbers; null where its control is nothing that one control number moves. */
export function storedPedal(show: Show, pedal: FootPedal | null): Omit<StoredPedal, 'place'> | null {
  if (!pedal) return null;
  const { does, bend } = pedal;
  if (does.kind === 'number') return { channel: does.channel, number: does.number, from: does.from, to: does.to, bend };
  const unit = indexShow(show).units.get(does.unitId);
  const encoding = unit?.profile.controls.find((c) => c.id === does.controlId)?.encoding;
  if (!unit || !encoding || !isFigure(encoding)) return null;
  const valueOf = (figure: number): number => {
    const message = decodeMessage(encodeValue(encoding, unit.channel, figure)[0] ?? []);
    return message?.kind === 'control' ? message.value : 0;
  };
  return { channel: unit.channel, number: encoding.number, from: valueOf(does.from), to: valueOf(does.to), bend };
}

/** What a pedal sends at a place of its way, from 0 (heel) to 1 (toe). */
export function pedalValue({ from, to, bend }: Pick<StoredPedal, 'from' | 'to' | 'bend'>, share: number): number {
  const way = Math.max(0, Math.min(1, share));
  const bent = bend === 'slow' ? way * way : bend === 'fast' ? Math.sqrt(way) : way;
  return Math.round(from + (to - from) * bent);
}

/** Something in which two memories differ. */
export type MemoryDifference =
  | { readonly what: 'page-missing' | 'page-extra'; readonly page: number; readonly name: string }
  | { readonly what: 'page-name'; readonly page: number; readonly wanted: string; readonly found: string }
  | {
      readonly what: 'switch-name';
      readonly page: number;
      readonly switch: number;
      readonly wanted: string;
      readonly found: string;
    }
  | {
      readonly what: 'messages';
      readonly page: number;
      readonly switch: number;
      readonly trigger: Trigger;
      readonly wanted: readonly Bytes[];
      readonly found: readonly Bytes[];
    }
  | { readonly what: 'jump'; readonly page: number; readonly switch: number; readonly trigger: Trigger }
  | { readonly what: 'pedal'; readonly page: number; readonly pedal: number };

/** In what a controller's memory differs from what is wanted, in the order of pages and switches. */
export function compareMemories(wanted: FootMemory, found: FootMemory): readonly MemoryDifference[] {
  const differences: MemoryDifference[] = [];
  const byPlace = new Map(found.pages.map((p) => [p.place, p]));
  for (const page of wanted.pages) {
    const other = byPlace.get(page.place);
    byPlace.delete(page.place);
    if (!other) differences.push({ what: 'page-missing', page: page.place, name: page.name });
    else differences.push(...comparePages(page, other));
  }
  for (const { place, name } of byPlace.values()) differences.push({ what: 'page-extra', page: place, name });
  return differences;
}

function comparePages(wanted: StoredPage, found: StoredPage): MemoryDifference[] {
  const page = wanted.place;
  const differences: MemoryDifference[] = [];
  if (wanted.name !== found.name) {
    differences.push({ what: 'page-name', page, wanted: wanted.name, found: found.name });
  }
  const places = (list: readonly { readonly place: number }[]): number[] => list.map((x) => x.place);
  const all = [...new Set([...places(wanted.switches), ...places(found.switches)])].sort((a, b) => a - b);
  for (const place of all) {
    const [one, other] = [wanted, found].map((p) => p.switches.find((s) => s.place === place));
    const at = { page, switch: place };
    if ((one?.name ?? '') !== (other?.name ?? '')) {
      differences.push({ what: 'switch-name', ...at, wanted: one?.name ?? '', found: other?.name ?? '' });
    }
    const triggers = new Set([...(one?.actions ?? []), ...(other?.actions ?? [])].map((a) => a.trigger));
    for (const trigger of triggers) {
      const [a, b] = [one, other].map((s) => s?.actions.find((x) => x.trigger === trigger));
      const [was, is] = [a?.messages ?? [], b?.messages ?? []];
      if (JSON.stringify(was) !== JSON.stringify(is)) {
        differences.push({ what: 'messages', ...at, trigger, wanted: was, found: is });
      }
      if ((a?.page ?? null) !== (b?.page ?? null)) differences.push({ what: 'jump', ...at, trigger });
    }
  }
  const pedals = [...new Set([...places(wanted.pedals), ...places(found.pedals)])].sort((a, b) => a - b);
  for (const pedal of pedals) {
    const [one, other] = [wanted, found].map((p) => p.pedals.find((x) => x.place === pedal));
    if (JSON.stringify(one) !== JSON.stringify(other)) differences.push({ what: 'pedal', page, pedal });
  }
  return differences;
}
