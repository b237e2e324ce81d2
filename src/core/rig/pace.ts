import { soonestOf, worstOf, type Profile, type Time } from '../addressing';
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
  /** What passing a message on takes, beside the length of the message. */
  readonly thru: Micros;
  /** Recalls of single slots that take another time, by slot index. */
  readonly slots: Readonly<Record<number, Micros>>;
}

/** How quick a unit is: at its soonest, as usual, at its worst. */
export type Extreme = 'soonest' | 'typical' | 'worst';

export type Paces = Readonly<Record<Extreme, Pace>>;

const figure: Readonly<Record<Extreme, (time: Time) => number>> = {
  soonest: soonestOf,
  typical: (time) => time.typical,
  worst: worstOf,
};

/** A time of the map in microseconds. */
export const microsOf = (time: Time, at: Extreme): Micros => millisToMicros(figure[at](time));

/** The paces of a unit by the times of its map, and of its slots that have one of their own. */
export function pacesOf(
  { times }: Pick<Profile, 'times'>,
  slots: readonly { readonly index: number; readonly recall: Time | null }[] = [],
): Paces {
  const own = slots.filter((slot) => slot.recall !== null);
  const at = (extreme: Extreme): Pace => ({
    recall: microsOf(times.recall, extreme),
    variant: microsOf(times.variant, extreme),
    control: microsOf(times.control, extreme),
    settle: microsOf(times.settle, extreme),
    thru: microsOf(times.thru, extreme),
    slots: Object.fromEntries(own.map(({ index, recall }) => [index, microsOf(recall!, extreme)])),
  });
  return { soonest: at('soonest'), typical: at('typical'), worst: at('worst') };
}

/** What knows how long it takes: a unit as the wires know it. */
interface Paced {
  readonly pace: Pace;
}

/**
 * Delay from a message's arrival to its audible effect, in microseconds (docs/architecture.md, from a cue to a verdict).
 * What a variant or control does is heard no sooner than a preset that loads meanwhile: whoever asks takes the later of
 * the two. `slot` is the index of the slot that a recall calls, where it is known.
 */
export const effectAfter = ({ pace }: Paced, called: Called, slot?: number | null): Micros =>
  (called === 'recall' && slot !== undefined && slot !== null ? pace.slots[slot] : undefined) ?? pace[called];

/** Delay from a recall's arrival until the unit accepts the next message, in microseconds. */
export const acceptsAgainAfter = ({ pace }: Paced): Micros => pace.settle;
