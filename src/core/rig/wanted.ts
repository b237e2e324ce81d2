import type { Bytes } from '../midi';
import type { Micros } from '../time';
import type { UnitAim } from './unitState';

/** What a cue wants of one unit, as the show says it: the question that a dry run answers. */
export interface Wanted {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  readonly landing: 'complete' | 'sent';
  /** Relayed by another unit. Of a change that is sent on its beat, `due` includes the time that this takes. */
  readonly relayed: boolean;
  /** How much longer than it needs the unit may be waited for: of a change that is sent on its beat, that long is still on time. */
  readonly guard: Micros;
  readonly aim:
    /** With `reload` the preset has to be loaded once more; that it is on already does not count. */
    | { readonly kind: 'state'; readonly state: UnitAim; readonly reload: boolean }
    | { readonly kind: 'bytes'; readonly bytes: Bytes }
    /** The unit has the tempo: from one beat (of taps) or quarter (of a clock) to the next so long. */
    | { readonly kind: 'tempo'; readonly by: 'taps' | 'clock'; readonly interval: Micros };
}
