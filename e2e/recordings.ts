import { writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Samples a second of the recordings that tests make. */
export const RATE = 48_000;

/** A WAV file (RIFF, 16-bit PCM, one channel) that is silent but for single samples. */
export function impulses(folder: string, name: string, length: number, at: readonly number[]): string {
  const bytes = Buffer.alloc(44 + length * 2);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + length * 2, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(RATE, 24);
  bytes.writeUInt32LE(RATE * 2, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(length * 2, 40);
  for (const i of at) bytes.writeInt16LE(16_000, 44 + i * 2);
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}
