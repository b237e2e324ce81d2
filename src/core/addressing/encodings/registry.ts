import { z } from 'zod';
import type { Bytes, Message } from '../../midi';
import { RESERVED_CONTROLS } from './carrier';
import { continuousEncoding, continuousEncodingSchema } from './continuousEncoding';
import type { EncodingKind, ValueRange } from './encoding';
import { indexEncoding, indexEncodingSchema } from './indexEncoding';
import { setSwitchEncoding, setSwitchEncodingSchema } from './setSwitchEncoding';

export const encodingSchema = z.discriminatedUnion('kind', [
  indexEncodingSchema,
  setSwitchEncodingSchema,
  continuousEncodingSchema,
]);

export type Encoding = z.infer<typeof encodingSchema>;

type Kinds = { readonly [K in Encoding['kind']]: EncodingKind<Extract<Encoding, { kind: K }>> };

const KINDS: Kinds = {
  index: indexEncoding,
  'set-switch': setSwitchEncoding,
  continuous: continuousEncoding,
};

/** The kind that an encoding is of. The cast is sound: the table is keyed by the same `kind`. */
const kindOf = (encoding: Encoding): EncodingKind<Encoding> =>
  KINDS[encoding.kind] as unknown as EncodingKind<Encoding>;

export const encodingKinds = Object.keys(KINDS) as Encoding['kind'][];

export const encodeValue = (encoding: Encoding, channel: number, value: number): Bytes[] =>
  kindOf(encoding).encode(encoding, channel, value);

export const decodeValue = (encoding: Encoding, message: Message): number | undefined =>
  kindOf(encoding).decode(encoding, message);

export const valueRange = (encoding: Encoding): ValueRange => kindOf(encoding).range(encoding);

export const encodingNumber = (encoding: Encoding): number => kindOf(encoding).number(encoding);

export const isContinuous = (encoding: Encoding): boolean => kindOf(encoding).continuous;

export type EncodingFault =
  | { readonly code: 'reserved-number'; readonly number: number }
  | { readonly code: 'past-127'; readonly last: number }
  | { readonly code: 'on-is-off'; readonly on: number; readonly off: number }
  | { readonly code: 'flat-range'; readonly low: number; readonly high: number }
  | { readonly code: 'log-through-zero'; readonly low: number; readonly high: number };

/** What is wrong with an encoding, beyond the shape that its schema checks. */
export function encodingFaults(e: Encoding): EncodingFault[] {
  const faults: EncodingFault[] = [];
  if (RESERVED_CONTROLS.has(e.number)) faults.push({ code: 'reserved-number', number: e.number });
  if (e.kind === 'index') {
    const last = e.base + e.step * (e.count - 1);
    if (last > 127) faults.push({ code: 'past-127', last });
  } else if (e.kind === 'set-switch') {
    if (e.on >= e.onFrom === e.off >= e.onFrom) faults.push({ code: 'on-is-off', on: e.on, off: e.off });
  } else {
    if (e.low === e.high || e.from === e.to) faults.push({ code: 'flat-range', low: e.low, high: e.high });
    else if (e.curve === 'logarithmic' && e.low * e.high <= 0) {
      faults.push({ code: 'log-through-zero', low: e.low, high: e.high });
    }
  }
  return faults;
}

/** Two values are the same to the unit when they become the same bytes. */
export function sameOnTheWire(encoding: Encoding, a: number, b: number): boolean {
  if (a === b) return true;
  const first = encodeValue(encoding, 1, a);
  const second = encodeValue(encoding, 1, b);
  return first.length === second.length && first.every((m, i) => m.every((byte, j) => byte === second[i]![j]));
}
