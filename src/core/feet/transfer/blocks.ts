import type { Bytes } from '../../midi';
import { crc16 } from './crc';

/** MIDI 1.0: the id for what no maker sells; then "HL". */
const HEAD = [0xf0, 0x7d, 0x48, 0x4c] as const;
const END = 0xf7;

/** Bytes of memory in one block: 128 bytes on the cable. */
export const BLOCK_BYTES = 112;
/** What a transfer can hold at most: 14 bits of blocks would hold more. */
export const MEMORY_LIMIT = 1 << 20;

/** Why a controller does not take what it was sent. */
export const REFUSALS = ['incomplete', 'damaged', 'unreadable', 'too-large', 'not-begun'] as const;
export type Refusal = (typeof REFUSALS)[number];

/** One message between computer and controller. `id` tells one transfer from another; numbers are as in docs/foot-format.md. */
export type FootMessage =
  | {
      readonly kind: 'begin';
      readonly id: number;
      readonly blocks: number;
      readonly length: number;
      readonly crc: number;
    }
  | { readonly kind: 'block'; readonly id: number; readonly block: number; readonly data: Bytes }
  | { readonly kind: 'end'; readonly id: number }
  | { readonly kind: 'ask'; readonly id: number }
  | { readonly kind: 'want'; readonly id: number; readonly block: number }
  | { readonly kind: 'ready'; readonly id: number }
  | { readonly kind: 'got'; readonly id: number; readonly block: number }
  | { readonly kind: 'stored'; readonly id: number; readonly crc: number }
  | { readonly kind: 'refused'; readonly id: number; readonly why: Refusal };

const CODES = {
  begin: 0x01,
  block: 0x02,
  end: 0x03,
  ask: 0x04,
  want: 0x05,
  ready: 0x11,
  got: 0x12,
  stored: 0x14,
  refused: 0x15,
} as const satisfies Record<FootMessage['kind'], number>;

const KINDS = new Map<number, FootMessage['kind']>(
  Object.entries(CODES).map(([kind, code]) => [code, kind as FootMessage['kind']]),
);

/** A number as seven bits a byte, the upper ones first. */
const sevens = (value: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => Math.floor(value / 2 ** (7 * (count - 1 - i))) & 0x7f);

const fromSevens = (bytes: Bytes): number => bytes.reduce((sum, b) => sum * 128 + b, 0);

/** Seven bytes of eight bits become eight of seven: first their upper bits, the first byte's lowest. */
export function packed(bytes: Bytes): number[] {
  const out: number[] = [];
  for (let i = 0; i < bytes.length; i += 7) {
    const group = bytes.slice(i, i + 7);
    out.push(group.reduce((tops, b, k) => tops | ((b >> 7) << k), 0));
    for (const b of group) out.push(b & 0x7f);
  }
  return out;
}

/** The inverse of `packed`: eight bytes of seven bits become seven of eight. */
export function unpacked(bytes: Bytes): number[] {
  const out: number[] = [];
  for (let i = 0; i < bytes.length; i += 8) {
    const tops = bytes[i]!;
    for (let k = 0; k < 7 && i + 1 + k < bytes.length; k++) out.push(bytes[i + 1 + k]! | (((tops >> k) & 1) << 7));
  }
  return out;
}

function bodyOf(message: FootMessage): number[] {
  switch (message.kind) {
    case 'begin':
      return [...sevens(message.blocks, 2), ...sevens(message.length, 3), ...sevens(message.crc, 5)];
    case 'block':
      return [...sevens(message.block, 2), ...packed(message.data)];
    case 'want':
    case 'got':
      return sevens(message.block, 2);
    case 'stored':
      return sevens(message.crc, 5);
    case 'refused':
      return [REFUSALS.indexOf(message.why)];
    case 'end':
    case 'ask':
    case 'ready':
      return [];
  }
}

/** The device that every controller takes for itself: in files that are sent to whatever hangs there. */
export const ANY_DEVICE = 0x7f;

/** A message as the exclusive message that carries it, with its own checksum, for the controller of a device number. */
export function footBytes(message: FootMessage, device: number = ANY_DEVICE): Bytes {
  const content = [device, CODES[message.kind], ...sevens(message.id, 2), ...bodyOf(message)];
  return [...HEAD, ...content, ...sevens(crc16(content), 3), END];
}

/** Whether bytes are a message of this format, whole or damaged. */
export const isFootBytes = (bytes: Bytes): boolean => HEAD.every((b, i) => bytes[i] === b);

/** The controller that a message of this format is for, or from. */
export const footDevice = (bytes: Bytes): number => bytes[HEAD.length] ?? ANY_DEVICE;

/** Reads a message; null where it is none of this format, or damaged. */
export function readFootBytes(bytes: Bytes): FootMessage | null {
  if (!isFootBytes(bytes) || bytes.at(-1) !== END || bytes.length < HEAD.length + 8) return null;
  const content = bytes.slice(HEAD.length, -4);
  if (content.some((b) => b > 0x7f) || fromSevens(bytes.slice(-4, -1)) !== crc16(content)) return null;
  const kind = KINDS.get(content[1]!);
  const id = fromSevens(content.slice(2, 4));
  const body = content.slice(4);
  const has = (length: number): boolean => body.length === length;
  switch (kind) {
    case 'begin': {
      if (!has(10)) return null;
      const [blocks, length, crc] = [body.slice(0, 2), body.slice(2, 5), body.slice(5)].map(fromSevens);
      return { kind, id, blocks: blocks!, length: length!, crc: crc! };
    }
    case 'block':
      return body.length < 4 ? null : { kind, id, block: fromSevens(body.slice(0, 2)), data: unpacked(body.slice(2)) };
    case 'want':
    case 'got':
      return has(2) ? { kind, id, block: fromSevens(body) } : null;
    case 'stored':
      return has(5) ? { kind, id, crc: fromSevens(body) } : null;
    case 'refused': {
      const why = REFUSALS[body[0] ?? -1];
      return has(1) && why ? { kind, id, why } : null;
    }
    case 'end':
    case 'ask':
    case 'ready':
      return has(0) ? { kind, id } : null;
    case undefined:
      return null;
  }
}

/** A memory's bytes, cut into blocks. */
export const blocksOf = (bytes: Bytes): readonly Bytes[] =>
  Array.from({ length: Math.ceil(bytes.length / BLOCK_BYTES) }, (_, i) =>
    bytes.slice(i * BLOCK_BYTES, (i + 1) * BLOCK_BYTES),
  );
