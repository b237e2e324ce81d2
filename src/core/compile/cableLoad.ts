import { DIN_BYTE_MICROS, type TimedBytes } from '../midi';
import type { Micros } from '../time';

const SECOND: Micros = 1e6;

/** How long a 5-pin cable is busy before any time: messages on one never overlap. */
export class CableLoad {
  private readonly starts: Micros[] = [];
  /** Busy time before each start. */
  private readonly before: Micros[] = [];
  private readonly lengths: Micros[] = [];

  /** `events` of one port, in the order in which they leave. */
  constructor(events: readonly TimedBytes[]) {
    let sum = 0;
    for (const { at, bytes } of events) {
      const length = bytes.length * DIN_BYTE_MICROS;
      this.starts.push(at);
      this.before.push(sum);
      this.lengths.push(length);
      sum += length;
    }
  }

  /** The share, from 0 to 1, of the second that begins at `from`. */
  share(from: Micros): number {
    return (this.busyBefore(from + SECOND) - this.busyBefore(from)) / SECOND;
  }

  /** Each second from 0 to the end; what leaves before the song counts to none. */
  perSecond(end: Micros): number[] {
    return Array.from({ length: Math.max(1, Math.ceil(end / SECOND)) }, (_, i) => this.share(i * SECOND));
  }

  /** The fullest second there is: it begins with a message or ends with one. */
  fullest(): { readonly share: number; readonly from: Micros } {
    let most = { share: 0, from: 0 };
    for (const [i, start] of this.starts.entries()) {
      for (const from of [start, start + this.lengths[i]! - SECOND]) {
        const share = this.share(from);
        if (share > most.share + 1e-9) most = { share, from };
      }
    }
    return most;
  }

  private busyBefore(at: Micros): Micros {
    // The last message that starts before `at`, by halving.
    let low = 0;
    let high = this.starts.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.starts[middle]! < at) low = middle + 1;
      else high = middle;
    }
    const i = low - 1;
    return i < 0 ? 0 : this.before[i]! + Math.min(this.lengths[i]!, at - this.starts[i]!);
  }
}
