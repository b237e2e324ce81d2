import type { Bytes } from '../midi';
import type { UnitState } from '../rig';
import type { Micros } from '../time';
import type { Tail } from './tails';
import type { HeardTempo } from './tempoEar';

/** Something that a simulated rig saw. */
export type TraceEntry =
  | { readonly kind: 'arrived'; readonly at: Micros; readonly unitId: string; readonly bytes: Bytes }
  | {
      readonly kind: 'ignored';
      readonly at: Micros;
      readonly unitId: string;
      readonly bytes: Bytes;
      readonly why: IgnoredWhy;
    }
  | { readonly kind: 'loading'; readonly at: Micros; readonly unitId: string; readonly until: Micros }
  | { readonly kind: 'changed'; readonly at: Micros; readonly unitId: string; readonly state: UnitState }
  /** An effect that sounded was cut, or was left to ring. */
  | { readonly kind: 'tail'; readonly at: Micros; readonly unitId: string; readonly tail: Tail }
  /** What a unit takes the tempo to be, from taps or from a clock. */
  | { readonly kind: 'tempo'; readonly at: Micros; readonly unitId: string; readonly tempo: HeardTempo }
  /** Bytes came back to the computer, on the in side of a port. */
  | {
      readonly kind: 'returned';
      readonly at: Micros;
      readonly portId: string;
      readonly bytes: Bytes;
      readonly unitId: string;
    }
  /** A unit that was set to learn took a message in. */
  | { readonly kind: 'learnt'; readonly at: Micros; readonly unitId: string; readonly bytes: Bytes }
  | { readonly kind: 'lost'; readonly at: Micros; readonly portId: string; readonly bytes: Bytes };

export type IgnoredWhy = 'other-channel' | 'settling' | 'not-understood' | 'no-such-slot';
