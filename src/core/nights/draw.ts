import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { worstOf, type Time } from '../addressing';
import { millisToMicros, type Micros } from '../time';

/** A source of chance that gives the same for the same name, everywhere. */
export class Chance {
  private readonly from: RandomGenerator;

  constructor(name: string) {
    this.from = xoroshiro128plus(hash(name));
  }

  /** From 0 to 1, that one excluded. */
  next(): number {
    return uniformFloat64(this.from);
  }

  /** Whether something comes about that does once in so many times. */
  once(times: number): boolean {
    return this.next() * times < 1;
  }

  /** Exponentially distributed, with a mean. */
  exponential(mean: number): number {
    return -mean * Math.log(1 - this.next());
  }

  /** Normally distributed about 0 (Box and Muller). */
  normal(deviation: number): number {
    return deviation * Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next());
  }
}

/** 32 bits of a text (FNV-1a). */
function hash(text: string): number {
  let value = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) {
    value ^= text.charCodeAt(i);
    value = Math.imul(value, 0x01000193);
  }
  return value | 0;
}

/** Of so many messages one takes longer than the worst that is known; by how much is drawn with a mean of this share of the spread. */
const BEYOND = 100;
const BEYOND_SHARE = 0.25;

/**
 * One draw of a time, in microseconds. `form` says how good the day is, from 0 (all as usual) to 1 (all at its worst).
 * Measured trials are drawn again, as they are: their day is in them. Any other time lies between typical and worst, one half by
 * the form of the day, the other by chance; 1 in 100 lies beyond the worst.
 */
export function drawTime(time: Time, form: number, chance: Chance): Micros {
  const { typical, trials } = time;
  const worst = worstOf(time);
  const spread = worst - typical;
  if (spread > 0 && chance.once(BEYOND)) return millisToMicros(worst + chance.exponential(spread * BEYOND_SHARE));
  if (time.source === 'measured' && trials.length > 0) {
    return millisToMicros(trials[Math.floor(chance.next() * trials.length)]!);
  }
  return millisToMicros(typical + (spread * (form + chance.next())) / 2);
}
