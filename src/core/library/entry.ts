import { z } from 'zod';
import { newControl, linear, onOff, profileSchema, type Control, type Profile } from '../addressing';

/** A generic kind of unit to start a map from. All are invented. */
export const libraryEntrySchema = z.strictObject({
  id: z.string().min(1).max(64),
  /** What kind of unit it is, in a few words. */
  about: z.string().max(200),
  profile: profileSchema,
  /** What it is like with other firmware. */
  versions: z.array(profileSchema).max(32),
});

export const librarySchema = z.array(libraryEntrySchema);

export interface LibraryEntry {
  readonly id: string;
  readonly about: string;
  readonly profile: Profile;
  readonly versions: readonly Profile[];
}

/** A control with the two states off and on, 0 and 127 on the wire, off at rest. */
export const toggle = (id: string, name: string, number: number): Control =>
  newControl(id, name, onOff(number), { rest: 0 });

/** A control from 0 to 100 %, linear on the wire. `rest` is in per cent. */
export const percent = (id: string, name: string, number: number, rest: number): Control =>
  newControl(id, name, linear(number, 0, 100, '%'), { rest });

/** A control in dB, linear on the wire, 0 dB at rest. */
export const decibels = (id: string, name: string, number: number, low: number, high: number): Control =>
  newControl(id, name, linear(number, low, high, 'dB'), { rest: 0 });

/** A list of named options on one control number, counted from 0. */
export const options = (id: string, name: string, number: number, names: readonly string[]): Control =>
  newControl(id, name, { kind: 'index', number, base: 0, step: 1, count: names.length }, { options: names, rest: 0 });

/** A control that takes taps of the tempo: 127 for each. */
export const tap = (id: string, number: number): Control =>
  newControl(id, 'Tap tempo', { kind: 'tap', number, values: [127] });

/** Names from "1" on, for variants that have none of their own. */
export const numbered = (count: number): string[] => Array.from({ length: count }, (_, i) => String(i + 1));
