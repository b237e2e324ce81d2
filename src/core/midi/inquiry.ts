import { fromHex, toHex } from './hex';
import type { Bytes } from './messages';

/** MIDI 1.0, universal non-real-time system exclusive: general information, identity request, to every unit. */
export const INQUIRY: Bytes = [0xf0, 0x7e, 0x7f, 0x06, 0x01, 0xf7];

/** Who a unit is, as its answer says it: data bytes as two hexadecimal digits each. */
export interface IdentityText {
  /** One byte, or three that begin with 00. */
  readonly maker: string;
  readonly family: string;
  readonly member: string;
  readonly version: string;
}

/** The device id that an inquiry is for: 0-127, 127 for all. Null for any other message. */
export function inquiredOf(bytes: Bytes): number | null {
  const [start, universal, device, general, request, end] = bytes;
  const is = start === 0xf0 && universal === 0x7e && general === 0x06 && request === 0x01 && end === 0xf7;
  return is && bytes.length === 6 ? device! : null;
}

/** The answer of a unit with a device id. */
export const identityReply = (device: number, { maker, family, member, version }: IdentityText): Bytes => [
  0xf0,
  0x7e,
  device,
  0x06,
  0x02,
  ...fromHex(maker + family + member + version)!,
  0xf7,
];

/** Who answered; null for any other message, and for an answer that is cut short or too long. */
export function identityIn(bytes: Bytes): IdentityText | null {
  if (bytes[0] !== 0xf0 || bytes[1] !== 0x7e || bytes[3] !== 0x06 || bytes[4] !== 0x02) return null;
  const makerBytes = bytes[5] === 0 ? 3 : 1;
  const data = bytes.slice(5, -1);
  if (bytes.at(-1) !== 0xf7 || data.length !== makerBytes + 8 || data.some((b) => b > 127)) return null;
  const text = (from: number, count: number): string => toHex(data.slice(from, from + count)).toUpperCase();
  return {
    maker: text(0, makerBytes),
    family: text(makerBytes, 2),
    member: text(makerBytes + 2, 2),
    version: text(makerBytes + 4, 4),
  };
}
