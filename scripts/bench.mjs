// Measures and prints; nothing here passes or fails.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build } from './build.mjs';
import { browser, packages, root } from './ready.mjs';

packages();
build();
browser();
const args = [
  '--expose-gc',
  '--import',
  import.meta.resolve('tsx'),
  join(root, 'bench/main.ts'),
  ...process.argv.slice(2),
];
process.exitCode = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1;
