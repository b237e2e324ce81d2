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
        <path d="M2.200 10.500h2M2.600 15.800l1.900-.7M19.800 10.500h2M21.400 15.800l-1.900-.7" stroke={night ? desk.lamp : desk.lampDeep} />
      )}
      <path d="M9.300 4.600a2.700 2.400 0 0 1 5.400 0" />
      <path d="M7.200 7.600h9.600l-1.700-2.800H8.900z" fill={mark === 'hollow' ? 'none' : line} />
      <path d="M8 7.600 6.900 17.800h10.200L16 7.600z" fill={glass} />
      <path d="M6.200 20.400h11.600" />
      {mark === 'cracked' && <path d="M13.600 8l-2.600 3.300 2.500 1.700-3 4.500" strokeWidth={1.9} />}
    </svg>
  );
}
