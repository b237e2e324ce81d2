import type { Show, Song } from '../show';

/** What says where a song is while it plays: our own clock, a clock that comes in on a port, or time code. */
export type Leader = 'own' | 'clock' | 'code';

/** What leads a song as the show has it. A song that both lead is a finding; the code has it then. */
export function leaderOf({ timeCode }: Pick<Show, 'timeCode'>, { code, followsPortId }: Song): Leader {
  if (timeCode.portId !== null && code !== null) return 'code';
  return followsPortId === null ? 'own' : 'clock';
}
