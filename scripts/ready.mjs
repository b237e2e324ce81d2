// What has to be on the machine before anything else runs. Only Node's own modules here:
// on a fresh clone there are no others.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, statSync } from 'node:fs';
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

const readJson = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
};

/** Whether what is installed is what the lock file says, whoever installed it. What this machine does not need may be missing. */
export function installed(folder = root) {
  const wanted = readJson(join(folder, 'package-lock.json'))?.packages;
  const there = readJson(join(folder, 'node_modules/.package-lock.json'))?.packages;
  if (!wanted || !there) return false;
  return Object.entries(wanted).every(([path, { version, optional }]) =>
    path === '' ? true : there[path] ? there[path].version === version : optional === true,
  );
}

/** Milliseconds that one waits for another who installs. */
const OTHERS = 10 * 60_000;
const pause = (millis) => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, millis);

/** Installs the packages of the lock file, unless they are there. Of two at once the second waits for the first. */
export function packages(options = {}) {
  if (installed()) return;
  const turn = join(root, '.installing');
  const from = Date.now();
  for (;;) {
    try {
      mkdirSync(turn);
      break;
    } catch (error) {
      if (error.code !== 'EEXIST')
        fail(`The packages cannot be installed: ${root} cannot be written to (${error.code}).`);
      // Whoever held it may have been ended.
      if (
        Date.now() - from > OTHERS ||
        Date.now() - (statSync(turn, { throwIfNoEntry: false })?.mtimeMs ?? 0) > OTHERS
      ) {
        rmSync(turn, { recursive: true, force: true });
      } else pause(250);
      if (installed()) return;
    }
  }
  try {
    const code = installed() ? 0 : run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], options);
    if (code !== 0) fail('The packages could not be installed: see above what npm says.');
  } finally {
    rmSync(turn, { recursive: true, force: true });
  }
}

/** Ends the program with a sentence. Exit 1 is for what was looked at and found wrong: this is not. */
function fail(sentence) {
  rmSync(join(root, '.installing'), { recursive: true, force: true });
  console.error(sentence);
  process.exit(2);
}

/** Debian's packages that tests ask, each with a program that it brings: a browser and its driver, and what reads paper. */
const TOOLS = {
  chromium: 'chromium',
  'chromium-driver': 'chromedriver',
  qpdf: 'qpdf',
  'poppler-utils': 'pdftotext',
};

/** Installs what the tests want of Debian, when it is missing. The exit code of that. */
export function browser() {
  const missing = Object.keys(TOOLS).filter((name) => !existsSync(`/usr/bin/${TOOLS[name]}`));
  if (missing.length === 0) return 0;
  console.log(`Installing ${missing.join(', ')} …`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  const wanted = ['install', '-y', '-qq', '--no-install-recommends', ...missing];
  return run('apt-get', ['update', '-qq'], { env }) || run('apt-get', wanted, { env });
}
