import { slotCount } from '../../addressing';
import { moments } from '../../meaning';
import {
  addFootPage,
  applyEdit,
  asTitle,
  changeFeet,
  feetOf,
  indexShow,
  newFootSwitch,
  orderFootPages,
  pagesOf,
  songsOfSet,
  type Doing,
  type Edit,
  type FootPage,
  type FootSwitch,
  type Show,
  type Song,
} from '../../show';
import { placesOf, type PageAsk, type SongTones } from './problem';
import { proposePages, type PagePlan, type PlacedWhy, type ProposedPage } from './proposePages';

/** A tone that a proposal puts on a switch; `from` is where it was on the pages of that song, null where it was not. */
export interface ToneMove {
  readonly songId: string;
  readonly part: number;
  readonly toneId: string;
  readonly from: string | null;
  readonly to: string;
  readonly why: PlacedWhy;
}

export interface Proposal extends PagePlan {
  readonly unitId: string;
  /** Tones that are elsewhere than before, or new. */
  readonly moves: readonly ToneMove[];
  /** Tones that stay where they were. */
  readonly stay: number;
}

/** Tones of a song in the order in which they are used first; those that are muted, or that the show has not, are left out. */
export function tonesInUse(show: Show, song: Song): readonly string[] {
  const used = moments(show, song).flatMap(({ action, source }) =>
    action.kind === 'tone' && (source === 'cue' || source === 'opening') ? [action.toneId] : [],
  );
  return [...new Set(used)];
}

const only = <K extends Doing['kind']>(entry: FootSwitch, kind: K): Extract<Doing, { kind: K }> | null => {
  const found = entry.doings.find((d) => d.does.kind === kind && d.on === 'press');
  return (found?.does as Extract<Doing, { kind: K }> | undefined) ?? null;
};

/** The tone that a switch calls when it is pressed. */
export const toneOn = (entry: FootSwitch): string | null => only(entry, 'tone')?.toneId ?? null;

/** Whether a switch does anything but call a tone or turn pages: that is somebody's own work. */
const isOwn = ({ doings }: FootSwitch): boolean =>
  doings.length > 1 || doings.some(({ on, does }) => on !== 'press' || (does.kind !== 'tone' && does.kind !== 'page'));

/** Whether a proposal leaves a switch as it is. */
const stays = (entry: FootSwitch): boolean => entry.pinned || isOwn(entry);

const songPagesOf = (show: Show, unitId: string, songId: string): readonly FootPage[] =>
  pagesOf(show, unitId).filter((p) => p.songId === songId);

/** What pages of a controller are asked for: those of the songs of the set, each once. */
export function askFor(show: Show, unitId: string): PageAsk | null {
  const unit = indexShow(show).units.get(unitId);
  const controller = unit?.profile.controller;
  if (!unit || !controller) return null;
  const feet = feetOf(show, unitId);
  const known = new Set(controller.switches.map((s) => s.id));
  const songs = [...new Set(songsOfSet(show))];
  const others = feet.pages.filter((p) => p.songId === null || !songs.some((s) => s.id === p.songId)).length;
  const fixedOf = (list: readonly FootSwitch[]): ReadonlyMap<string, string | null> =>
    new Map(list.filter((s) => known.has(s.id)).map((s) => [s.id, toneOn(s)]));
  return {
    places: placesOf(controller),
    songs: songs.map((song): SongTones => {
      const [page] = songPagesOf(show, unitId, song.id);
      return { songId: song.id, tones: tonesInUse(show, song), fixed: fixedOf((page?.switches ?? []).filter(stays)) };
    }),
    pins: fixedOf(feet.everywhere.switches),
    pages: slotCount(unit.profile.plan) - others,
    turns: controller.jumps !== 'none' ? 'jump' : controller.stepsPages ? 'step' : 'none',
  };
}

/** Proposes pages for the songs of the set, in its order. Null where the unit is no foot controller. */
export function propose(show: Show, unitId: string): Proposal | null {
  const ask = askFor(show, unitId);
  if (!ask) return null;
  const plan = proposePages(ask);
  const moves: ToneMove[] = [];
  let stay = 0;
  for (const { songId, part, tones } of plan.pages) {
    const before = songPagesOf(show, unitId, songId)[part];
    const was = [...(before?.switches ?? []), ...feetOf(show, unitId).everywhere.switches];
    for (const { toneId, switchId, why } of tones) {
      const on = was.filter((s) => toneOn(s) === toneId).map((s) => s.id);
      const from = on.includes(switchId) ? switchId : (on[0] ?? null);
      if (from === switchId) stay += 1;
      else moves.push({ songId, part, toneId, from, to: switchId, why });
    }
  }
  return { ...plan, unitId, moves, stay };
}

/** Takes a proposal over: its pages take the place of those of the same songs, in the order of the set. Null when nothing would change. */
export function takeProposal(show: Show, proposal: Proposal, newId: () => string): Edit | null {
  const { unitId } = proposal;
  const edits: Edit[] = [];
  let now = show;
  const perform = (edit: Edit | null): void => {
    if (!edit) return;
    edits.push(edit);
    now = applyEdit(now, edit);
  };
  const pageIds = new Map<string, string>();
  for (const page of proposal.pages) {
    const { songId, part, key } = page;
    const own = songPagesOf(now, unitId, songId)[part];
    if (own) pageIds.set(key, own.id);
    else {
      const song = indexShow(now).songs.get(songId);
      const more = page.sharedWith.length === 0 ? '' : ' and others';
      const name = asTitle(`${song?.title ?? ''}${more}${part === 0 ? '' : ` ${part + 1}`}`, 'Page');
      const added = addFootPage(now, unitId, name, newId, { songId });
      if (!added) continue;
      perform(added.edit);
      pageIds.set(key, added.pageId);
    }
  }
  const pins = new Set(feetOf(now, unitId).everywhere.switches.map((s) => s.id));
  const switchesOf = new Map(
    proposal.pages.flatMap((page): [string, readonly FootSwitch[]][] => {
      const id = pageIds.get(page.key);
      const before = feetOf(now, unitId).pages.find((p) => p.id === id)?.switches ?? [];
      return id === undefined ? [] : [[id, proposedSwitches(page, before, pins, pageIds)]];
    }),
  );
  perform(
    changeFeet(now, unitId, (feet) => ({
      ...feet,
      pages: feet.pages.map((p) => ({ ...p, switches: switchesOf.get(p.id) ?? p.switches })),
    })),
  );
  const proposed = [...pageIds.values()];
  const others = pagesOf(now, unitId).filter((p) => !proposed.includes(p.id) && indexShow(now).slots(unitId).has(p.id));
  perform(orderFootPages(now, unitId, [...others.map((p) => p.id), ...proposed]));
  return edits.length === 0 ? null : { kind: 'group', edits };
}

/** What stands on a page's switches by a proposal: what stays, tones, and switches that turn pages. */
function proposedSwitches(
  { tones, jumps, part }: ProposedPage,
  before: readonly FootSwitch[],
  pins: ReadonlySet<string>,
  pageIds: ReadonlyMap<string, string>,
): readonly FootSwitch[] {
  const kept = before.filter((s) => (part === 0 && stays(s)) || pins.has(s.id));
  const taken = new Set([...kept.map((s) => s.id), ...pins]);
  const called = tones
    .filter((t) => !taken.has(t.switchId))
    .map(({ switchId, toneId }) => {
      // A name that it was given goes along.
      const same = before.find((s) => toneOn(s) === toneId && !stays(s));
      return same ? { ...same, id: switchId } : newFootSwitch(switchId, [{ kind: 'tone', toneId }]);
    });
  const turning = jumps.flatMap(({ switchId, to }) => {
    const pageId = pageIds.get(to);
    return pageId === undefined ? [] : [newFootSwitch(switchId, [{ kind: 'page', to: { pageId } }])];
  });
  const after = [...kept, ...called, ...turning];
  return sameSwitches(before, after) ? before : after;
}

/** Whether two lists have the same on the same switches, in whatever order. */
function sameSwitches(a: readonly FootSwitch[], b: readonly FootSwitch[]): boolean {
  const texts = (list: readonly FootSwitch[]): string =>
    JSON.stringify(list.toSorted((x, y) => (x.id < y.id ? -1 : 1)));
  return texts(a) === texts(b);
}
