import { CLOCKS_PER_QUARTER, clockMessage } from '../clock';
import type { Bytes } from '../midi';
import type { Micros } from '../time';

/** What a unit takes the tempo to be. */
export interface HeardTempo {
  readonly by: 'taps' | 'clock';
  /** From one beat to the next: of taps the beat that was tapped, of a clock a quarter note. */
  readonly interval: Micros;
  /** How many taps or clocks it was taken from. */
  readonly from: number;
}

/** A longer pause begins a new series: 20 beats a minute is the slowest tempo there is, and somewhat more. */
const PAUSE: Micros = 3_300_000;
/** A unit takes the mean of so many taps. */
const TAPS = 4;

/** Measures the tempo that taps give: the mean of the last three intervals. */
export class TapEar {
  private series: Micros[] = [];

  /** Undefined for the first tap of a series. */
  hear(at: Micros): HeardTempo | undefined {
    const before = this.series.at(-1);
    if (before !== undefined && at - before > PAUSE) this.series = [];
    this.series.push(at);
    if (this.series.length > TAPS) this.series.shift();
    const { length } = this.series;
    if (length < 2) return undefined;
    return { by: 'taps', interval: (at - this.series[0]!) / (length - 1), from: length };
  }
}

/** Measures the tempo of a MIDI clock, a quarter note at a time. */
export class ClockEar {
  private count = 0;
  private since: Micros = 0;

  /** A message of a clock, or any other. Gives the tempo with every quarter that is whole. */
  hear(at: Micros, bytes: Bytes): HeardTempo | undefined {
    const kind = clockMessage(bytes)?.kind;
    // After start or continue, the next clock is the first of its quarter.
    if (kind === 'start' || kind === 'continue') this.count = 0;
    if (kind !== 'clock') return undefined;
    if (this.count === 0) {
      this.since = at;
      this.count = 1;
      return undefined;
    }
    if (this.count < CLOCKS_PER_QUARTER) {
      this.count += 1;
      return undefined;
    }
    const interval = at - this.since;
    this.since = at;
    this.count = 1;
    return { by: 'clock', interval, from: CLOCKS_PER_QUARTER };
  }
}
