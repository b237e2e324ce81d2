import type { ChannelMessage, Message } from '../midi';
import type { Encoding } from './encodings/registry';

/** What was made of messages that somebody sent to be learnt. */
export interface Learnt {
  /** Null where the message names no channel. */
  readonly channel: number | null;
  readonly encoding: Encoding;
  /** Values that were seen on the number, in order and each once. */
  readonly seen: readonly number[];
}

/** This many different values on one number make it a pedal or a knob, not a switch. */
const CONTINUOUS_FROM = 4;

/**
 * The encoding that messages from a controller speak for: the last number that was moved,
 * and how. The more was moved, the better the guess: a switch is learnt by pressing it
 * twice, a pedal by one full stroke. Undefined where there is nothing to learn from.
 */
export function learn(messages: readonly Message[]): Learnt | undefined {
  const last = messages.findLast((m) => learnable(m));
  if (!last) return undefined;
  switch (last.kind) {
    case 'program':
      return {
        channel: last.channel,
        encoding: { kind: 'program', first: last.program, count: 1 },
        seen: [last.program],
      };
    case 'note-on':
    case 'note-off':
      return learnNote(last.channel, last.note, messages);
    case 'exclusive':
      return learnExclusive(messages);
    case 'control':
      return learnControl(last, controlsOn(messages, last.channel));
    default:
      return undefined;
  }
}

type ControlMessage = Extract<ChannelMessage, { kind: 'control' }>;

const learnable = (m: Message): boolean =>
  m.kind === 'program' ||
  m.kind === 'note-on' ||
  m.kind === 'note-off' ||
  m.kind === 'control' ||
  m.kind === 'exclusive';

const controlsOn = (messages: readonly Message[], channel: number): ControlMessage[] =>
  messages.filter((m): m is ControlMessage => m.kind === 'control' && m.channel === channel);

function learnNote(channel: number, note: number, messages: readonly Message[]): Learnt {
  const on = messages.findLast((m) => m.kind === 'note-on' && m.note === note && m.velocity > 0);
  const velocity = on?.kind === 'note-on' ? on.velocity : 100;
  return { channel, encoding: { kind: 'note', first: note, count: 1, velocity }, seen: [note] };
}

const distinct = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** Where control numbers of a parameter come together, they are one value (MIDI 1.0: NRPN; 14-bit controls). */
function learnControl(last: ControlMessage, all: readonly ControlMessage[]): Learnt {
  const { channel } = last;
  const lastOf = (control: number): number | undefined => all.findLast((m) => m.control === control)?.value;
  const scale = { low: 0, unit: '', curve: 'linear', points: [] } as const;
  if ([6, 38, 98, 99].includes(last.control) && lastOf(99) !== undefined && lastOf(98) !== undefined) {
    const fine = lastOf(38) !== undefined;
    const top = fine ? 16383 : 127;
    const number = lastOf(99)! * 128 + lastOf(98)!;
    const seen = distinct(all.filter((m) => m.control === 6).map((m) => m.value));
    return { channel, encoding: { kind: 'nrpn', number, fine, from: 0, to: top, ...scale, high: top }, seen };
  }
  const coarse = last.control >= 32 && last.control < 64 ? last.control - 32 : last.control;
  if (coarse >= 1 && coarse < 32 && lastOf(coarse) !== undefined && lastOf(coarse + 32) !== undefined) {
    const seen = distinct(all.filter((m) => m.control === coarse).map((m) => m.value));
    const encoding = { kind: 'fourteen-bit', number: coarse, from: 0, to: 16383, ...scale, high: 16383 } as const;
    return { channel, encoding, seen };
  }
  const number = last.control;
  const values = all.filter((m) => m.control === number).map((m) => m.value);
  const seen = distinct(values);
  return { channel, encoding: singleControl(number, values, seen), seen };
}

function singleControl(number: number, values: readonly number[], seen: readonly number[]): Encoding {
  const low = seen[0]!;
  const high = seen.at(-1)!;
  if (seen.length >= CONTINUOUS_FROM) {
    return { kind: 'continuous', number, from: 0, to: 127, low: 0, high: 127, unit: '', curve: 'linear', points: [] };
  }
  if (seen.length === 2) {
    // Read as on from half way between the two, so that what was learnt is what is obeyed.
    return { kind: 'set-switch', number, on: high, off: low, onFrom: Math.floor((low + high) / 2) + 1 };
  }
  if (seen.length === 3) return { kind: 'table', number, values: [...seen] };
  // The same value again and again tells no state apart; once, it may be one end of a switch.
  if (values.length > 1) return { kind: 'tap', number, values: [low] };
  return low >= 64
    ? { kind: 'set-switch', number, on: low, off: 0, onFrom: 64 }
    : { kind: 'set-switch', number, on: 127, off: low, onFrom: 64 };
}

/** Messages alike but for one byte carry a value there; otherwise the last is taken as it stands. */
function learnExclusive(messages: readonly Message[]): Learnt {
  const all = messages.filter((m): m is Extract<Message, { kind: 'exclusive' }> => m.kind === 'exclusive');
  const last = all.at(-1)!.bytes;
  const alike = all.map((m) => m.bytes).filter((b) => b.length === last.length);
  const moving = last.flatMap((_, i) => (alike.some((b) => b[i] !== last[i]) ? [i] : []));
  const at = moving.length === 1 ? moving[0]! : -1;
  const template = last.map((b, i) => (i === at ? 'vv' : b.toString(16).padStart(2, '0'))).join(' ');
  const seen = at < 0 ? [] : distinct(alike.map((b) => b[at]!));
  const encoding: Encoding = { kind: 'exclusive', template, low: 0, high: at < 0 ? 0 : 127, checksum: null };
  return { channel: null, encoding, seen };
}
