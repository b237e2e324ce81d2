import type { Bytes } from '../midi';
import type { Micros } from '../time';
import type { UnitAim } from './unitState';

/** What a cue wants of one unit, as the show says it: the question that a dry run answers. */
export interface Wanted {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  readonly landing: 'complete' | 'sent';
  readonly aim: { readonly kind: 'state'; readonly state: UnitAim } | { readonly kind: 'bytes'; readonly bytes: Bytes };
}
