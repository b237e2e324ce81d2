import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { TRIGGERS, type Controller } from '../../../core/addressing';
import { entryOn, switchSends, switchTitle } from '../../../core/feet';
import {
  feetOf,
  pagesOf,
  type FootPage,
  type FootSwitch,
  type LayerId,
  type Show,
  type Unit,
} from '../../../core/show';
import { TRIGGER_HEADS, doingWords } from '../../../wording';
import type { Floor } from '../../../playback';
import type { Plate } from './Floor';

/** The address of what stands on every page. */
export const EVERYWHERE = 'everywhere';

export interface PagesState {
  readonly pages: readonly FootPage[];
  /** The page that is open; null for what stands on every page. */
  readonly layerId: LayerId;
  readonly page: FootPage | null;
  readonly open: (layerId: LayerId) => void;
  readonly chosen: ReadonlySet<string>;
  readonly choose: (id: string, how: 'alone' | 'to' | 'besides') => void;
  readonly chooseOnly: (ids: readonly string[]) => void;
}

/** Which page is open and which of its switches are chosen: the page is in the address, so that findings lead here. */
export function usePages(show: Show, unit: Unit, controller: Controller): PagesState {
  const [search, setSearch] = useSearchParams();
  const pages = pagesOf(show, unit.id);
  const asked = search.get('page');
  const page = pages.find((p) => p.id === asked) ?? (asked === EVERYWHERE ? null : (pages[0] ?? null));
  const first = search.get('switch');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(first === null ? [] : [first]));
  const reading = controller.switches.toSorted((a, b) => a.row - b.row || a.column - b.column).map((s) => s.id);
  return {
    pages,
    layerId: page?.id ?? null,
    page,
    open: (layerId) => setSearch({ page: layerId ?? EVERYWHERE }, { replace: true }),
    chosen,
    chooseOnly: (ids) => setChosen(new Set(ids)),
    choose: (id, how) =>
      setChosen((was) => {
        const [from] = was;
        if (how === 'alone' || from === undefined) return new Set([id]);
        if (how === 'besides') {
          const others = [...was].filter((x) => x !== id);
          return new Set(was.has(id) && others.length > 0 ? others : [...was, id]);
        }
        const [a, b] = [reading.indexOf(from), reading.indexOf(id)].sort((x, y) => x - y);
        // The one that was chosen first stays the first: a run goes on from it.
        return new Set([from, ...reading.slice(a, b! + 1)]);
      }),
  };
}

/** What is drawn on the switches of a layer. */
export function platesOf(show: Show, unit: Unit, layer: LayerId, floor: Floor | undefined): readonly Plate[] {
  const { controller, senders } = unit.profile;
  const feet = feetOf(show, unit.id);
  const page = feet.pages.find((p) => p.id === layer) ?? null;
  return controller!.switches.map(({ id }, place): Plate => {
    const entry = entryOn(feet, page, id);
    const own = layer === null || page?.switches.some((s) => s.id === id) === true;
    const { wrong } = switchSends(show, unit.id, layer, id);
    const first = entry?.doings[0];
    const others = entry ? otherWords(show, unit.id, entry) : [];
    return {
      id,
      label: senders.find((s) => s.id === id)?.name ?? id,
      name: entry ? switchTitle(show, entry) : '',
      others,
      kind: !entry ? 'bare' : first?.does.kind === 'tone' ? 'tone' : first?.does.kind === 'page' ? 'page' : 'other',
      everywhere: layer !== null && entry !== null && !own,
      pinned: entry?.pinned === true,
      colour: entry?.colour ?? null,
      wrong: wrong.some((w) => w.what !== 'unreached' && w.what !== 'unknown'),
      lit: floor?.lit.includes(place) === true,
    };
  });
}

/** What a switch does beside the first thing, smaller: "Hold: to the next page". */
function otherWords(show: Show, unitId: string, entry: FootSwitch): string[] {
  const titled = entry.name === '';
  const main = entry.doings.find((d) => d.does.kind !== 'page') ?? entry.doings[0];
  return TRIGGERS.flatMap((trigger) => {
    const own = entry.doings.filter((d) => d.on === trigger && !(titled && d === main));
    if (own.length === 0) return [];
    const words = own.map((d) => doingWords(show, unitId, d.does)).join(', ');
    return [trigger === 'press' ? words : `${TRIGGER_HEADS[trigger]}: ${words}`];
  });
}
