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
  readonly songId: string;
  /** 0 is the song's page; others are one jump away from it. */
  readonly part: number;
  readonly tones: readonly PlacedTone[];
  /** Switches that go to other pages of the song, by the part that they go to. */
  readonly jumps: readonly { readonly switchId: string; readonly to: number }[];
}

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
  const core = shared.filter((id) => !pinned.has(id));
  const free = ask.places.filter((p) => !taken.has(p.id));
  if (core.length > free.length) return { ...NO_PLAN, left: everything(ask.songs) };
  const costOf = (toneId: string, place: Place): number =>
    layouts.reduce((sum, { rank }) => sum + costAt(place, rank.get(toneId)), 0);
  let best = pagesWith(ask, layouts, assign(core, free, costOf));
  const ways = corePlaces(core, free, costOf, (sure) => sure < total(best), searched);
  for (const places of ways) {
    const other = pagesWith(ask, layouts, places);
    if (other.left.length <= best.left.length && total(other) < total(best)) best = other;
  }
  return best;
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
  const left: { songId: string; toneId: string }[] = [];
  let room = ask.pages;
  let rest = 0;
  const pages = layouts.flatMap((layout) => {
    const made = songPages(ask, layout, where, room);
    room -= made.pages.length;
    rest += made.cost;
    left.push(...made.left.map((toneId) => ({ songId: layout.song.songId, toneId })));
    return made.pages;
  });
  const ids = core.map((c) => c.toneId);
  return { pages, core: ids, cost: { core: core.reduce((sum, c) => sum + c.cost, 0), rest }, left };
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
      ...[...core.values()].map((c) => placedTone(c, 'core')),
      ...placed.map((p) => placedTone(p, 'order')),
    ];
    const to = turning.map((p, i) => ({ switchId: p.id, to: part === 0 ? i + 1 : 0 }));
    pages.push({ songId: song.songId, part, tones, jumps: to });
  }
  return { pages, cost, left: own.slice(at) };
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
