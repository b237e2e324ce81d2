import { sheetsOf, usualSheets, type Sheet, type SheetKind, type SheetWish, type SheetWords } from '../sheets';
import type { Show } from '../show';
import { tonightOf } from '../tonight';

/** Words of a sheet that say what they are asked for as it is written in the show. */
export const PLAIN_WORDS: SheetWords = {
  hears: (_, hears) => `${hears.kind} ${hears.number}`,
  does: (_, does) => does.kind,
  accepted: (show) => show.accepted.map(({ key, says, reason }) => ({ place: key, says, reason })),
};

/** The sheets of a kind that a show has tonight. */
export const paperOf = (show: Show, kind: SheetKind, rest: Partial<SheetWish> = {}): readonly Sheet[] =>
  sheetsOf(tonightOf(show), { ...usualSheets(kind), ...rest }, PLAIN_WORDS);
