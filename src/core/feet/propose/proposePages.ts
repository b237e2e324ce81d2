import { munkres } from 'munkres';
import { entry } from '../../groups';
import { placeCost, type PageAsk, type Place, type SongTones } from './problem';

/** Why a tone is where it is. */
export type PlacedWhy = 'core' | 'order' | 'pinned';

export interface PlacedTone {
  readonly toneId: string;
  readonly switchId: string;
  readonly why: PlacedWhy;
  readonly cost: number;
}

/** A page for a song, or for what of it the first one does not hold. */
export interface ProposedPage {
  /** What jumps call it. */
  readonly key: string;
  readonly songId: string;
  /** Where pages are few, other songs have what their own pages do not hold on it too. */
  readonly sharedWith: readonly string[];
  /** 0 is the song's page; others are one jump away from it. */
  readonly part: number;
  readonly tones: readonly PlacedTone[];
  /** Switches that go to other pages, by their keys. */
  readonly jumps: readonly { readonly switchId: string; readonly to: string }[];
}

const keyOf = (songId: string, part: number): string => `${songId}/${part}`;

export interface PagePlan {
  readonly pages: readonly ProposedPage[];
  /** Tones that stand in the same place on every page. */
  readonly core: readonly string[];
  /** What the places cost of the tones that are shared, and of those that are not: their sum is as small as it can be. */
  readonly cost: { readonly core: number; readonly rest: number };
  /** Tones that no page has room for. */
  readonly left: readonly { readonly songId: string; readonly toneId: string }[];
}

/**
 * Pages for songs: tones that most songs use in one place on every page, then each song's own. Of all places of the shared tones
 * those are taken with which the sum of all costs (see `placeCost`) is smallest; with each of them a song's own tones are an
 * assignment to the switches that are left. So first uses run in reading order, ties go by reach. No tone is lost: what has no
 * room is on another page, one jump away, or said to be left.
 */
export function proposePages(ask: PageAsk): PagePlan {
  const shared = sharedTones(ask.songs);
  const half = Math.min(shared.length, Math.floor(ask.places.length / 2));
  let best: PagePlan | undefined;
  let bestCount = 0;
  for (let count = shared.length; count >= 0; count--) {
    // Half of the floor is for shared tones, whatever it costs in pages; less only where tones would be left.
    if (count < half && best?.left.length === 0) break;
    const plan = planWith(ask, shared.slice(0, count), 0);
    const better = !best || fits(plan) < fits(best);
    if (better) [best, bestCount] = [plan, count];
  }
  return planWith(ask, shared.slice(0, bestCount), SEARCHED);
}

/** So many ways to place the shared tones are looked at: all of them where there are few. */
const SEARCHED = 800;

/** Fewer tones that are left come first, then fewer pages. */
const fits = ({ left, pages }: PagePlan): number => left.length * 10_000 + pages.length;

/** Tones that more than half of the songs use, those of most songs first. */
function sharedTones(songs: readonly SongTones[]): readonly string[] {
  if (songs.length < 2) return [];
  const uses = new Map<string, number>();
  for (const { tones } of songs) for (const id of tones) uses.set(id, (uses.get(id) ?? 0) + 1);
  return [...uses]
    .filter(([, n]) => n > songs.length / 2)
    .sort(([, a], [, b]) => b - a)
    .map(([id]) => id);
}

interface Layout {
  readonly song: SongTones;
  /** What stays where it is on the song's first page, by switch. */
  readonly fixed: ReadonlyMap<string, string | null>;
  readonly rank: ReadonlyMap<string, number>;
}

function planWith(ask: PageAsk, shared: readonly string[], searched: number): PagePlan {
  const pinned = new Set([...ask.pins.values()].filter((id) => id !== null));
  const layouts = ask.songs.map((song): Layout => {
    const fixed = new Map([...song.fixed].filter(([id]) => !ask.pins.has(id)));
    const stays = new Set([...pinned, ...fixed.values()]);
    const ranked = song.tones.filter((id) => !stays.has(id));
    return { song, fixed, rank: new Map(ranked.map((id, i) => [id, i])) };
  });
  // A shared tone has one place that is free on every page.
  const taken = new Set([...ask.pins.keys(), ...layouts.flatMap((l) => [...l.fixed.keys()])]);
  const held = heldPlaces(ask, layouts, shared);
  const core = shared.filter((id) => !pinned.has(id) && !held.has(id));
  const free = ask.places.filter((p) => !taken.has(p.id));
  if (core.length > free.length) return { ...NO_PLAN, left: everything(ask.songs) };
  const costOf = (toneId: string, place: Place): number =>
    layouts.reduce((sum, { rank }) => sum + costAt(place, rank.get(toneId)), 0);
  const stay = [...held].map(([toneId, place]): Assigned => ({ toneId, place, cost: costOf(toneId, place) }));
  let best = pagesWith(ask, layouts, [...stay, ...assign(core, free, costOf)]);
  const ways = corePlaces(core, free, costOf, (sure) => sure < total(best), searched);
  for (const places of ways) {
    const other = pagesWith(ask, layouts, [...stay, ...places]);
    if (other.left.length <= best.left.length && total(other) < total(best)) best = other;
  }
  return best;
}

/**
 * Shared tones that stay on a switch of some song's page, with that switch: where nothing else stays on it, on any
 * page, they stand there on every page.
 */
function heldPlaces(ask: PageAsk, layouts: readonly Layout[], shared: readonly string[]): ReadonlyMap<string, Place> {
  const held = new Map<string, Place>();
  for (const toneId of shared) {
    const ids = new Set(
      layouts.flatMap(({ fixed }) => [...fixed].flatMap(([id, tone]) => (tone === toneId ? [id] : []))),
    );
    const [id] = ids;
    const place = ids.size === 1 && !ask.pins.has(id!) ? ask.places.find((p) => p.id === id) : undefined;
    const isFree = layouts.every(({ fixed }) => !fixed.has(id!) || fixed.get(id!) === toneId);
    if (place && isFree) held.set(toneId, place);
  }
  return held;
}

const total = ({ cost }: PagePlan): number => cost.core + cost.rest;

/** Ways to place shared tones, the cheaper places of each first, as long as what is sure of a way's cost may be worth it. */
function* corePlaces(
  core: readonly string[],
  free: readonly Place[],
  costOf: (toneId: string, place: Place) => number,
  worth: (sure: number) => boolean,
  most: number,
): Generator<readonly Assigned[]> {
  const choices = core.map((toneId) =>
    free.map((place): Assigned => ({ toneId, place, cost: costOf(toneId, place) })).sort((a, b) => a.cost - b.cost),
  );
  /** What the tones from one on cost at the least. */
  const least = choices.reduceRight<number[]>((sums, own) => [own[0]!.cost + sums[0]!, ...sums], [0]);
  let left = most;
  function* from(nth: number, way: readonly Assigned[], cost: number): Generator<readonly Assigned[]> {
    if (nth === core.length) {
      left -= 1;
      yield way;
      return;
    }
    for (const choice of choices[nth]!) {
      if (left <= 0 || !worth(cost + choice.cost + least[nth + 1]!)) return;
      if (!way.some((w) => w.place === choice.place)) yield* from(nth + 1, [...way, choice], cost + choice.cost);
    }
  }
  if (most > 0 && core.length > 0) yield* from(0, [], 0);
}

/** Pages for all songs, with the shared tones in their places. */
function pagesWith(ask: PageAsk, layouts: readonly Layout[], core: readonly Assigned[]): PagePlan {
  const where = new Map(core.map((c) => [c.toneId, c]));
  const made = songsPages(ask, layouts, where);
  const rest = made.cost;
  const ids = core.map((c) => c.toneId);
  const { pages, left } = made;
  return { pages, core: ids, cost: { core: core.reduce((sum, c) => sum + c.cost, 0), rest }, left };
}

interface SongsPages extends Pick<PagePlan, 'pages' | 'left'> {
  readonly cost: number;
}

/** Pages of all songs: two where one does not hold a song, shared ones where there are too few, and where that is not enough either, what fits. */
function songsPages(ask: PageAsk, layouts: readonly Layout[], core: Core): SongsPages {
  const made = layouts.map((layout) => ({ layout, ...songPages(ask, layout, core, Number.POSITIVE_INFINITY) }));
  const together = (all: readonly (SongPages & { readonly layout: Layout })[]): SongsPages => ({
    pages: all.flatMap((m) => m.pages),
    cost: all.reduce((sum, m) => sum + m.cost, 0),
    left: all.flatMap((m) => m.left.map((toneId) => ({ songId: m.layout.song.songId, toneId }))),
  });
  if (made.reduce((sum, m) => sum + m.pages.length, 0) <= ask.pages) return together(made);
  const shared = sharedPages(ask, made, core);
  if (shared) return shared;
  let room = ask.pages;
  return together(
    layouts.map((layout) => {
      const own = songPages(ask, layout, core, room);
      room -= own.pages.length;
      return { layout, ...own };
    }),
  );
}

const NO_PLAN: PagePlan = { pages: [], core: [], cost: { core: 0, rest: 0 }, left: [] };

const everything = (songs: readonly SongTones[]): PagePlan['left'] =>
  songs.flatMap(({ songId, tones }) => tones.map((toneId) => ({ songId, toneId })));

/** A song that does not use a shared tone does not say where it should be: only the foot does. */
const costAt = (place: Place, rank: number | undefined): number =>
  rank === undefined ? place.reach : placeCost(place, rank);

interface SongPages {
  readonly pages: readonly ProposedPage[];
  readonly cost: number;
  readonly left: readonly string[];
}

type Core = ReadonlyMap<string, Assigned>;

function songPages(ask: PageAsk, { song, fixed, rank }: Layout, core: Core, room: number): SongPages {
  const own = [...rank.keys()].filter((id) => !core.has(id));
  if (room < 1) return { pages: [], cost: 0, left: song.tones };
  const always = new Set([...ask.pins.keys(), ...[...core.values()].map((c) => c.place.id)]);
  const open = ask.places.filter((p) => !always.has(p.id));
  // A shared tone that stays elsewhere on this page does not stand on it twice.
  const stays = new Set(fixed.values());
  const first = open.filter((p) => !fixed.has(p.id));
  const extra = extraPages(ask, own.length, first.length, open.length, room);
  const jumping = ask.turns === 'jump' && extra > 0;
  // Switches that turn pages lie where no foot goes by mistake: as far off as there are any. Back is where on was.
  const far = first.toSorted((a, b) => b.reach - a.reach || b.order - a.order);
  const jumps = jumping ? far.slice(0, extra) : [];
  const away = jumps[0];
  const pages: ProposedPage[] = [];
  let cost = 0;
  let at = 0;
  for (let part = 0; part <= extra; part++) {
    const turning = part === 0 ? jumps : away ? [away] : [];
    const places = (part === 0 ? first : open).filter((p) => !turning.includes(p));
    const here = own.slice(at, at + places.length);
    at += here.length;
    const placed = assign(here, places, (id, place) => placeCost(place, rank.get(id)!));
    cost += placed.reduce((sum, p) => sum + p.cost, 0);
    const tones = [
      ...pinnedTones(ask.pins),
      ...(part === 0 ? pinnedTones(fixed) : []),
      ...[...core.values()].filter((c) => part > 0 || !stays.has(c.toneId)).map((c) => placedTone(c, 'core')),
      ...placed.map((p) => placedTone(p, 'order')),
    ];
    const { songId } = song;
    const to = turning.map((p, i) => ({ switchId: p.id, to: keyOf(songId, part === 0 ? i + 1 : 0) }));
    pages.push({ key: keyOf(songId, part), songId, sharedWith: [], part, tones, jumps: to });
  }
  return { pages, cost, left: own.slice(at) };
}

/** A song whose second page could be that of others too. */
interface Pair {
  readonly layout: Layout;
  readonly first: ProposedPage;
  /** What its own page does not hold, in the order of first use. */
  readonly over: readonly string[];
}

/**
 * Pages for all songs where each cannot have a second page of its own: what the pages of several songs do not hold shares a page, from which
 * a switch goes back to each. Null where that is not enough.
 */
function sharedPages(
  ask: PageAsk,
  made: readonly (SongPages & { readonly layout: Layout })[],
  core: Core,
): SongsPages | null {
  if (ask.turns !== 'jump' || made.some((m) => m.left.length > 0 || m.pages.length > 2)) return null;
  const always = new Set([...ask.pins.keys(), ...[...core.values()].map((c) => c.place.id)]);
  const open = ask.places.filter((p) => !always.has(p.id));
  const groups: Pair[][] = [];
  const pages: ProposedPage[] = [];
  for (const { layout, pages: own } of made) {
    const [first, second] = own;
    pages.push(first!);
    if (!second) continue;
    const over = second.tones.filter((t) => t.why === 'order').map((t) => t.toneId);
    const last = groups.at(-1);
    const takes = last && last.reduce((sum, p) => sum + p.over.length, over.length) + last.length + 1;
    const pair = { layout, first: first!, over };
    if (last && takes! <= open.length) last.push(pair);
    else groups.push([pair]);
  }
  if (pages.length + groups.length > ask.pages) return null;
  let cost = made.reduce((sum, m) => sum + sumOf(m.pages[0]!), 0);
  for (const group of groups) {
    const page = secondPage(ask, group, open, core);
    cost += sumOf(page);
    // Behind the last song that it is for.
    const at = pages.indexOf(group.at(-1)!.first);
    pages.splice(at + 1, 0, page);
    for (const { first } of group) {
      const to = page.key;
      pages[pages.indexOf(first)] = { ...first, jumps: first.jumps.map((j) => ({ ...j, to })) };
    }
  }
  return { pages, cost, left: [] };
}

const sumOf = ({ tones }: ProposedPage): number => tones.reduce((sum, t) => sum + (t.why === 'order' ? t.cost : 0), 0);

/** One page for what the pages of some songs do not hold. A tone that two of them want stands there once. */
function secondPage(ask: PageAsk, group: readonly Pair[], open: readonly Place[], core: Core): ProposedPage {
  const far = open.toSorted((a, b) => b.reach - a.reach || b.order - a.order);
  const backs = far.slice(0, group.length);
  const rank = new Map(group.flatMap(({ over, layout }) => over.map((id) => [id, layout.rank.get(id)!] as const)));
  const placed = assign(
    [...rank.keys()],
    open.filter((p) => !backs.includes(p)),
    (id, place) => placeCost(place, rank.get(id)!),
  );
  const { songId } = group[0]!.layout.song;
  return {
    key: keyOf(songId, 1),
    songId,
    sharedWith: group.slice(1).map((p) => p.layout.song.songId),
    part: 1,
    tones: [
      ...pinnedTones(ask.pins),
      ...[...core.values()].map((c) => placedTone(c, 'core')),
      ...placed.map((p) => placedTone(p, 'order')),
    ],
    jumps: backs.map((p, i) => ({ switchId: p.id, to: group[i]!.first.key })),
  };
}

/** How many pages beside its first a song needs, as far as there are any. */
function extraPages({ turns }: PageAsk, tones: number, first: number, open: number, room: number): number {
  if (tones <= first || turns === 'none') return 0;
  // One step leads only to the page beside it.
  const most = turns === 'step' ? Math.min(1, room - 1) : Math.min(first, room - 1);
  const turning = turns === 'jump' ? 1 : 0;
  const holds = (extra: number): number => first - turning * extra + extra * (open - turning);
  let best = 0;
  for (let extra = 1; extra <= most; extra++) {
    if (holds(extra) >= tones) return extra;
    if (holds(extra) > holds(best)) best = extra;
  }
  return best;
}

const pinnedTones = (pins: ReadonlyMap<string, string | null>): PlacedTone[] =>
  [...pins].flatMap(([switchId, toneId]) => (toneId === null ? [] : [{ switchId, toneId, why: 'pinned', cost: 0 }]));

interface Assigned {
  readonly toneId: string;
  readonly place: Place;
  readonly cost: number;
}

const placedTone = ({ toneId, place, cost }: Assigned, why: PlacedWhy): PlacedTone => ({
  toneId,
  switchId: place.id,
  why,
  cost,
});

/** Tones on places with the smallest sum of costs; there are places enough. */
function assign(
  tones: readonly string[],
  places: readonly Place[],
  costOf: (toneId: string, place: Place) => number,
): readonly Assigned[] {
  if (tones.length === 0) return [];
  const costs = tones.map((toneId) => places.map((place) => costOf(toneId, place)));
  const found = new Map<string, Assigned>();
  for (const [row, column] of munkres(costs)) {
    entry(found, tones[row]!, () => ({
      toneId: tones[row]!,
      place: places[column]!,
      cost: costs[row]![column]!,
    }));
  }
  return tones.map((id) => found.get(id)!);
}
