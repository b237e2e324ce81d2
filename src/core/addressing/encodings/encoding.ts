import type { z } from 'zod';
import type { Bytes, Message } from '../../midi';

/** Values that an encoding can take. `step` 0 is a line without steps. */
export interface ValueRange {
  readonly low: number;
  readonly high: number;
  readonly step: number;
}

/** Something on a channel that an encoding takes for itself. Two controls that claim the same fight over it. */
export interface Claim {
  readonly on: 'control' | 'note' | 'program' | 'nrpn';
  readonly number: number;
}

/**
 * What a receiver remembers of the control changes that it has heard, by number: parts of
 * a 14-bit value and the parameter that is selected come in messages of their own.
 */
export type ControlMemory = ReadonlyMap<number, number>;

export const NO_MEMORY: ControlMemory = new Map();

/** A message that belongs to a control but changes nothing, such as the release of a note. */
export const HEARD = 'heard';

/** What a receiver makes of a message: a value, nothing that changes it, or not for this control. */
export type Decoded = number | typeof HEARD | undefined;

/**
 * One kind of encoding: how a control's value becomes bytes and back. A new kind is one
 * file with one of these, entered in the registry.
 */
export interface EncodingKind<E extends { kind: string }> {
  readonly kind: E['kind'];
  readonly schema: z.ZodType<E>;
  /** A selector stands still between two values; only continuous kinds may be swept. */
  readonly continuous: boolean;
  /** It is one of two states: 0 and 1. */
  readonly twoStates?: true;
  /** Of two states, one holds only while somebody presses. */
  readonly held?: true;
  /** What the unit keeps: the value that was sent, the other of two at each message, or nothing at all. */
  readonly keeps: 'value' | 'flip' | 'nothing';
  readonly range: (encoding: E) => ValueRange;
  readonly claims: (encoding: E) => readonly Claim[];
  /** Messages for a value, in the order in which they have to go. Throws RangeError outside `range`. */
  readonly encode: (encoding: E, channel: number, value: number) => Bytes[];
  /** What a receiver makes of a message, stray values included. `memory` is what it heard before. */
  readonly decode: (encoding: E, message: Message, memory: ControlMemory) => Decoded;
}

/** The error for a value outside its range: names the encoding, the range and the value. The caller throws it. */
export function outside(what: string, value: number, { low, high }: ValueRange): RangeError {
  return new RangeError(`${what} takes ${low} to ${high}, not ${value}`);
}
