import { z } from 'zod';
import { controlChange, type Bytes, type Message } from '../../midi';
import { outside, type Claim, type ValueRange } from './encoding';

export const byteSchema = z.int().min(0).max(127);
export const wordSchema = z.int().min(0).max(16383);

/** Control numbers that MIDI 1.0 gives a fixed meaning; a unit's control on one of them would be misread. */
export const RESERVED_CONTROLS: ReadonlySet<number> = new Set([
  0, 6, 32, 38, 96, 97, 98, 99, 100, 101, 120, 121, 122, 123, 124, 125, 126, 127,
]);

/** A value on a control number: what most encodings write and read. */
export const writeControl = (channel: number, number: number, value: number): Bytes[] => [
  controlChange(channel, number, value),
];

/** The value of a message if it is a control change with this number. */
export const readControl = (message: Message, number: number): number | undefined =>
  message.kind === 'control' && message.control === number ? message.value : undefined;

/** The control number that an encoding occupies, so that two controls on one number are found. */
export const claimControl = (e: { readonly number: number }): readonly Claim[] => [{ on: 'control', number: e.number }];

/** Options of a list, counted from 0. */
export const optionRange = (count: number): ValueRange => ({ low: 0, high: count - 1, step: 1 });

/** Throws unless `value` is one of `count` options. */
export function checkOption(what: string, value: number, count: number): void {
  if (!Number.isInteger(value) || value < 0 || value >= count) throw outside(what, value, optionRange(count));
}
