import { setOf, songsOfSet } from '../show';
import { differsTonight, type ShowTonight } from '../tonight';
import { cueSheet, floorCues } from './cueSheet';
import type { SheetCounting } from './figures';
import { acceptedSheet, padSheet, portSheet, startSheet, tonightSheet, type SheetWords } from './nightSheets';
import { numberChart, patchPaper, storedStates, switchStrips } from './rigSheets';
import type { Sheet } from './sheet';
import { fallbackSheet, floorFallback, floorSet, mixSheet, setList, toneSheet } from './songSheets';

/** What kinds of paper there are. */
export const SHEET_KINDS = [
  'cues',
  'set',
  'numbers',
  'patch',
  'strips',
  'fallback',
  'stored',
  'mix',
  'tones',
  'pads',
  'ports',
  'starts',
  'accepted',
  'tonight',
] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** Where paper is read: on a desk or a music stand, or standing, from the floor. */
export const SHEET_USES = ['desk', 'floor'] as const;
export type SheetUse = (typeof SHEET_USES)[number];

/** The kinds that there are for the floor too. */
export const FLOOR_KINDS: ReadonlySet<SheetKind> = new Set<SheetKind>(['cues', 'set', 'fallback']);

/** Which sheets are wanted. What is not for the floor is as for the desk. */
export interface SheetWish {
  readonly kind: SheetKind;
  readonly counting: SheetCounting;
  readonly use: SheetUse;
}

/** Sheets of a kind as they are where nothing else is chosen. */
export const usualSheets = (kind: SheetKind): SheetWish => ({ kind, counting: 'label', use: 'desk' });

/** All sheets of a kind that a show has, in the order in which one would lay them out; each says what differs tonight. */
export function sheetsOf(show: ShowTonight, wish: SheetWish, words: SheetWords): readonly Sheet[] {
  const differs = differsTonight(show).join(' ');
  const sheets = sheetsOfKind(show, wish, words);
  if (differs === '' || wish.kind === 'tonight') return sheets;
  return sheets.map((s) => ({ ...s, about: `${s.about}${/[.!?]$|^$/.test(s.about) ? ' ' : '. '}${differs}`.trim() }));
}

function sheetsOfKind(show: ShowTonight, { kind, counting, use }: SheetWish, words: SheetWords): readonly Sheet[] {
  const controllers = show.units.filter((u) => show.feet.some((f) => f.id === u.id && f.pages.length > 0));
  const songs = [...new Set(songsOfSet(show))];
  const isFloor = use === 'floor';
  const one = (sheet: Sheet | null): readonly Sheet[] => (sheet ? [sheet] : []);
  switch (kind) {
    case 'cues':
      return songs.map((s) => (isFloor ? floorCues(show, s) : cueSheet(show, s)));
    case 'set':
      return setOf(show).entries.length === 0 ? [] : [isFloor ? floorSet(show) : setList(show)];
    case 'numbers':
      return show.units
        .filter((u) => u.slots.length > 0 || u.profile.controls.length > 0)
        .map((u) => numberChart(u, counting));
    case 'patch':
      return show.units.length === 0 ? [] : [patchPaper(show)];
    case 'strips':
      return controllers.flatMap((u) => switchStrips(show, u) ?? []);
    case 'fallback':
      return controllers.flatMap((u) =>
        songs.flatMap((s) => (isFloor ? floorFallback : fallbackSheet)(show, u, s) ?? []),
      );
    case 'stored':
      return show.units.flatMap((u) => storedStates(show, u) ?? []);
    case 'mix':
      return songs.length === 0 ? [] : [mixSheet(show)];
    case 'tones':
      return show.tones.length === 0 ? [] : [toneSheet(show)];
    case 'pads':
      return one(padSheet(show, words));
    case 'ports':
      return one(portSheet(show));
    case 'starts':
      return one(startSheet(show));
    case 'accepted':
      return one(acceptedSheet(show, words));
    case 'tonight':
      return one(tonightSheet(show));
  }
}
