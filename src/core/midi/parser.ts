import { dataLength, type Bytes } from './messages';

/** Longest system exclusive message that is kept; what is longer is dropped as a whole. */
const EXCLUSIVE_LIMIT = 1 << 20;

/** Bytes as whole messages, one after the other; undefined where they are not just that. */
export function wholeMessages(bytes: Bytes): Bytes[] | undefined {
  const messages: Bytes[] = [];
  const parser = new StreamParser((message) => messages.push(message));
  for (const byte of bytes) parser.push(byte);
  // Running status would be filled in, stray data dropped: neither is what was written.
  return messages.reduce((sum, m) => sum + m.length, 0) === bytes.length ? messages : undefined;
}

/**
 * Cuts a stream of bytes into whole messages, as a receiver does: running status is
 * filled in, real-time bytes may come anywhere, data without a status is dropped.
 */
export class StreamParser {
  private status = 0;
  private data: number[] = [];
  private exclusive: number[] | undefined;

  constructor(private readonly onMessage: (message: Bytes) => void) {}

  push(byte: number): void {
    if (byte >= 0xf8) {
      this.onMessage([byte]);
    } else if (byte >= 0x80) {
      this.startWith(byte);
    } else if (this.exclusive) {
      if (this.exclusive.length < EXCLUSIVE_LIMIT) this.exclusive.push(byte);
    } else if (this.status !== 0) {
      this.data.push(byte);
      this.finish();
    }
  }

  private startWith(byte: number): void {
    if (this.exclusive && byte === 0xf7 && this.exclusive.length < EXCLUSIVE_LIMIT) {
      this.onMessage([...this.exclusive, 0xf7]);
    }
    // Any other status byte cuts an unfinished exclusive message off (MIDI 1.0, system exclusive).
    this.exclusive = undefined;
    this.data = [];
    this.status = 0;
    if (byte === 0xf0) {
      this.exclusive = [0xf0];
    } else if (byte !== 0xf7 && byte !== 0xf4 && byte !== 0xf5) {
      this.status = byte;
      this.finish();
    }
  }

  private finish(): void {
    if (this.data.length < dataLength(this.status)) return;
    this.onMessage([this.status, ...this.data]);
    this.data = [];
    // System common messages have no running status.
    if (this.status >= 0xf0) this.status = 0;
  }
}
