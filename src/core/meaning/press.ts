import type { Bytes } from '../midi';
import { heardOf, type Heard } from './reactions';

/** What a switch, pad or key sends when it is pressed, as opposed to when it is released. */
export interface Press {
  readonly bytes: Bytes;
  /** Values, 0 to 127, that count as pressed. */
  readonly low: number;
  readonly high: number;
  /** What it sends when it is released; null where nothing of that was heard. */
  readonly release: Bytes | null;
}

/** So many different values on one number are a pedal or a knob. */
const CONTINUOUS_FROM = 4;
/** MIDI 1.0: switches read values from here on as on. */
const ON_FROM = 64;

/**
 * The press among messages in the order in which they arrived: of what was heard last, by kind, channel and
 * number. A note is pressed by its start. A control is pressed by the higher of its values; one that begins
 * with 0 and comes in pairs is pressed by the 0. Null where nothing was heard that can be pressed.
 */
export function pressOf(messages: readonly Bytes[]): Press | null {
  const all = messages.flatMap((bytes) => {
    const heard = heardOf(bytes);
    return heard ? [{ bytes, heard }] : [];
  });
  const last = all.at(-1);
  if (!last) return null;
  const same = all.filter(({ heard }) => isAlike(heard, last.heard));
  const find = (holds: (heard: Heard) => boolean): Bytes | null => same.findLast((m) => holds(m.heard))?.bytes ?? null;
  const release = find((h) => h.ends);
  if (last.heard.kind === 'note') {
    const bytes = find((h) => !h.ends);
    return bytes && { bytes, low: 1, high: 127, release };
  }
  const values = same.map(({ heard }) => heard.value ?? 127);
  const distinct = new Set(values);
  const high = Math.max(...values);
  const bytesOf = (value: number): Bytes => find((h) => (h.value ?? 127) === value)!;
  if (last.heard.kind === 'program') return { bytes: last.bytes, low: 0, high: 127, release: null };
  if (distinct.size >= CONTINUOUS_FROM) return { bytes: bytesOf(high), low: ON_FROM, high: 127, release: null };
  if (high === 0) return { bytes: last.bytes, low: 0, high: 0, release: null };
  const low = Math.min(...values);
  const isInverted = low === 0 && values[0] === 0 && values.length % 2 === 0;
  if (isInverted) return { bytes: bytesOf(0), low: 0, high: Math.floor((high - 1) / 2), release: bytesOf(high) };
  return {
    bytes: bytesOf(high),
    low: high >= ON_FROM ? ON_FROM : 1,
    high: 127,
    release: distinct.size > 1 ? bytesOf(low) : null,
  };
}

const isAlike = (a: Heard, b: Heard): boolean => a.kind === b.kind && a.channel === b.channel && a.number === b.number;
