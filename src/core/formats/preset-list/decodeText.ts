import { NOWHERE, problem, type Read } from '../../problems';

/**
 * Text of a file. UTF-8 with or without a mark at its head, and UTF-16 with one, are read
 * (Unicode Standard, 23.8, byte order mark); anything else is refused with the first byte
 * that belongs to no character.
 */
export function decodeText(bytes: Uint8Array): Read<string> {
  const utf16 =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  try {
    return { value: new TextDecoder(utf16 ?? 'utf-8', { fatal: true }).decode(bytes), problems: [] };
  } catch {
    const offset = utf16 ? bytes.length : firstBroken(bytes);
    return { value: undefined, problems: [problem('list.encoding', 'error', NOWHERE, { offset })] };
  }
}

/** Offset of the first byte that is not UTF-8: the longest readable start, found by halving. */
function firstBroken(bytes: Uint8Array): number {
  const reads = (end: number): boolean => {
    try {
      // A character that is cut off at the end is not broken yet.
      new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(0, end), { stream: true });
      return true;
    } catch {
      return false;
    }
  };
  let good = 0;
  let bad = bytes.length;
  if (reads(bad)) return bytes.length;
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (reads(middle)) good = middle;
    else bad = middle;
  }
  return good;
}
