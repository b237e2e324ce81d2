import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';

/** A server that shares, on a port; 0 for any that is free. */
export async function serve(port: number): Promise<{ readonly server: ChildProcess; readonly address: string }> {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', '--share'], {
    env: { ...process.env, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let text = '';
  for (;;) {
    const [data] = (await once(server.stdout, 'data')) as [Buffer];
    text += data.toString();
    const address = /is at (http:\/\/\S+?)\//.exec(text)?.[1];
    if (address && /at once/.test(text)) return { server, address };
  }
}
