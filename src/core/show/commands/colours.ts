import type { Edit } from '../edits';
import { LIMITS } from '../limits';
import type { ColourName, Show } from '../schema';

/** What a colour means in a show; empty where nobody said. */
export const meaningOf = (show: Pick<Show, 'colours'>, colour: ColourName): string =>
  show.colours.find((c) => c.colour === colour)?.means ?? '';

/** Says what a colour means; an empty text is nothing. Null when nothing would change. */
export function setMeaning(show: Show, colour: ColourName, text: string): Edit | null {
  const means = text.trim().slice(0, LIMITS.name).trim();
  if (means === meaningOf(show, colour)) return null;
  const rest = show.colours.filter((c) => c.colour !== colour);
  return {
    kind: 'set',
    path: ['colours'],
    before: show.colours,
    after: means === '' ? rest : [...rest, { colour, means }],
  };
}
