// Measures and prints; nothing here passes or fails.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { packages, root } from './ready.mjs';

packages();
const args = ['--import', import.meta.resolve('tsx'), join(root, 'bench/main.ts')];
process.exitCode = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' }).status ?? 1;
