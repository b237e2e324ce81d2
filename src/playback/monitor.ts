import type { Bytes } from '../core/midi';
import { MessageReader, type Direction, type Meaning } from '../core/meaning';
import type { Show } from '../core/show';
import type { Micros } from '../core/time';

/** One message as the monitor lists it. */
export interface MonitorLine {
  readonly number: number;
  readonly at: Micros;
  readonly direction: Direction;
  readonly portId: string;
  readonly bytes: Bytes;
  readonly meanings: readonly Meaning[];
}

/** Lines that are kept; older ones make room. */
export const MONITOR_LINES = 10_000;

/** Notes every message that leaves or arrives, with what it means, and hands them over in batches. */
export class Monitor {
  private reader: MessageReader | undefined;
  private batch: MonitorLine[] = [];
  private count = 0;

  follow(show: Show): void {
    if (this.reader) this.reader.follow(show);
    else this.reader = new MessageReader(show);
  }

  note(direction: Direction, portId: string, at: Micros, bytes: Bytes): void {
    // A hundred a second, each an eighth of a place: whoever looks for a message would find none. Where the code is stands beside the song.
    if (bytes[0] === 0xf1) return;
    const meanings = this.reader?.read(direction, portId, bytes) ?? [];
    this.batch.push({ number: ++this.count, at, direction, portId, bytes, meanings });
    // Nobody who looks sees more than the last of them.
    if (this.batch.length > 2 * MONITOR_LINES) this.batch = this.batch.slice(-MONITOR_LINES);
  }

  /** What was noted since the last time. */
  take(): readonly MonitorLine[] {
    const { batch } = this;
    if (batch.length > 0) this.batch = [];
    return batch.length > MONITOR_LINES ? batch.slice(-MONITOR_LINES) : batch;
  }
}

/** Lines so far with a batch behind them, the oldest gone where there are too many. */
export const withLines = (lines: readonly MonitorLine[], batch: readonly MonitorLine[]): readonly MonitorLine[] =>
  [...lines, ...batch].slice(-MONITOR_LINES);
