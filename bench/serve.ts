import { spawn } from 'node:child_process';

/** Starts the server on a free port. The application is built before. */
export function serve(): Promise<{ address: string; stop: () => void }> {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: { ...process.env, PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve) => {
    server.stdout.on('data', (data: Buffer) => {
      const address = /http:\/\/\S+/.exec(data.toString())?.[0];
      if (address) resolve({ address, stop: () => void server.kill() });
    });
  });
}
