// Measures and prints; no figure here passes or fails. npm run bench -- small: whether all of it runs, at its smallest size.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { browser, packages, root } from './ready.mjs';

packages();
build();
browser();
const small = process.argv[2] === 'small';
const args = [
  '--expose-gc',
  '--import',
  import.meta.resolve('tsx'),
  join(root, 'bench/main.ts'),
  ...process.argv.slice(small ? 3 : 2),
];
process.exitCode =
  spawnSync(process.execPath, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...(small && { LANTERN_BENCH: 'small' }) },
  }).status ?? 1;
