import type { z } from 'zod';
import type { Bytes, Message } from '../../midi';

/** Values that an encoding can take. `step` 0 is a line without steps. */
export interface ValueRange {
  readonly low: number;
  readonly high: number;
  readonly step: number;
}

/**
 * One kind of encoding: how a control's value becomes bytes and back. A new kind is one
 * file with one of these, entered in the registry.
 */
export interface EncodingKind<E extends { kind: string }> {
  readonly kind: E['kind'];
  readonly schema: z.ZodType<E>;
  /** A selector stands still between two values; only continuous kinds may be swept. */
  readonly continuous: boolean;
  readonly range: (encoding: E) => ValueRange;
  /** The number that the encoding listens on, for finding two functions on one number. */
  readonly number: (encoding: E) => number;
  /** Messages for a value. Throws RangeError outside `range`. */
  readonly encode: (encoding: E, channel: number, value: number) => Bytes[];
  /** The value that a receiver makes of a message, stray values included; undefined if it is not for this control. */
  readonly decode: (encoding: E, message: Message) => number | undefined;
}

export function outside(what: string, value: number, { low, high }: ValueRange): RangeError {
  return new RangeError(`${what} takes ${low} to ${high}, not ${value}`);
}
