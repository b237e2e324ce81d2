import type { Micros } from '../time';
import type { Cause } from './trace';

/** What becomes of a change that goes beyond its margin: it comes late, or not at all. */
export type Becomes = 'late' | 'lost';

/**
 * What a change bears beyond the worst times of the map before it misses, in microseconds; infinite where nothing of
 * the kind makes it miss. (One flat object: a song has thousands.)
 */
export interface Margin {
  /** How much slower every unit may be, all of them at once, and what becomes of the change then. */
  readonly slower: Micros;
  readonly slowerBecomes: Becomes;
  /** How much later messages may leave, each by any time up to that. */
  readonly later: Micros;
  readonly laterBecomes: Becomes;
  /** How much sooner messages may leave before what follows takes its place, so that it is lost; our own clock sends none sooner. */
  readonly sooner: Micros;
}

/** A margin while it is narrowed. */
export type Margins = { -readonly [K in keyof Margin]: Margin[K] };

/** A margin that nothing has narrowed yet: any time slower, any time later. */
export const unlimited = (): Margins => ({
  slower: Number.POSITIVE_INFINITY,
  slowerBecomes: 'late',
  later: Number.POSITIVE_INFINITY,
  laterBecomes: 'late',
  sooner: Number.POSITIVE_INFINITY,
});

/** Units may be slower by no more than this, in microseconds, before it becomes late or lost; changes `margins`. */
export function narrowSlower(margins: Margins, by: Micros, becomes: Becomes): void {
  if (by >= margins.slower) return;
  margins.slower = by;
  margins.slowerBecomes = becomes;
}

/** Messages may leave no later than this, in microseconds, before it becomes late or lost; changes `margins`. */
export function narrowLater(margins: Margins, by: Micros, becomes: Becomes): void {
  if (by >= margins.later) return;
  margins.later = by;
  margins.laterBecomes = becomes;
}

/** How much later messages may leave, where there is so much room, and where they may meet others on a cable and be held up. */
export function roomBeside(room: Micros, { crossing }: Pick<Cause, 'crossing'>): Micros {
  if (!crossing) return room;
  return Math.max(Math.min(room, crossing.slack), room - crossing.held);
}

/** The nearer limits of each. */
export function narrow(margins: Margins, other: Margin): void {
  margins.sooner = Math.min(margins.sooner, other.sooner);
  narrowSlower(margins, other.slower, other.slowerBecomes);
  narrowLater(margins, other.later, other.laterBecomes);
}

/** How little slower or later it takes until a change misses, in microseconds; infinite where nothing makes it miss. */
export const leastOf = ({ slower, later }: Margin): Micros => Math.min(slower, later);

/** A preset that another takes the place of, and that would be relayed if the other came later. */
export interface Stray {
  /** When it would come to the unit that it is relayed to, the time on the cable left out. */
  readonly at: Micros;
  /** How much later messages may leave before it does. */
  readonly later: Micros;
}

/** What messages bear before they are lost, asked by what something goes back to; null for no limit. */
export interface BorneBy {
  /** What would be relayed to the unit, in the order of time. */
  readonly strays: readonly Stray[];
  readonly of: (cause: Pick<Cause, 'event' | 'steps'>) => Margin | null;
}
