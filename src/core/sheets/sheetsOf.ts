import { setOf, songsOfSet } from '../show';
import { differsTonight, type ShowTonight } from '../tonight';
import { cueSheet } from './cueSheet';
import type { SheetCounting } from './figures';
import { numberChart, patchPaper, storedStates, switchStrips } from './rigSheets';
import type { Sheet } from './sheet';
import { fallbackSheet, mixSheet, setList, toneSheet } from './songSheets';

/** What kinds of paper there are. */
export const SHEET_KINDS = ['cues', 'set', 'numbers', 'patch', 'strips', 'fallback', 'stored', 'mix', 'tones'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** All sheets of a kind that a show has, in the order in which one would lay them out; each says what differs tonight. */
export function sheetsOf(show: ShowTonight, kind: SheetKind, counting: SheetCounting = 'label'): readonly Sheet[] {
  const differs = differsTonight(show).join(' ');
  const sheets = sheetsOfKind(show, kind, counting);
  if (differs === '') return sheets;
  return sheets.map((s) => ({ ...s, about: `${s.about}${/[.!?]$|^$/.test(s.about) ? ' ' : '. '}${differs}`.trim() }));
}

function sheetsOfKind(show: ShowTonight, kind: SheetKind, counting: SheetCounting): readonly Sheet[] {
  const controllers = show.units.filter((u) => show.feet.some((f) => f.id === u.id && f.pages.length > 0));
  const songs = [...new Set(songsOfSet(show))];
  switch (kind) {
    case 'cues':
      return songs.map((s) => cueSheet(show, s));
    case 'set':
      return setOf(show).entries.length === 0 ? [] : [setList(show)];
    case 'numbers':
      return show.units
        .filter((u) => u.slots.length > 0 || u.profile.controls.length > 0)
        .map((u) => numberChart(u, counting));
    case 'patch':
      return show.units.length === 0 ? [] : [patchPaper(show)];
    case 'strips':
      return controllers.flatMap((u) => switchStrips(show, u) ?? []);
    case 'fallback':
      return controllers
        .filter((u) => show.feet.some((f) => f.id === u.id && f.boat.length > 0))
        .flatMap((u) => songs.flatMap((s) => fallbackSheet(show, u, s) ?? []));
    case 'stored':
      return show.units.flatMap((u) => storedStates(show, u) ?? []);
    case 'mix':
      return songs.length === 0 ? [] : [mixSheet(show)];
    case 'tones':
      return show.tones.length === 0 ? [] : [toneSheet(show)];
  }
}
