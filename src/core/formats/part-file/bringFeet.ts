import { slotCount } from '../../addressing';
import { SOURCES, indexShow, type Doing, type Feet, type FootPage, type Show, type Slot, newSlot } from '../../show';
import type { Part } from './format';
import { same, type UnitBridge } from './unitBridge';

/** Which things of the show those of the part are, by the ids that they have in it. */
export interface Found {
  readonly bridges: ReadonlyMap<string, UnitBridge>;
  readonly toneIds: ReadonlyMap<string, string>;
  readonly moveIds: ReadonlyMap<string, string>;
  readonly newId: () => string;
  /** Hears of what the controller has no counterpart for. */
  readonly lost: (what: string) => void;
}

/** Of the pages that are there and those that come: these in their place, or behind them. */
type How = 'theirs' | 'both';

/** The show with the pages of a part's controller on the one that it is found to be. */
export function bringFeet(show: Show, part: Part, feet: Feet, how: How, found: Found): Show {
  const bridge = found.bridges.get(feet.id)!;
  const { id } = bridge.to;
  const mine = show.feet.find((f) => f.id === id);
  const { places, units } = placesOf(show, feet, how === 'theirs' ? (mine?.pages ?? []) : [], found);
  const songs = songsOfPages(show, part, how === 'both' ? (mine?.pages ?? []) : []);
  const pages = feet.pages.flatMap((p): FootPage[] => {
    const pageId = places.get(p.id);
    return pageId === undefined ? [] : [{ ...layerOf(p, bridge, places, found), id: pageId, songId: songs(p.id) }];
  });
  const unitOf = (unitId: string): string => found.bridges.get(unitId)!.to.id;
  const boat = feet.boat.map((b) => ({ id: unitOf(b.id), from: unitOf(b.from) }));
  const everywhere = layerOf(feet.everywhere, bridge, places, found);
  const theirs: Feet = { ...feet, id, everywhere, pages, boat };
  const next = how === 'both' && mine ? { ...mine, pages: [...mine.pages, ...pages] } : theirs;
  return { ...show, units, feet: [...show.feet.filter((f) => f.id !== id), next] };
}

/** A page is for the song of the title that it was for, where the show has one that has no page yet. */
function songsOfPages(show: Show, part: Part, kept: readonly FootPage[]): (pageId: string) => string | null {
  const taken = new Set(kept.map((p) => p.songId));
  return (pageId) => {
    const title = part.pageSongs[pageId];
    const song = title === undefined ? undefined : show.songs.find((s) => same(s.title, title));
    if (!song || taken.has(song.id)) return null;
    taken.add(song.id);
    return song.id;
  };
}

type Places = ReadonlyMap<string, string>;

/** Presets of the controller for the pages that come: those of pages that they replace, else free ones. */
function placesOf(
  show: Show,
  feet: Feet,
  replaced: readonly FootPage[],
  { bridges, newId, lost }: Found,
): { readonly places: Places; readonly units: Show['units'] } {
  const bridge = bridges.get(feet.id)!;
  const places = new Map<string, string>();
  if (bridge.alongside) {
    for (const { id } of feet.pages) places.set(id, id);
    return { places, units: show.units };
  }
  const unit = indexShow(show).units.get(bridge.to.id)!;
  const indexOf = (list: readonly Slot[], id: string): number => list.find((s) => s.id === id)?.index ?? 0;
  const ordered = feet.pages.toSorted((a, b) => indexOf(bridge.from.slots, a.id) - indexOf(bridge.from.slots, b.id));
  const old = replaced.toSorted((a, b) => indexOf(unit.slots, a.id) - indexOf(unit.slots, b.id)).map((p) => p.id);
  let slots = [...unit.slots];
  const taken = (index: number): boolean =>
    [...slots, ...bridge.arrivals.slots.values()].some((s) => s.index === index);
  const room = slotCount(unit.profile.plan);
  for (const page of ordered) {
    const name = bridge.from.slots.find((s) => s.id === page.id)?.name ?? '';
    const was = old.shift();
    if (was !== undefined) {
      slots = slots.map((s) => (s.id === was ? { ...s, name } : s));
      places.set(page.id, was);
      continue;
    }
    const index = Array.from({ length: room }, (_, i) => i).find((i) => !taken(i));
    if (index === undefined) {
      lost(`room for page ${name}`);
      continue;
    }
    const slot = newSlot(newId(), index, name);
    slots.push(slot);
    places.set(page.id, slot.id);
  }
  slots.sort((a, b) => a.index - b.index);
  return { places, units: show.units.map((u) => (u.id === unit.id ? { ...u, slots } : u)) };
}

function layerOf<L extends Feet['everywhere']>(layer: L, own: UnitBridge, places: Places, found: Found): L {
  return {
    ...layer,
    switches: layer.switches.flatMap((s) => {
      const id = own.sender(s.id);
      const doings = s.doings.flatMap((d) => {
        const does = doingOf(d.does, places, found);
        return does ? [{ ...d, does }] : [];
      });
      return id === null ? [] : [{ ...s, id, doings }];
    }),
    pedals: layer.pedals.flatMap((p) => {
      const id = own.sender(p.id);
      if (id === null) return [];
      const { does } = p;
      if (does.kind === 'number') return [{ ...p, id }];
      const bridge = found.bridges.get(does.unitId)!;
      const controlId = bridge.swept(does.controlId, [does.from, does.to]);
      return controlId === null ? [] : [{ ...p, id, does: { ...does, unitId: bridge.to.id, controlId } }];
    }),
  };
}

function doingOf(does: Doing, places: Places, { bridges, toneIds, moveIds }: Found): Doing | null {
  switch (does.kind) {
    case 'tone':
      return { ...does, toneId: toneIds.get(does.toneId)! };
    case 'move': {
      const moveId = moveIds.get(does.moveId);
      return moveId === undefined ? null : { ...does, moveId };
    }
    case 'control': {
      const bridge = bridges.get(does.unitId)!;
      const value = bridge.value(does.controlId, does.value);
      return value && { ...does, unitId: bridge.to.id, ...value };
    }
    case 'page': {
      if (typeof does.to === 'string') return does;
      const pageId = places.get(does.to.pageId);
      return pageId === undefined ? null : { ...does, to: { pageId } };
    }
    case 'song':
    case 'sample':
    case 'part':
      return null;
    case 'turn':
      // A stem is of the show that it came from.
      return (SOURCES as readonly string[]).includes(does.of) ? does : null;
    case 'session':
    case 'message':
      return does;
  }
}
