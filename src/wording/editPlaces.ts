import type { EditPlace, Show } from '../core/show';

/** What the members of each list are called. */
const KINDS: Readonly<Record<string, string>> = {
  songs: 'the song',
  tones: 'the tone',
  moves: 'the move',
  units: 'the unit',
  ports: 'the port',
  players: 'the player',
  sets: 'the set',
};

/** Where an edit was made, from the first of some states of the show that has it: "the tone Fog Lead"; empty for the show itself. */
export function editPlaceWords({ list, id }: EditPlace, shows: readonly (Show | undefined)[]): string {
  const kind = KINDS[list ?? ''];
  if (kind === undefined) return '';
  for (const show of shows) {
    const members = show?.[list as keyof Show] as unknown as readonly { id: string; name?: string; title?: string }[];
    const member = members?.find((m) => m.id === id);
    if (member) return `${kind} ${member.name ?? member.title ?? ''}`.trim();
  }
  return '';
}
