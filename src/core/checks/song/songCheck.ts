import type { Ticks } from '../../time';
import type { Finding, FindingPlace } from '../finding';
import type { SongFacts } from './facts';

/** One kind of finding in one song. */
export type SongCheck = (facts: SongFacts) => Finding[];

/** A place in the song that is checked. */
export const inSong = (
  { song }: SongFacts,
  at: Ticks,
  what: { readonly cueId?: string; readonly sweepId?: string; readonly sectionId?: string } = {},
): FindingPlace => ({ in: 'song', songId: song.id, at, ...what });
