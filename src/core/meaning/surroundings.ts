import type { Show } from '../show';

/** All of a show that a song's messages, and what is said of them, depend on beside the song itself. */
export type Surroundings = Pick<Show, 'units' | 'ports' | 'tones' | 'moves' | 'openingToneId' | 'tolerance'>;

export const surroundingsOf = ({ units, ports, tones, moves, openingToneId, tolerance }: Show): Surroundings => ({
  units,
  ports,
  tones,
  moves,
  openingToneId,
  tolerance,
});

/** Whether what was made of a song under the one is good under the other: shows share what an edit did not touch. */
export const sameSurroundings = (a: Surroundings, b: Surroundings): boolean =>
  a.units === b.units &&
  a.ports === b.ports &&
  a.tones === b.tones &&
  a.moves === b.moves &&
  a.openingToneId === b.openingToneId &&
  a.tolerance === b.tolerance;
