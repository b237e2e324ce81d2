import type { Profile } from '../addressing';
import { millisToMicros, type Micros } from '../time';

/** What a message calls in a unit, as far as that takes time. */
export type Called = 'recall' | 'variant' | 'control';

/**
 * How long a unit takes, in microseconds from the arrival of a message's last byte. The only form in which compile,
 * meaning, simulate and playback know a unit's times; the map keeps milliseconds.
 */
export interface Pace extends Readonly<Record<Called, Micros>> {
  /** From a recall's arrival until the unit takes messages again; it may be shorter or longer than the recall itself. */
  readonly settle: Micros;
}

/** The pace of a unit by the times of its map, which are in milliseconds. */
export const paceOf = ({ times: { recall, variant, control, settle } }: Pick<Profile, 'times'>): Pace => ({
  recall: millisToMicros(recall),
  variant: millisToMicros(variant),
  control: millisToMicros(control),
  settle: millisToMicros(settle),
});

/** What knows how long it takes: a unit as the wires know it. */
interface Paced {
  readonly pace: Pace;
}

/**
 * Delay from a message's arrival to its audible effect, in microseconds (docs/architecture.md, from a cue to a verdict). What a variant or control
 * does is heard no sooner than a preset that loads meanwhile: whoever asks takes the later of the two.
 */
export const effectAfter = ({ pace }: Paced, called: Called): Micros => pace[called];

/** Delay from a recall's arrival until the unit accepts the next message, in microseconds. */
export const acceptsAgainAfter = ({ pace }: Paced): Micros => pace.settle;
