import { NOWHERE, problem, type Problem } from '../core/problems';
import type { PositionFault } from '../core/time';
import { sentence } from './problems';

/** What is wrong with a place that somebody typed. */
export function placeSentence(fault: PositionFault): string {
  const { code, ...data } = fault;
  return sentence(problem(`position.${code}`, 'error', NOWHERE, data as never) as Problem);
}

/** In how many songs something is used. */
export const songsWords = (count: number): string =>
  count === 0 ? 'in no song yet' : `in ${count} ${count === 1 ? 'song' : 'songs'}`;
