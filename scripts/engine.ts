import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Rooms of the core whose code a proof rests on. */
const ROOMS = ['time', 'midi', 'addressing', 'rig', 'show', 'meaning', 'compile', 'simulate', 'proof'];

/** A mark that changes with the code that compiles and simulates: a proof by older code is no proof. */
export function engineMark(): string {
  const core = fileURLToPath(new URL('../src/core', import.meta.url));
  const hash = createHash('sha256');
  for (const room of ROOMS) {
    const files = readdirSync(join(core, room), { recursive: true, encoding: 'utf8' });
    for (const file of files.sort()) {
      if (!file.endsWith('.ts') || file.endsWith('.test.ts')) continue;
      hash.update(file).update(readFileSync(join(core, room, file)));
    }
  }
  return hash.digest('hex').slice(0, 16);
}
