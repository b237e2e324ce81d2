import { z } from 'zod';
import type { Deep } from '../readonly';
import type { Bytes } from '../../midi';
import { wordSchema } from './carrier';
import { outside, type EncodingKind } from './encoding';

/**
 * A system exclusive message with the value in it. The template is written in pairs of
 * hexadecimal digits from F0 to F7, with `vv` for a value of seven bits, `hh` and `ll` for
 * the upper and lower seven of fourteen, and `ss` for a checksum.
 */
export const exclusiveEncodingSchema = z.strictObject({
  kind: z.literal('exclusive'),
  template: z.string().min(4).max(3000),
  low: wordSchema,
  high: wordSchema,
  checksum: z
    .strictObject({
      kind: z.enum(['xor', 'sum']),
      /** First and last byte that count, F0 being byte 0. */
      from: z.int().min(0).max(1000),
      to: z.int().min(0).max(1000),
    })
    .nullable(),
});

export type ExclusiveEncoding = Deep<z.infer<typeof exclusiveEncodingSchema>>;

type Token = number | 'vv' | 'hh' | 'll' | 'ss';

const templates = new Map<string, readonly Token[] | undefined>();

/** A template's bytes and gaps; undefined where it is not one. */
export function exclusiveTokens(template: string): readonly Token[] | undefined {
  if (!templates.has(template)) templates.set(template, readTokens(template));
  return templates.get(template);
}

function readTokens(template: string): readonly Token[] | undefined {
  const pairs = template.toLowerCase().replace(/\s+/g, '').match(/../g) ?? [];
  if (pairs.join('') !== template.toLowerCase().replace(/\s+/g, '')) return undefined;
  const tokens: Token[] = [];
  for (const pair of pairs) {
    if (pair === 'vv' || pair === 'hh' || pair === 'll' || pair === 'ss') tokens.push(pair);
    else if (/^[0-9a-f]{2}$/.test(pair)) tokens.push(Number.parseInt(pair, 16));
    else return undefined;
  }
  const inner = tokens.slice(1, -1);
  const framed = tokens.length >= 3 && tokens[0] === 0xf0 && tokens.at(-1) === 0xf7;
  return framed && inner.every((t) => typeof t !== 'number' || t < 128) ? tokens : undefined;
}

/**
 * The checksum of bytes: all of them XORed, or what makes their sum, and it, end in seven
 * zero bits (the two's complement of the sum).
 */
export function checksumOf(kind: 'xor' | 'sum', bytes: Bytes): number {
  if (kind === 'xor') return bytes.reduce((x, b) => x ^ b, 0) & 127;
  return (128 - (bytes.reduce((sum, b) => sum + b, 0) & 127)) & 127;
}

function fill(e: ExclusiveEncoding, value: number): number[] {
  const tokens = exclusiveTokens(e.template);
  if (!tokens) throw new RangeError(`"${e.template}" is not the template of a system exclusive message`);
  const bytes = tokens.map((t) => {
    if (typeof t === 'number') return t;
    if (t === 'vv') return value & 127;
    if (t === 'hh') return value >> 7;
    return t === 'll' ? value & 127 : 0;
  });
  const at = tokens.indexOf('ss');
  if (at >= 0 && e.checksum) {
    // Its own place counts as nothing, should the range reach over it.
    bytes[at] = checksumOf(e.checksum.kind, bytes.slice(e.checksum.from, e.checksum.to + 1));
  }
  return bytes;
}

export const exclusiveEncoding: EncodingKind<ExclusiveEncoding> = {
  kind: 'exclusive',
  schema: exclusiveEncodingSchema,
  continuous: false,
  keeps: 'value',
  range: (e) => ({ low: e.low, high: e.high, step: 1 }),
  claims: () => [],
  encode: (e, _channel, value) => {
    if (!Number.isInteger(value) || value < e.low || value > e.high) {
      throw outside('the message', value, { low: e.low, high: e.high, step: 1 });
    }
    return [fill(e, value)];
  },
  decode: (e, message) => {
    const tokens = exclusiveTokens(e.template);
    if (message.kind !== 'exclusive' || !tokens || message.bytes.length !== tokens.length) return undefined;
    let high = 0;
    let low = 0;
    for (const [i, token] of tokens.entries()) {
      const byte = message.bytes[i]!;
      if (token === 'hh') high = byte;
      else if (token === 'vv' || token === 'll') low = byte;
      else if (token !== 'ss' && token !== byte) return undefined;
    }
    const value = high * 128 + low;
    if (value < e.low || value > e.high) return undefined;
    // A wrong checksum makes the whole message worthless to the unit.
    return fill(e, value).every((byte, i) => byte === message.bytes[i]) ? value : undefined;
  },
};
