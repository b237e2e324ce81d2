// The property tests with many more cases and another seed: npm run random -- [times] [seed]. A failure prints its seed.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { packages, root } from './ready.mjs';

const [times = '20', seed = String(Date.now() % 1e9)] = process.argv.slice(2);
if (!(Number(times) > 0) || !Number.isInteger(Number(seed))) {
  console.error('usage: npm run random -- [times as many cases, 20] [seed]');
  process.exit(2);
}
packages();
console.log(`${times} times as many cases, seed ${seed}`);
const args = [join(root, 'node_modules/vitest/vitest.mjs'), 'run', '--project', 'unit', '--testTimeout', '3600000'];
const env = { ...process.env, LANTERN_RUNS: times, LANTERN_SEED: seed };
process.exitCode = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit', env }).status ?? 1;
