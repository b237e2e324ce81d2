import type { Micros } from '../time';
import type { Bytes } from './messages';

export type Cable = 'din' | 'usb';

/** 31,250 baud, ten bits a byte (MIDI 1.0, 5-pin DIN electrical specification). */
export const DIN_BYTE_MICROS = 320;
/** Full-speed USB moves data once a frame; within the frame a MIDI message costs as good as nothing. */
export const USB_FRAME_MICROS = 1000;

/** How a cable carries bytes: how long each byte keeps it busy, and how much later the last one is there. */
export interface CableTiming {
  readonly byteMicros: Micros;
  readonly latency: Micros;
}

export const CABLE_TIMING: Readonly<Record<Cable, CableTiming>> = {
  din: { byteMicros: DIN_BYTE_MICROS, latency: 0 },
  usb: { byteMicros: 0, latency: USB_FRAME_MICROS },
};

/** Time that messages take on a 5-pin cable one after the other, with or without running status. */
export function dinMicros(messages: readonly Bytes[], runningStatus = false): Micros {
  let bytes = 0;
  let last = -1;
  for (const message of messages) {
    const status = message[0]!;
    bytes += message.length - (runningStatus && status === last && status < 0xf0 ? 1 : 0);
    // System common and exclusive messages cancel running status; real-time ones leave it alone.
    if (status < 0xf8) last = status;
  }
  return bytes * DIN_BYTE_MICROS;
}

/** Bytes that leave on a port at a time, and what for. */
export interface TimedBytes {
  /** When the first byte leaves, from tick 0 of the song. */
  readonly at: Micros;
  readonly portId: string;
  readonly bytes: Bytes;
  readonly cueId: string;
  /** Empty for what is meant for everything on the port. */
  readonly unitId: string;
}
