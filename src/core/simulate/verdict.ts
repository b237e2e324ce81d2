import type { IgnoredWhy, TraceEntry } from './trace';
import type { UnitState } from '../rig';
import type { Margin } from './margins';
import type { Bytes } from '../midi';
import type { Micros, Millis } from '../time';

/** How far from its due time a change may land and still be on time. */
export interface Tolerance {
  readonly after: Millis;
  readonly before: Millis;
}

export const DEFAULT_TOLERANCE: Tolerance = { after: 2, before: 250 };

export type Outcome = 'on-time' | 'early' | 'late' | 'never';

export type Reason =
  | { readonly kind: 'as-wanted' }
  /** Nothing had to change: the unit was like this already. */
  | { readonly kind: 'already' }
  /** `arrived` counts from the due time; `takes` is from there to the effect. */
  | { readonly kind: 'arrived-late'; readonly arrived: Micros; readonly takes: Millis }
  | { readonly kind: 'too-early' }
  | { readonly kind: 'ignored'; readonly why: IgnoredWhy; readonly bytes: Bytes }
  | { readonly kind: 'nothing-arrived' }
  | { readonly kind: 'other-state'; readonly state: UnitState }
  | { readonly kind: 'replaced' }
  /** It lands where all units are as quick as usual, and where all are at their worst, but a mix of both can lose it: `by` is what is missing. */
  | { readonly kind: 'mix'; readonly by: Micros }
  /** It took the tempo to be another: intervals in microseconds; null when it has none. */
  | {
      readonly kind: 'other-tempo';
      readonly by: 'taps' | 'clock';
      readonly wanted: Micros;
      readonly heard: Micros | null;
      readonly from: number;
    };

export interface Verdict {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  readonly outcome: Outcome;
  /** From due to complete; negative is early. Null where it never came. */
  readonly offset: Micros | null;
  readonly reason: Reason;
  /** What it bears beyond the worst times, where it is on time at them; null where nobody asked, and of what misses. */
  readonly margin: Margin | null;
}

export interface DryRun {
  readonly verdicts: readonly Verdict[];
  readonly trace: readonly TraceEntry[];
}
