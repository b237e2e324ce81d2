// What has to be on the machine before anything else runs. Only Node's own modules here:
// on a fresh clone there are no others.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** Runs a command; its output goes to standard error where `quiet` is set, so that standard output stays clean. */
export function run(command, args, { quiet = false, env = {} } = {}) {
  const stdio = quiet ? ['ignore', 2, 2] : ['ignore', 'inherit', 'inherit'];
  const done = spawnSync(command, args, { cwd: root, stdio, env: { ...process.env, ...env } });
  if (done.error) throw new Error(`${command} cannot be run: ${done.error.message}`);
  return done.status ?? 1;
}

/** Runs a command and ends the program when it fails. */
export function must(command, args, options) {
  const code = run(command, args, options);
  if (code !== 0) process.exit(code);
}

/** Installs the packages of the lock file, unless that has been done for this very lock file. */
export function packages(options = {}) {
  const lock = readFileSync(join(root, 'package-lock.json'));
  const stamp = createHash('sha256').update(lock).update(process.version).digest('hex');
  const file = join(root, 'node_modules', '.lantern-stamp');
  if (existsSync(file) && readFileSync(file, 'utf8') === stamp) return;
  must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], options);
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, stamp);
}

/** Installs Debian's browser and its driver for the browser tests, when they are missing. */
export function browser() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
  console.log('Installing chromium and chromium-driver …');
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  must('apt-get', ['update', '-qq'], { env });
  must('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium', 'chromium-driver'], { env });
}
