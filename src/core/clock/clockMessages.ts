import type { Bytes } from '../midi';
import { TICKS_PER_QUARTER, type Ticks } from '../time';

/** Clocks to a quarter note (MIDI 1.0, system real-time messages). */
export const CLOCKS_PER_QUARTER = 24;
/** Ticks from one clock to the next. */
export const CLOCK_TICKS: Ticks = TICKS_PER_QUARTER / CLOCKS_PER_QUARTER;

/** Timing clock, start, continue and stop (MIDI 1.0, system real-time messages). */
export const CLOCK: Bytes = [0xf8];
export const START: Bytes = [0xfa];
export const CONTINUE: Bytes = [0xfb];
export const STOP: Bytes = [0xfc];

/** Song position pointer (MIDI 1.0, system common messages): counts sixteenths, each of six clocks, in 14 bits. */
const SONG_POSITION = 0xf2;
export const POSITION_TICKS: Ticks = CLOCK_TICKS * 6;
const POSITION_LIMIT = 0x3fff;

/** The song position of a sixteenth, counted from 0 at the song's start; null beyond what 14 bits hold. */
export const songPosition = (sixteenth: number): Bytes | null =>
  sixteenth > POSITION_LIMIT ? null : [SONG_POSITION, sixteenth & 0x7f, sixteenth >> 7];

/** A message that leads whatever follows a clock. */
export type ClockMessage =
  { readonly kind: 'clock' | 'start' | 'continue' | 'stop' } | { readonly kind: 'position'; readonly tick: Ticks };

/** What a message says to whatever follows a clock; null for any other message. */
export function clockMessage(bytes: Bytes): ClockMessage | null {
  const [status, low = 0, high = 0] = bytes;
  switch (status) {
    case CLOCK[0]:
      return { kind: 'clock' };
    case START[0]:
      return { kind: 'start' };
    case CONTINUE[0]:
      return { kind: 'continue' };
    case STOP[0]:
      return { kind: 'stop' };
    case SONG_POSITION:
      return { kind: 'position', tick: (low + high * 128) * POSITION_TICKS };
    default:
      return null;
  }
}

/** Whether a message is real-time (F8 to FF) or a song position: without a channel, for every unit on the cable. */
export const isForEveryUnit = (bytes: Bytes): boolean => bytes[0]! >= 0xf8 || bytes[0] === SONG_POSITION;
