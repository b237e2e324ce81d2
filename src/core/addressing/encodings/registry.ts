import { z } from 'zod';
import type { Bytes, Message } from '../../midi';
import type { Deep } from '../readonly';
import { RESERVED_CONTROLS } from './carrier';
import { continuousEncoding, continuousEncodingSchema } from './continuousEncoding';
import {
  NO_MEMORY,
  type Claim,
  type ControlMemory,
  type Decoded,
  type EncodingKind,
  type ValueRange,
} from './encoding';
import { exclusiveEncoding, exclusiveEncodingSchema, exclusiveTokens } from './exclusiveEncoding';
import { flipEncoding, flipEncodingSchema } from './flipEncoding';
import { fourteenBitEncoding, fourteenBitEncodingSchema } from './fourteenBitEncoding';
import { indexEncoding, indexEncodingSchema } from './indexEncoding';
import { momentaryEncoding, momentaryEncodingSchema } from './momentaryEncoding';
import { noteEncoding, noteEncodingSchema } from './noteEncoding';
import { noteTableEncoding, noteTableEncodingSchema } from './noteTableEncoding';
import { nrpnEncoding, nrpnEncodingSchema } from './nrpnEncoding';
import { programEncoding, programEncodingSchema } from './programEncoding';
import { programTableEncoding, programTableEncodingSchema } from './programTableEncoding';
import { scaleProblem, type ScaleProblem } from './scale';
import { setSwitchEncoding, setSwitchEncodingSchema } from './setSwitchEncoding';
import { tableEncoding, tableEncodingSchema } from './tableEncoding';
import { tapEncoding, tapEncodingSchema } from './tapEncoding';
import { zonesEncoding, zonesEncodingSchema } from './zonesEncoding';

export const encodingSchema = z.discriminatedUnion('kind', [
  indexEncodingSchema,
  zonesEncodingSchema,
  tableEncodingSchema,
  setSwitchEncodingSchema,
  flipEncodingSchema,
  momentaryEncodingSchema,
  tapEncodingSchema,
  continuousEncodingSchema,
  fourteenBitEncodingSchema,
  nrpnEncodingSchema,
  noteEncodingSchema,
  noteTableEncodingSchema,
  programEncodingSchema,
  programTableEncodingSchema,
  exclusiveEncodingSchema,
]);

export type Encoding = Deep<z.infer<typeof encodingSchema>>;

type Kinds = { readonly [K in Encoding['kind']]: EncodingKind<Extract<Encoding, { kind: K }>> };

const KINDS: Kinds = {
  index: indexEncoding,
  zones: zonesEncoding,
  table: tableEncoding,
  'set-switch': setSwitchEncoding,
  flip: flipEncoding,
  momentary: momentaryEncoding,
  tap: tapEncoding,
  continuous: continuousEncoding,
  'fourteen-bit': fourteenBitEncoding,
  nrpn: nrpnEncoding,
  note: noteEncoding,
  'note-table': noteTableEncoding,
  program: programEncoding,
  'program-table': programTableEncoding,
  exclusive: exclusiveEncoding,
};

/** The kind that an encoding is of. The cast is sound: the table is keyed by the same `kind`. */
const kindOf = (encoding: Encoding): EncodingKind<Encoding> =>
  KINDS[encoding.kind] as unknown as EncodingKind<Encoding>;

export const encodingKinds = Object.keys(KINDS) as Encoding['kind'][];

/**
 * The messages that set a control to a value, in the order in which they have to leave. `channel` is 1 to 16. Throws
 * RangeError for a value outside `valueRange`.
 */
export const encodeValue = (encoding: Encoding, channel: number, value: number): Bytes[] =>
  kindOf(encoding).encode(encoding, channel, value);

/** Which message of a value takes effect: a note when it is struck, everything else once its last one is there. */
export const effectiveMessage = ({ kind }: Encoding, messages: readonly Bytes[]): number =>
  kind === 'note' || kind === 'note-table' ? 0 : messages.length - 1;

/**
 * What a receiver makes of a message, stray values included. `memory` is what it received before, which data entry
 * needs (MIDI 1.0, registered parameters).
 */
export const decodeValue = (encoding: Encoding, message: Message, memory: ControlMemory = NO_MEMORY): Decoded =>
  kindOf(encoding).decode(encoding, message, memory);

/** The values that a control takes, in its own unit (options from 0, per cent, dB). */
export const valueRange = (encoding: Encoding): ValueRange => kindOf(encoding).range(encoding);

/** The control numbers, notes and programs that an encoding occupies on its channel. */
export const encodingClaims = (encoding: Encoding): readonly Claim[] => kindOf(encoding).claims(encoding);

/** Whether a control has values between two values, so that it may be swept. */
export const isContinuous = (encoding: Encoding): boolean => kindOf(encoding).continuous;

/** What the unit keeps of a message: its value, the other of two states, or nothing. */
export const keepsOf = (encoding: Encoding): EncodingKind<Encoding>['keeps'] => kindOf(encoding).keeps;

/** Whether a control is one of two states: on or off, pressed or released. */
export const hasTwoStates = (encoding: Encoding): boolean => kindOf(encoding).twoStates ?? false;

/** Whether a control is a switch with a message for on and one for off, which stays as it was set. */
export const isOnOff = (encoding: Encoding): boolean =>
  hasTwoStates(encoding) && !isHeld(encoding) && keepsOf(encoding) === 'value';

/** Whether one of a control's two states holds only while somebody presses. */
export const isHeld = (encoding: Encoding): boolean => kindOf(encoding).held ?? false;

/** Whether each message is a tap, and nothing is kept of it. */
export const isTap = (encoding: Encoding): boolean => keepsOf(encoding) === 'nothing';

/** Whether a control is a figure on a single control number, as a pedal can move it. */
export const isFigure = (encoding: Encoding): encoding is Extract<Encoding, { kind: 'continuous' }> =>
  encoding.kind === 'continuous';

/** The control number that sets a control, of two the coarse one; null where something else sets it. */
export function controlNumberOf(encoding: Encoding): number | null {
  const [claim] = encodingClaims(encoding);
  return claim?.on === 'control' ? claim.number : null;
}

/** The template of a control that is set by system exclusive messages, in one spelling; null for all others. */
export const exclusiveTemplateOf = (encoding: Encoding): string | null =>
  encoding.kind === 'exclusive' ? encoding.template.toLowerCase().replace(/\s+/g, '') : null;

/** The same encoding with room for so many values, where a longer list is all that it takes. */
export function withRoomFor(encoding: Encoding, count: number): Encoding {
  if (fitsRange(encoding, count - 1) || valueRange(encoding).low !== 0) return encoding;
  if (encoding.kind === 'table') {
    const free = Array.from({ length: 128 }, (_, i) => i).find((v) => !encoding.values.includes(v)) ?? 0;
    return { ...encoding, values: [...encoding.values, free] };
  }
  return 'count' in encoding ? { ...encoding, count } : encoding;
}

/** Whether a value is one that the encoding can send. */
export function fitsRange(encoding: Encoding, value: number): boolean {
  const { low, high, step } = valueRange(encoding);
  return value >= low && value <= high && (step === 0 || Number.isInteger(value / step));
}

export type EncodingProblem =
  | { readonly code: 'reserved-number'; readonly number: number }
  | { readonly code: 'past-127'; readonly last: number }
  | { readonly code: 'on-is-off'; readonly on: number; readonly off: number }
  | { readonly code: 'same-value'; readonly value: number }
  | { readonly code: 'template'; readonly template: string }
  | { readonly code: 'template-value'; readonly high: number; readonly most: number }
  | { readonly code: 'checksum-range'; readonly from: number; readonly to: number; readonly length: number }
  | ScaleProblem;

/** What is wrong with an encoding, beyond the shape that its schema checks. */
export function encodingProblems(e: Encoding): EncodingProblem[] {
  const problems: EncodingProblem[] = encodingClaims(e)
    .filter((c) => c.on === 'control' && RESERVED_CONTROLS.has(c.number))
    .map((c) => ({ code: 'reserved-number', number: c.number }));
  const own = ownProblem(e);
  return own ? [...problems, own] : problems;
}

function ownProblem(e: Encoding): EncodingProblem | undefined {
  switch (e.kind) {
    case 'index':
      return pastLast(e.base + e.step * (e.count - 1));
    case 'note':
    case 'program':
      return pastLast(e.first + e.count - 1);
    case 'set-switch':
      return e.on >= e.onFrom === e.off >= e.onFrom ? { code: 'on-is-off', on: e.on, off: e.off } : undefined;
    case 'momentary':
      return e.press === e.release ? { code: 'on-is-off', on: e.press, off: e.release } : undefined;
    case 'table':
    case 'note-table':
    case 'program-table': {
      const twice = e.values.find((v, i) => e.values.indexOf(v) !== i);
      return twice === undefined ? undefined : { code: 'same-value', value: twice };
    }
    case 'continuous':
    case 'fourteen-bit':
      return scaleProblem(e, e.from, e.to);
    case 'nrpn':
      return e.fine || Math.max(e.from, e.to) < 128
        ? scaleProblem(e, e.from, e.to)
        : { code: 'past-127', last: Math.max(e.from, e.to) };
    case 'exclusive': {
      const tokens = exclusiveTokens(e.template);
      if (!tokens) return { code: 'template', template: e.template };
      const most = tokens.includes('hh') ? 16383 : tokens.includes('vv') || tokens.includes('ll') ? 127 : 0;
      if (e.high > most || e.high < e.low) return { code: 'template-value', high: e.high, most };
      const sum = e.checksum;
      if (tokens.includes('ss') !== (sum !== null)) return { code: 'template', template: e.template };
      if (sum && (sum.to < sum.from || sum.to >= tokens.length)) {
        return { code: 'checksum-range', from: sum.from, to: sum.to, length: tokens.length };
      }
      return undefined;
    }
    case 'zones':
    case 'flip':
    case 'tap':
      return undefined;
  }
}

const pastLast = (last: number): EncodingProblem | undefined => (last > 127 ? { code: 'past-127', last } : undefined);

/** Two values are the same to the unit when they become the same bytes. */
export function sameOnTheWire(encoding: Encoding, a: number, b: number): boolean {
  if (a === b) return true;
  // What only turns over has one message for both of its states.
  if (keepsOf(encoding) === 'flip') return false;
  return wireOf(encoding, a) === wireOf(encoding, b);
}

const wires = new WeakMap<Encoding, Map<number, string>>();
/** Values of one encoding that are kept: a sweep has no more. */
const KEPT_VALUES = 4096;

/** What a value becomes on the wire, as text. */
function wireOf(encoding: Encoding, value: number): string {
  let kept = wires.get(encoding);
  if (!kept || kept.size > KEPT_VALUES) wires.set(encoding, (kept = new Map<number, string>()));
  let text = kept.get(value);
  if (text === undefined) kept.set(value, (text = encodeValue(encoding, 1, value).join('/')));
  return text;
}
