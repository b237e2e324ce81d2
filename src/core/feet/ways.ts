import { slotCount } from '../addressing';
import { feetOf, indexShow, pagesOf, type Doing, type Feet, type FootPage, type Show, type Unit } from '../show';
import { entryOn } from './switchSends';

/** One press: of a switch, or of the controller's own switches for the page before and the next. */
export type Press =
  | { readonly kind: 'switch'; readonly pageId: string; readonly switchId: string }
  | { readonly kind: 'step'; readonly pageId: string; readonly by: 1 | -1 };

/** Pages of a controller, and how a foot comes from one to another. */
export interface FootWays {
  readonly unitId: string;
  readonly feet: Feet;
  /** In the order in which the controller keeps them. */
  readonly pages: readonly FootPage[];
  /** Where a press on a page leads: to the page itself where it turns none. */
  readonly steps: (pageId: string) => readonly { readonly press: Press; readonly to: string }[];
  /** The switches of a page that do just this when they are pressed, and the page that they lead to. */
  readonly doing: (pageId: string, does: Doing) => readonly { readonly press: Press; readonly to: string }[];
}

/** Whether two doings are the same thing. */
export const sameDoing = (a: Doing, b: Doing): boolean => JSON.stringify(a) === JSON.stringify(b);

interface Kept {
  readonly unit: Unit;
  readonly ways: FootWays | null;
}

/** Made once for what is programmed: most edits leave that, and the controller, alone. */
const kept = new WeakMap<Feet, Kept>();

/** The ways of a foot through a controller's pages; null where the unit is no foot controller. */
export function footWays(show: Show, unitId: string): FootWays | null {
  const unit = indexShow(show).units.get(unitId);
  const feet = show.feet.find((f) => f.id === unitId);
  if (!unit || !feet) return makeWays(show, unitId);
  const known = kept.get(feet);
  if (known?.unit === unit) return known.ways;
  const ways = makeWays(show, unitId);
  kept.set(feet, { unit, ways });
  return ways;
}

function makeWays(show: Show, unitId: string): FootWays | null {
  const unit = indexShow(show).units.get(unitId);
  const controller = unit?.profile.controller;
  if (!unit || !controller) return null;
  const slots = indexShow(show).slots(unitId);
  const room = slotCount(unit.profile.plan);
  const feet = feetOf(show, unitId);
  const pages = pagesOf(show, unitId).filter((p) => (slots.get(p.id)?.index ?? room) < room);
  const order = new Map(pages.map((p, i) => [p.id, i]));
  const beside = (pageId: string, by: 1 | -1): string =>
    pages[(order.get(pageId)! + by + pages.length) % pages.length]!.id;
  const presses = (page: FootPage) =>
    controller.switches.flatMap(({ id }) => {
      // What is done again, held or let go is another matter: a press is what a foot does in the dark.
      const doings = (entryOn(feet, page, id)?.doings ?? []).filter((d) => d.on === 'press').map((d) => d.does);
      const jump = controller.jumps === 'none' ? undefined : doings.find((d) => d.kind === 'page');
      const goes =
        jump?.kind !== 'page'
          ? page.id
          : typeof jump.to === 'string'
            ? beside(page.id, jump.to === 'next' ? 1 : -1)
            : jump.to.pageId;
      const to = order.has(goes) ? goes : page.id;
      return [{ press: { kind: 'switch', pageId: page.id, switchId: id } as const, to, doings }];
    });
  const made = new Map(pages.map((p) => [p.id, presses(p)]));
  return {
    unitId,
    feet,
    pages,
    steps: (pageId) => {
      const own: { press: Press; to: string }[] = (made.get(pageId) ?? [])
        // To get to another page nothing else may happen on the way.
        .filter((p) => p.to !== pageId && p.doings.every((d) => d.kind === 'page'))
        .map(({ press, to }) => ({ press, to }));
      if (controller.stepsPages && pages.length > 1) {
        for (const by of [1, -1] as const) {
          own.push({ press: { kind: 'step', pageId, by }, to: beside(pageId, by) });
        }
      }
      return own;
    },
    doing: (pageId, does) =>
      (made.get(pageId) ?? [])
        .filter(
          (p) => p.doings.filter((d) => d.kind !== 'page').length === 1 && p.doings.some((d) => sameDoing(d, does)),
        )
        .map(({ press, to }) => ({ press, to })),
  };
}

interface Way {
  readonly presses: readonly Press[];
  /** Where they leave the controller. */
  readonly to: string;
}

const found = new WeakMap<FootWays, Map<string, Way | null>>();

/** The fewest presses from a page that do something; null where none do. */
export function wayTo(ways: FootWays, from: string, does: Doing): Way | null {
  let known = found.get(ways);
  if (!known) found.set(ways, (known = new Map<string, Way | null>()));
  const key = JSON.stringify([from, does]);
  const before = known.get(key);
  if (before !== undefined) return before;
  const way = lookFor(ways, from, does);
  known.set(key, way);
  return way;
}

function lookFor(ways: FootWays, from: string, does: Doing): Way | null {
  const seen = new Set([from]);
  let edge: { readonly at: string; readonly presses: readonly Press[] }[] = [{ at: from, presses: [] }];
  while (edge.length > 0) {
    for (const { at, presses } of edge) {
      const [last] = ways.doing(at, does);
      if (last) return { presses: [...presses, last.press], to: last.to };
    }
    const next: typeof edge = [];
    for (const { at, presses } of edge) {
      for (const { press, to } of ways.steps(at)) {
        if (seen.has(to)) continue;
        seen.add(to);
        next.push({ at: to, presses: [...presses, press] });
      }
    }
    edge = next;
  }
  return null;
}

/** The page that a song begins on: its own, or the controller's first. */
export const pageOfSong = ({ pages }: FootWays, songId: string): FootPage | undefined =>
  pages.find((p) => p.songId === songId) ?? pages[0];

/** Pages from which no press leads away, where there are others. */
export const deadEnds = (ways: FootWays): readonly FootPage[] =>
  ways.pages.length < 2 ? [] : ways.pages.filter((p) => ways.steps(p.id).length === 0 && !leadsAway(ways, p));

/** A switch that does something and turns the page leads away too. */
const leadsAway = ({ feet }: FootWays, page: FootPage): boolean =>
  [...page.switches, ...feet.everywhere.switches].some((s) =>
    s.doings.some((d) => d.does.kind === 'page' && (typeof d.does.to === 'string' || d.does.to.pageId !== page.id)),
  );
