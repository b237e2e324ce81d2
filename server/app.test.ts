import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readShowData } from '../src/core/formats/show-file';
import { librarySchema } from '../src/core/library';
import { createApp } from './app';

let server: Server;
let base: string;
let dist: string;
beforeAll(async () => {
  dist = mkdtempSync(join(tmpdir(), 'lantern-dist-'));
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>Here</title>');
  writeFileSync(join(dist, 'a.js'), 'export {};');
  await new Promise<void>((ready) => {
    server = createApp(dist).listen(0, '127.0.0.1', () => ready());
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
  rmSync(dist, { recursive: true });
});

describe('the server', () => {
  it('serves a demo show and a library that pass the same door as files', async () => {
    const demo: unknown = await (await fetch(`${base}/api/demo`)).json();
    expect(readShowData(demo).problems).toEqual([]);
    const library: unknown = await (await fetch(`${base}/api/library`)).json();
    expect(librarySchema.safeParse(library).success).toBe(true);
  });

  it('serves the application under every address of a view, and its files', async () => {
    for (const path of ['/', '/show/abc/chart', '/anything']) {
      const answer = await fetch(base + path);
      expect(answer.status).toBe(200);
      expect(await answer.text()).toContain('Here');
    }
    expect((await fetch(`${base}/a.js`)).headers.get('content-type')).toContain('javascript');
  });

  it('sets a policy that lets in nothing from elsewhere', async () => {
    const { headers } = await fetch(base);
    const policy = headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("worker-src 'self'");
    expect(policy).not.toContain('http:');
    expect(policy).not.toContain('upgrade-insecure-requests');
    expect(headers.get('x-powered-by')).toBeNull();
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });

  it.each([
    ['GET', '/api/nothing', 404, 'not-found', 'There is nothing at /api/nothing.'],
    ['POST', '/api/demo', 405, 'method', 'only there to be read'],
    ['DELETE', '/api/library', 405, 'method', 'not for DELETE'],
    ['GET', '/missing.js', 404, 'not-found', '/missing.js'],
    ['POST', '/', 404, 'not-found', 'nothing at /'],
  ])('answers %s %s with %i and a sentence', async (method, path, status, code, sentence) => {
    const answer = await fetch(base + path, { method });
    expect(answer.status).toBe(status);
    const body = (await answer.json()) as { error: { code: string; sentence: string } };
    expect(body.error.code).toBe(code);
    expect(body.error.sentence).toContain(sentence);
  });

  it('answers a malformed address, and one that climbs out, with an error and not a file', async () => {
    const { port } = server.address() as AddressInfo;
    const raw = (path: string) =>
      new Promise<{ status: number; text: string }>((done, failed) => {
        const asked = request({ host: '127.0.0.1', port, path }, (answer) => {
          let text = '';
          answer.on('data', (d: Buffer) => (text += d.toString()));
          answer.on('end', () => done({ status: answer.statusCode!, text }));
        });
        asked.on('error', failed);
        asked.end();
      });
    const malformed = await raw('/%E0%A4%A');
    expect(malformed.status).toBe(400);
    expect(JSON.parse(malformed.text)).toMatchObject({ error: { code: 'bad-request' } });
    const climbing = await raw('/../../../../etc/passwd');
    expect(climbing.text).not.toContain('root:');
  });
});
