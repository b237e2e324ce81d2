import type { Bytes } from '../midi';
import type { Micros } from '../time';

/** Frames a second that MIDI time code has words for (MIDI 1.0, MIDI time code), by their two bits. */
export const CODE_RATES = ['24', '25', '29.97', '30'] as const;
export type CodeRate = (typeof CODE_RATES)[number];

/** An hour, a minute, a second and a frame of a time code, each from 0. */
export interface CodeLabel {
  readonly hours: number;
  readonly minutes: number;
  readonly seconds: number;
  readonly frames: number;
}

/** Frames that a label counts to a second; at 29.97 the count leaves labels out instead ("drop frame"). */
export const labelFrames = (rate: CodeRate): number => (rate === '29.97' ? 30 : Number(rate));

/** How long a frame is, in microseconds. */
export const frameMicros = (rate: CodeRate): Micros => (rate === '29.97' ? 1_001_000 / 30 : 1e6 / Number(rate));

/** Frames in a day, after which every time code begins again. */
const DAY_SECONDS = 24 * 3600;
const TEN_MINUTES = 17_982;
const DROP_MINUTE = 1798;

/** Frames from midnight to a label. At 29.97 the first two labels of each minute are left out, but for every tenth minute's (SMPTE 12M). */
export function frameOf({ hours, minutes, seconds, frames }: CodeLabel, rate: CodeRate): number {
  const plain = ((hours * 60 + minutes) * 60 + seconds) * labelFrames(rate) + frames;
  if (rate !== '29.97') return plain;
  const all = hours * 60 + minutes;
  return plain - 2 * (all - Math.floor(all / 10));
}

/** The label of a frame, counted from midnight. A count below it or beyond a day comes round. */
export function labelOf(frame: number, rate: CodeRate): CodeLabel {
  const fps = labelFrames(rate);
  const day = rate === '29.97' ? TEN_MINUTES * 144 : DAY_SECONDS * fps;
  const within = ((Math.floor(frame) % day) + day) % day;
  const plain = rate === '29.97' ? within + left(within) : within;
  const seconds = Math.floor(plain / fps);
  return {
    hours: Math.floor(seconds / 3600),
    minutes: Math.floor(seconds / 60) % 60,
    seconds: seconds % 60,
    frames: plain % fps,
  };
}

/** Labels that were left out up to a frame at 29.97. */
function left(frame: number): number {
  const tens = Math.floor(frame / TEN_MINUTES);
  const rest = frame % TEN_MINUTES;
  return tens * 18 + (rest < 2 ? 0 : 2 * Math.floor((rest - 2) / DROP_MINUTE));
}

/** Time from midnight to a label, as the clock on the wall has it. */
export const codeMicros = (label: CodeLabel, rate: CodeRate): Micros => frameOf(label, rate) * frameMicros(rate);

const two = (n: number): string => String(n).padStart(2, '0');

/** A label as it is written: 01:00:00:00, at 29.97 with a semicolon before the frame. */
export const codeText = ({ hours, minutes, seconds, frames }: CodeLabel, rate: CodeRate): string =>
  `${two(hours)}:${two(minutes)}:${two(seconds)}${rate === '29.97' ? ';' : ':'}${two(frames)}`;

/**
 * A label from text: hours, minutes, seconds and frames, with colons, semicolons or points; frames may be left out. Null
 * where it is none, has a frame that the rate has not, or one that is left out at 29.97.
 */
export function readCode(text: string, rate: CodeRate): CodeLabel | null {
  const match = /^(\d{1,2})[:.](\d{1,2})[:.](\d{1,2})(?:[:;.](\d{1,2}))?$/.exec(text.trim());
  if (!match) return null;
  const [hours, minutes, seconds, frames] = match.slice(1).map((figure) => Number(figure ?? 0)) as [
    number,
    number,
    number,
    number,
  ];
  if (hours > 23 || minutes > 59 || seconds > 59 || frames >= labelFrames(rate)) return null;
  if (rate === '29.97' && seconds === 0 && frames < 2 && minutes % 10 !== 0) return null;
  return { hours, minutes, seconds, frames };
}

/** Quarter frames that make a whole label (MIDI time code, quarter frame messages). */
export const PIECES = 8;
const QUARTER_FRAME = 0xf1;

/** The quarter frame messages of a label, in the order in which they leave while it runs forwards; they take two frames. */
export function quarterFrames({ hours, minutes, seconds, frames }: CodeLabel, rate: CodeRate): readonly Bytes[] {
  const bits = CODE_RATES.indexOf(rate);
  const nibbles = [
    frames & 15,
    frames >> 4,
    seconds & 15,
    seconds >> 4,
    minutes & 15,
    minutes >> 4,
    hours & 15,
    (hours >> 4) | (bits << 1),
  ];
  return nibbles.map((nibble, piece) => [QUARTER_FRAME, (piece << 4) | nibble]);
}

/** The full message of a label: where a machine stands, or has gone to (MIDI time code, full message). */
export const fullFrame = ({ hours, minutes, seconds, frames }: CodeLabel, rate: CodeRate): Bytes => [
  0xf0,
  0x7f,
  0x7f,
  0x01,
  0x01,
  (CODE_RATES.indexOf(rate) << 5) | hours,
  minutes,
  seconds,
  frames,
  0xf7,
];

/** What a message says of time code. */
export type CodeMessage =
  | { readonly kind: 'piece'; readonly piece: number; readonly nibble: number }
  | { readonly kind: 'full'; readonly label: CodeLabel; readonly rate: CodeRate };

/** What a message says of time code; null for any other message, and for a label that there is not. */
export function codeMessage(bytes: Bytes): CodeMessage | null {
  if (bytes[0] === QUARTER_FRAME && bytes.length === 2) {
    return { kind: 'piece', piece: bytes[1]! >> 4, nibble: bytes[1]! & 15 };
  }
  const [start, real, , code, full, hour = 0, minutes = 0, seconds = 0, frames = 0, end] = bytes;
  if (bytes.length !== 10 || start !== 0xf0 || real !== 0x7f || code !== 1 || full !== 1 || end !== 0xf7) return null;
  return whole(hour >> 5, { hours: hour & 31, minutes, seconds, frames });
}

/** The full message of a label that was put together; null where there is no such label. */
function whole(bits: number, label: CodeLabel): Extract<CodeMessage, { kind: 'full' }> | null {
  const rate = CODE_RATES[bits & 3]!;
  const { hours, minutes, seconds, frames } = label;
  const there = hours < 24 && minutes < 60 && seconds < 60 && frames < labelFrames(rate);
  return there ? { kind: 'full', label, rate } : null;
}

/** The label that eight quarter frames make, by their numbers; null where there is no such label. */
export function fromPieces(nibbles: readonly number[]): { readonly label: CodeLabel; readonly rate: CodeRate } | null {
  const [f = 0, ff = 0, s = 0, ss = 0, m = 0, mm = 0, h = 0, hh = 0] = nibbles;
  return whole(hh >> 1, {
    frames: f | ((ff & 1) << 4),
    seconds: s | ((ss & 3) << 4),
    minutes: m | ((mm & 3) << 4),
    hours: h | ((hh & 1) << 4),
  });
}
