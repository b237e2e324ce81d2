import type { Millis } from '../time';

/** How a late change can be mended, and by how much. */
export interface LateFix {
  readonly how: 'pre-roll' | 'shift' | 'sent' | 'port' | 'thinner';
  readonly millis: Millis;
  readonly port: string;
}

export type LateCauseData =
  /** `on` is the unit whose message it is: the late one, or the one that relays to it. */
  | { readonly kind: 'start' | 'previous'; readonly on: string; readonly needs: Millis; readonly has: Millis }
  | { readonly kind: 'cable'; readonly port: string; readonly others: readonly string[] }
  | { readonly kind: 'unknown' };
