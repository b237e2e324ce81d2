import type { Millis } from '../time';

export type LateCauseData =
  /** `on` is the unit whose message it is: the late one, or the one that relays to it. */
  | { readonly kind: 'start' | 'previous'; readonly on: string; readonly needs: Millis; readonly has: Millis }
  | { readonly kind: 'cable'; readonly port: string; readonly others: readonly string[] }
  | { readonly kind: 'unknown' };
