import { CABLE_TIMING, DIN_BYTE_MICROS, type Bytes, type Cable } from '../midi';
import type { Micros } from '../time';

/** How bytes reach a unit: the cable that they leave on, and the units that pass them on. */
export interface Path {
  readonly portId: string;
  readonly cable: Cable;
  readonly hops: number;
  /** Some unit on the port forwards what it receives: its out cable is a 5-pin one, and limits the pace of the port. */
  readonly thru: boolean;
  /** What the port adds to the length of a message, in microseconds, at the worst. */
  readonly portDelay: Micros;
  /** The same with what the thrus on the way add. */
  readonly delay: Micros;
  /** How much less that may be. */
  readonly spread: Micros;
}

/** Whether the first out cable behind the port, and not the port's own, is what messages wait for. */
const pacedByThru = ({ cable, thru }: Path): boolean => cable === 'usb' && thru;

/** How long a message keeps busy what the messages of its port wait for. */
export const durationOf = (path: Path, bytes: Bytes): Micros =>
  bytes.length * (pacedByThru(path) ? DIN_BYTE_MICROS : CABLE_TIMING[path.cable].byteMicros);

/** Out cables that a message still has to pass, whole, after it has left that behind. */
const hopsLeft = (path: Path): number => path.hops - (pacedByThru(path) ? 1 : 0);

/** From then on to its arrival at the unit; a unit passes a message on when it has it whole. */
export const latencyOf = (path: Path, bytes: Bytes): Micros =>
  CABLE_TIMING[path.cable].latency + hopsLeft(path) * bytes.length * DIN_BYTE_MICROS + path.delay;

/**
 * The least time between the ends of two messages to a unit, so that the second does not wait
 * in a thru until the first, a longer one, is through.
 */
export function thruGap(path: Path, first: Bytes, second: Bytes): Micros {
  const hops = hopsLeft(path);
  if (hops < 1) return 0;
  const longer = Math.max(0, first.length - second.length);
  return (first.length + (hops - 1) * longer) * DIN_BYTE_MICROS;
}
