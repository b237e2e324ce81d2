import type { Lantern } from '../../core/simulate';
import { desk } from '../theme/tokens';

const WORDS: Readonly<Record<Lantern, string>> = {
  hollow: 'not proven',
  lit: 'proven',
  cracked: 'fails',
};

export const lanternWords = (mark: Lantern): string => WORDS[mark];

interface Props {
  readonly mark: Lantern;
  readonly size?: number;
  /** On the dark strip lines are light. */
  readonly night?: boolean;
  /** Left out where words beside it say the same. */
  readonly silent?: boolean;
}

/** The mark: hollow an empty lantern, lit a filled one with rays, cracked one whose glass is split. */
export function LanternMark({ mark, size = 18, night = false, silent = false }: Props) {
  const line = mark === 'cracked' ? (night ? '#ffb39c' : desk.rust) : night ? desk.nightText : desk.ink;
  const glass = { hollow: 'none', lit: desk.lamp, cracked: night ? '#5a2a20' : desk.rustWash }[mark];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke={line}
      strokeWidth={1.7}
      strokeLinejoin="round"
      strokeLinecap="round"
      style={{ flex: 'none', display: 'block' }}
      {...(silent ? { 'aria-hidden': true } : { role: 'img', 'aria-label': WORDS[mark] })}
    >
      {mark === 'lit' && (
        <path
          d="M2.200 10.500h2M2.600 15.800l1.900-.7M19.800 10.500h2M21.400 15.800l-1.900-.7"
          stroke={night ? desk.lamp : desk.lampDeep}
        />
      )}
      <path d="M8.600 6.200V4.900a3.400 3.200 0 0 1 6.800 0v1.300" strokeWidth={1.4} />
      <path d="M6.600 8.200h10.800" strokeWidth={2.2} />
      <path d="M8.200 8.400 7 18.400h10L15.800 8.400z" fill={glass} strokeWidth={1.5} />
      <path d="M5.800 20.800h12.400" strokeWidth={2.2} />
      {mark === 'lit' && size >= 40 && (
        <path
          d="M12 16.400c-1.600 0-2.300-1-2.300-2.200 0-1.600 1.700-2.300 2.300-4.200.6 1.900 2.300 2.600 2.300 4.200 0 1.200-.7 2.200-2.300 2.200z"
          fill={night ? desk.night : '#fff7df'}
          stroke="none"
        />
      )}
      {mark === 'cracked' && <path d="M13.800 8.600l-2.800 3.200 2.600 1.900-3.200 4.500" strokeWidth={1.8} />}
    </svg>
  );
}
