// Builds the application when its sources changed since it was last built.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { must, root } from './ready.mjs';

/** A text that changes with every file that the build is made of. */
function sources() {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) visit(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  for (const name of ['src', 'public', 'index.html', 'vite.config.ts', 'package-lock.json']) visit(join(root, name));
  return hash.digest('hex');
}

/** Builds the application, unless what is built is of exactly these sources. */
export function build() {
  const stamp = join(root, 'dist', '.sources');
  const now = sources();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  must(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn']);
  writeFileSync(stamp, now);
}
