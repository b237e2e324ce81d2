import type { Show } from '../../core/show';
import type { Lantern } from '../../core/simulate';
import { lateWords, said } from '../../wording';
import type { PlaybackNews } from '../../playback';
import type { PortsState } from './ports';

/** What is known of this computer that somebody on stage has to know. */
export interface Troubles extends Pick<PortsState, 'lost' | 'refusing' | 'late'> {
  /** Why nothing is heard that should be; null where all is well. */
  readonly sound: string | null;
  /** Time code that leads what plays has fallen silent. */
  readonly codeLost: boolean;
  /** What somebody has to know of the other computer; null for nothing, and where there is none. */
  readonly pair: string | null;
  /** The storage takes nothing: after a crash nobody would know where the show was. */
  readonly forgets: boolean;
}

/** Whether time code that leads what plays has fallen silent. */
export const isCodeLost = ({ playing, isLed, code }: Pick<PlaybackNews, 'playing' | 'isLed' | 'code'>): boolean =>
  playing && isLed && code?.how === 'lost';

/** What is wrong between this computer and the other one; null where each knows of the other. */
export function pairTrouble({ pair }: Pick<PlaybackNews, 'pair'>): string | null {
  if (!pair) return null;
  if (pair.leads) return pair.other === 'there' ? null : said.secondGone();
  if (pair.other !== 'there') return said.otherLost();
  return pair.ready ? null : said.notReady();
}

/** What somebody on stage has to know is wrong, in one line: what is gone now before what will go wrong. */
export function stageWrong(
  show: Show,
  mark: Lantern,
  { lost, refusing, late, sound, codeLost, pair, forgets }: Troubles,
): string | null {
  const names = (ids: readonly string[]): string =>
    show.ports
      .filter((p) => ids.includes(p.id))
      .map((p) => p.name)
      .join(', ');
  if (pair !== null) return pair;
  if (names(lost) !== '') return `${names(lost)}: the real port is not connected.`;
  if (names(refusing) !== '') return `${names(refusing)}: the real port takes no messages.`;
  if (late) return lateWords(late);
  if (codeLost) return said.codeSilent();
  if (sound !== null) return sound;
  if (mark === 'cracked') return said.doesNotLand();
  return forgets ? said.forgets() : null;
}
