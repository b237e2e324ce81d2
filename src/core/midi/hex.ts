import type { Bytes } from './messages';

const PAIRS = Array.from({ length: 256 }, (_, i) => i.toString(16).padStart(2, '0'));

/** Bytes as two hexadecimal digits each, with `between` between them. */
export const toHex = (bytes: Bytes, between = ''): string => bytes.map((b) => PAIRS[b]).join(between);

/** Bytes from pairs of hexadecimal digits; white space is let through. Undefined where it is not that. */
export function fromHex(text: string): number[] | undefined {
  const digits = text.replace(/\s+/g, '');
  if (digits.length % 2 !== 0 || /[^0-9a-f]/i.test(digits)) return undefined;
  const bytes: number[] = [];
  for (let i = 0; i < digits.length; i += 2) bytes.push(Number.parseInt(digits.slice(i, i + 2), 16));
  return bytes;
}
