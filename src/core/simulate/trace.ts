import type { Bytes } from '../midi';
import type { UnitState } from '../rig';
import type { Micros } from '../time';
import type { Tail } from './tails';
import type { HeardTempo } from './tempoEar';

/** What else passes on the same cable near a message, in an order that is not settled: what units relay of themselves. */
export interface Crossing {
  /** How much later messages may leave before they meet. */
  slack: Micros;
  /** How much later it comes then. */
  held: Micros;
}

/** What a message goes back to. */
export interface Cause {
  /** Which message that was sent it is, or is relayed because of: its place among them; -1 where nobody said. */
  readonly event: number;
  /** How often it was passed on. */
  readonly passed: number;
  /** How much sooner it may come, where ports and units on its way are at their soonest. */
  readonly spread: Micros;
  /** How long it waited on cables for what units relayed: it comes sooner by up to that, where that comes later. */
  readonly waited: Micros;
  /** What it may meet on a cable; null where nothing else passes there. It is filled in as the rig plays on. */
  readonly crossing: Crossing | null;
  /** How many times of units lie between what was sent and this: 0 for what comes straight from a port. */
  readonly steps: number;
}

/** A preset that begins to load. */
export interface Loading {
  readonly at: Micros;
  /** When it is there, and when the unit accepts messages again. */
  readonly until: Micros;
  readonly accepts: Micros;
  /** The same where the unit is at its soonest. */
  readonly soonestAccepts: Micros;
  readonly cause: Cause;
  /** What chose the bank that the number counts in; null where nothing did. */
  readonly bankBy: Cause | null;
}

/** Something that a simulated rig saw. */
export type TraceEntry =
  | {
      readonly kind: 'arrived';
      /** When the unit took it: later than it came, where it had to wait. */
      readonly at: Micros;
      readonly came: Micros;
      readonly unitId: string;
      readonly bytes: Bytes;
      readonly cause: Cause;
      /** The preset called last before it. */
      readonly behind: Loading | null;
    }
  | {
      readonly kind: 'ignored';
      readonly at: Micros;
      readonly unitId: string;
      readonly bytes: Bytes;
      readonly why: IgnoredWhy;
      readonly cause: Cause;
      readonly behind: Loading | null;
    }
  | { readonly kind: 'loading'; readonly at: Micros; readonly unitId: string; readonly load: Loading }
  | {
      readonly kind: 'changed';
      readonly at: Micros;
      readonly unitId: string;
      readonly state: UnitState;
      readonly cause: Cause;
      /** When it would have changed had no preset been loading. */
      readonly own: Micros;
    }
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
