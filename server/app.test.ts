import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, brotliDecompressSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from './app';

let server: Server;
let base: string;
let root: string;
let dist: string;
beforeAll(async () => {
  // A folder above it has a name that begins with a dot.
  root = mkdtempSync(join(tmpdir(), '.lantern-'));
  dist = join(root, 'dist');
  mkdirSync(dist);
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>Here</title>');
  writeFileSync(join(dist, 'index.html.br'), brotliCompressSync('<!doctype html><title>Here</title>'));
  writeFileSync(join(root, 'secret.js.br'), brotliCompressSync('secret'));
  writeFileSync(join(root, 'secret.js'), 'secret');
  writeFileSync(join(dist, 'a.js'), 'export {};');
  mkdirSync(join(dist, 'assets'));
  writeFileSync(join(dist, 'assets', 'b-1234.js'), 'export const plain = 1;');
  writeFileSync(join(dist, 'assets', 'b-1234.js.br'), brotliCompressSync('export const small = 1;'));
  writeFileSync(join(dist, 'assets', 'c-1234.js'), 'export {};');
  await new Promise<void>((ready) => {
    server = createApp(dist).listen(0, '127.0.0.1', () => ready());
  });
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
  rmSync(root, { recursive: true });
});

describe('the server', () => {
  it('serves the application under every address of a view, and its files', async () => {
    for (const path of ['/', '/show/abc/chart', '/anything']) {
      const answer = await fetch(base + path);
      expect(answer.status).toBe(200);
      expect(await answer.text()).toContain('Here');
    }
    expect((await fetch(`${base}/a.js`)).headers.get('content-type')).toContain('javascript');
  });

  it('serves nothing from outside its folder', async () => {
    for (const path of ['/../secret.js', '/assets/../../secret.js', '/%2e%2e/secret.js', '/..%2fsecret.js']) {
      const body = await new Promise<string>((resolve, reject) => {
        const asked = request(base, { path, headers: { 'accept-encoding': 'br' } }, (answer) => {
          const parts: Buffer[] = [];
          answer.on('data', (part: Buffer) => parts.push(part));
          answer.on('end', () => {
            const bytes = Buffer.concat(parts);
            const plain = answer.headers['content-encoding'] === 'br' ? brotliDecompressSync(bytes) : bytes;
            resolve(`${answer.statusCode} ${plain.toString()}`);
          });
        });
        asked.on('error', reject);
        asked.end();
      });
      // Not there, or the page of the application.
      expect(body).toMatch(/^(40[0-9] |200 <!doctype html><title>Here)/);
    }
  });

  it('sends the compressed copy to whoever takes it, and the plain file to others', async () => {
    const ask = (coding: string) => fetch(`${base}/assets/b-1234.js`, { headers: { 'accept-encoding': coding } });
    const small = await ask('gzip, br');
    expect(small.headers.get('content-encoding')).toBe('br');
    expect(small.headers.get('content-type')).toContain('javascript');
    expect(await small.text()).toContain('small');
    const plain = await ask('identity');
    expect(plain.headers.get('content-encoding')).toBeNull();
    expect(await plain.text()).toContain('plain');
    expect(plain.headers.get('vary')).toContain('Accept-Encoding');
  });

  it('lets files with a hash be kept for good, and the page never', async () => {
    const cache = async (path: string) => (await fetch(base + path)).headers.get('cache-control');
    expect(await cache('/assets/b-1234.js')).toContain('immutable');
    expect(await cache('/assets/c-1234.js')).toContain('immutable');
    expect(await cache('/')).toBe('no-cache');
    expect(await cache('/show/abc')).toBe('no-cache');
    expect(await cache('/a.js')).toBe('no-cache');
  });

  it('answers to its own names only', async () => {
    const { port } = server.address() as AddressInfo;
    const status = (host: string) =>
      new Promise<number>((done, failed) => {
        request({ host: '127.0.0.1', port, path: '/', headers: { host } }, (answer) => {
          answer.resume();
          done(answer.statusCode!);
        })
          .on('error', failed)
          .end();
      });
    expect(await status(`localhost:${port}`)).toBe(200);
    expect(await status(`127.0.0.1:${port}`)).toBe(200);
    expect(await status('elsewhere.example')).toBe(421);
    expect(await status(`127.0.0.1.elsewhere.example:${port}`)).toBe(421);
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
    ['POST', '/show/abc', 404, 'not-found', 'There is nothing at /show/abc.'],
    ['DELETE', '/a.js', 404, 'not-found', 'There is nothing at /a.js.'],
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
