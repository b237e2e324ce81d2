// One command from a fresh clone to the running application: packages, build, server.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { packages, root } from './ready.mjs';

packages();
await portIsFree();
const { build } = await import('./build.mjs');
build();

/** A port that is taken is said before anything is built. */
async function portIsFree() {
  const port = Number(process.env.PORT?.trim() || '4173');
  if (!Number.isInteger(port) || port < 1 || port > 65535) return;
  const taken = await new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', (error) => resolve(error.code === 'EADDRINUSE'));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(false)));
  });
  if (!taken) return;
  console.error(`The server cannot start: port ${port} is in use; set PORT to another one.`);
  process.exit(2);
}

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
