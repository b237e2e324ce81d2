import type { Bytes } from '../../midi';
import { toHex } from '../../midi';
import { newFootPage, newSlot } from '../builders';
import { applyEdit, type Edit } from '../edits';
import { indexShow } from '../find';
import { LIMITS } from '../limits';
import type { FootPage, FootSwitch, Show } from '../schema';
import type { Trigger } from '../../addressing';
import { changeFeet } from './feet';

/** A page as a controller keeps it: what is called, which switches send which messages, what pedals move. */
export interface KeptPage {
  readonly place: number;
  readonly name: string;
  readonly switches: readonly {
    readonly place: number;
    readonly name: string;
    readonly actions: readonly { readonly trigger: Trigger; readonly messages: readonly Bytes[] }[];
  }[];
  readonly pedals: readonly {
    readonly place: number;
    readonly channel: number;
    readonly number: number;
    readonly from: number;
    readonly to: number;
    readonly bend: 'straight' | 'slow' | 'fast';
  }[];
}

type KeptSwitch = KeptPage['switches'][number];

/** A switch that sends messages as they stand. */
const asSwitch = (id: string, { name, actions }: KeptSwitch, was: FootSwitch | undefined): FootSwitch => ({
  id,
  name: name.slice(0, LIMITS.name),
  doings: actions.flatMap(({ trigger, messages }) =>
    messages.map((bytes) => ({ on: trigger, does: { kind: 'message' as const, bytes: toHex(bytes) } })),
  ),
  pinned: was?.pinned ?? false,
  colour: was?.colour ?? null,
});

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/**
 * Takes pages over that a controller keeps. What a switch of the show sends already stays what it is there (a tone, a move);
 * only what differs comes as the bytes that it is. `now` is what the show's own pages come to in the controller. Pages of
 * the show that the controller has not stay. Null where nothing would change, or the unit is no controller.
 */
export function takeKept(
  show: Show,
  unitId: string,
  kept: readonly KeptPage[],
  now: readonly KeptPage[],
  newId: () => string,
): Edit | null {
  const controller = indexShow(show).units.get(unitId)?.profile.controller;
  if (!controller) return null;
  const edits: Edit[] = [];
  let current = show;
  const make = (edit: Edit | null): void => {
    if (!edit) return;
    edits.push(edit);
    current = applyEdit(current, edit);
  };
  for (const page of kept) {
    const pageId = pageAt(current, unitId, page, newId, make);
    const before = now.find((p) => p.place === page.place);
    make(
      changeFeet(current, unitId, (feet) => {
        const own = feet.pages.find((p) => p.id === pageId) ?? newFootPage(pageId);
        const after = pageOf(own, controller, page, before);
        const there = feet.pages.some((p) => p.id === pageId);
        return {
          ...feet,
          pages: there ? feet.pages.map((p) => (p.id === pageId ? after : p)) : [...feet.pages, after],
        };
      }),
    );
  }
  return edits.length === 0 ? null : { kind: 'group', edits };
}

/** The preset that a page is, by its place: made, or called as the controller calls it. */
function pageAt(
  show: Show,
  unitId: string,
  { place, name }: KeptPage,
  newId: () => string,
  make: (edit: Edit) => void,
): string {
  const { slots } = indexShow(show).units.get(unitId)!;
  const text = name.slice(0, LIMITS.title);
  const slot = slots.find((s) => s.index === place);
  const path = ['units', { id: unitId }, 'slots'] as const;
  if (!slot) {
    const id = newId();
    const at = slots.findIndex((s) => s.index > place);
    make({ kind: 'insert', path, index: at < 0 ? slots.length : at, value: newSlot(id, place, text) });
    return id;
  }
  const isNamed = text !== '' && slot.name !== text;
  if (isNamed) make({ kind: 'set', path: [...path, { id: slot.id }, 'name'], before: slot.name, after: text });
  return slot.id;
}

function pageOf(
  own: FootPage,
  controller: { readonly switches: readonly { readonly id: string }[]; readonly pedals: readonly string[] },
  kept: KeptPage,
  before: KeptPage | undefined,
): FootPage {
  const switches = controller.switches.flatMap(({ id }, place): FootSwitch[] => {
    const was = own.switches.find((s) => s.id === id);
    const [is, sent] = [kept, before].map((p) => p?.switches.find((s) => s.place === place));
    const shape = (s: KeptSwitch | undefined) => s && [s.name, s.actions.map((a) => [a.trigger, a.messages])];
    if (same(shape(is), shape(sent))) return was ? [was] : [];
    return is ? [asSwitch(id, is, was)] : [];
  });
  const pedals = controller.pedals.flatMap((id, place): FootPage['pedals'][number][] => {
    const was = own.pedals.find((p) => p.id === id);
    const [is, sent] = [kept, before].map((p) => p?.pedals.find((x) => x.place === place));
    if (same(is, sent)) return was ? [was] : [];
    if (!is) return [];
    const { channel, number, from, to, bend } = is;
    return [{ id, does: { kind: 'number', channel, number: Math.min(119, number), from, to }, bend }];
  });
  return { ...own, switches, pedals };
}
