// Builds the application when its sources changed since it was last built.
import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { root, run } from './ready.mjs';

/** A text that changes with every file that the build is made of. */
function sources() {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) visit(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  for (const name of ['src', 'public', 'scripts', 'index.html', 'vite.config.ts', 'package-lock.json'])
    visit(join(root, name));
  return hash.digest('hex');
}

/** Builds the application, unless what is built is of exactly these sources. The exit code of the build. */
export function built() {
  const stamp = join(root, 'dist', '.sources');
  const now = sources();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return 0;
  const folder = existsSync(join(root, 'dist')) ? join(root, 'dist') : root;
  try {
    accessSync(folder, constants.W_OK);
  } catch {
    console.error(`The application cannot be built: ${folder} cannot be written to.`);
    return 2;
  }
  const vite = [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'];
  const code = run(process.execPath, vite, { env: { VITE_CONFIG_NATIVE_IGNORE_WARNING: 'true' } });
  if (code === 0) writeFileSync(stamp, now);
  return code;
}

/** The same, and the program ends where it cannot be built. */
export function build() {
  const code = built();
  if (code !== 0) process.exit(code);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) build();
