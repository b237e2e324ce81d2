import { spawn, type ChildProcess } from 'node:child_process';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  export interface ProvidedContext {
    address: string;
  }
}

/** Starts the server on a free port, for as long as the tests run. The application is built before. */
export default async function setup(project: TestProject): Promise<() => void> {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: { ...process.env, PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  project.provide('address', await addressOf(server));
  return () => {
    server.kill();
  };
}

function addressOf(server: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = '';
    server.stdout!.on('data', (data: Buffer) => {
      text += data.toString();
      const found = /http:\/\/\S+/.exec(text)?.[0];
      if (found) resolve(found);
    });
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
}
