import type { DumpForm } from '../../addressing';
import type { Bytes } from '../../midi';

type Packing = DumpForm['packing'];

/** Memory as data bytes of seven bits. */
export function pack(packing: Packing, memory: Bytes): number[] {
  switch (packing) {
    case 'none':
      return memory.map((b) => b & 0x7f);
    case 'halves-high':
      return memory.flatMap((b) => [b >> 4, b & 15]);
    case 'halves-low':
      return memory.flatMap((b) => [b & 15, b >> 4]);
    case 'eighth-low':
    case 'eighth-high': {
      const out: number[] = [];
      for (let i = 0; i < memory.length; i += 7) {
        const group = memory.slice(i, i + 7);
        const upper = group.reduce((bits, b, k) => bits | ((b >> 7) << (packing === 'eighth-low' ? k : 6 - k)), 0);
        out.push(upper, ...group.map((b) => b & 0x7f));
      }
      return out;
    }
  }
}

/** Data bytes as the memory that they carry. What is left of a group that was cut is left out. */
export function unpack(packing: Packing, data: Bytes): number[] {
  switch (packing) {
    case 'none':
      return [...data];
    case 'halves-high':
    case 'halves-low': {
      const out: number[] = [];
      for (let i = 0; i + 1 < data.length; i += 2) {
        const [one, other] = [data[i]! & 15, data[i + 1]! & 15];
        out.push(packing === 'halves-high' ? (one << 4) | other : (other << 4) | one);
      }
      return out;
    }
    case 'eighth-low':
    case 'eighth-high': {
      const out: number[] = [];
      for (let i = 0; i < data.length; i += 8) {
        const upper = data[i]!;
        for (const [k, b] of data.slice(i + 1, i + 8).entries()) {
          out.push(b | (((upper >> (packing === 'eighth-low' ? k : 6 - k)) & 1) << 7));
        }
      }
      return out;
    }
  }
}

/** The checksum of what stands behind the head; null where a form has none. */
export function checksumOf(kind: DumpForm['checksum'], body: Bytes): number | null {
  const sum = body.reduce((all, b) => (all + b) & 0x7f, 0);
  if (kind === 'none') return null;
  if (kind === 'sum') return sum;
  if (kind === 'missing') return (128 - sum) & 0x7f;
  return body.reduce((all, b) => all ^ b, 0);
}
