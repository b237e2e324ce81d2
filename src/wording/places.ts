import { NOWHERE, problem } from '../core/problems';
import type { Dependents } from '../core/show';
import type { PositionProblem } from '../core/time';
import { sentence } from './problems';

/** What is wrong with a place that somebody typed. */
export function placeSentence(found: PositionProblem): string {
  const { code, ...data } = found;
  return sentence(problem(`position.${code}`, 'error', NOWHERE, data as never));
}

/** In how many songs something is used. */
export const songsWords = (count: number): string =>
  count === 0 ? 'in no song yet' : `in ${count} ${count === 1 ? 'song' : 'songs'}`;

/** What depends on slots that are moved or renamed; empty where nothing does. */
export function dependentsWords({ tones, songs, relays }: Dependents): string {
  const parts = [
    ...(tones > 0 ? [`${tones} ${tones === 1 ? 'tone' : 'tones'} ${songsWords(songs)}`] : []),
    ...(relays > 0 ? [`${relays} relay ${relays === 1 ? 'rule' : 'rules'}`] : []),
  ];
  if (parts.length === 0) return '';
  return `${parts.join(' and ')} ${tones + relays === 1 ? 'depends' : 'depend'} on this and ${tones + relays === 1 ? 'follows' : 'follow'}.`;
}
