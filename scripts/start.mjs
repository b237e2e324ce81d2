// One command from a fresh clone to the running application: packages, build, server.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { packages, root } from './ready.mjs';

packages();
const { build } = await import('./build.mjs');
build();
const server = spawn(
  process.execPath,
  ['--import', import.meta.resolve('tsx'), join(root, 'server/main.ts'), ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
  },
);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
