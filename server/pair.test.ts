import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { WebSocket } from 'ws';
import { hostOf } from './pair';
import { share } from './share';

let server: Server;
let shared: { close: () => void };
let host: string;
let now: number;
const sockets: WebSocket[] = [];

beforeEach(async () => {
  now = 1e6;
  server = createServer((_, response) => response.end());
  await new Promise<void>((ready) => void server.listen(0, '127.0.0.1', ready));
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  shared = share(server, {
    addresses: [`http://${host}/watch`],
    now: () => now,
    aliveEvery: 60_000,
    saysWithin: 60_000,
  });
});
afterEach(() => {
  for (const socket of sockets.splice(0)) socket.terminate();
  shared.close();
  server.closeAllConnections();
  server.close();
});

interface Line {
  readonly socket: WebSocket;
  readonly told: string[];
  readonly say: (message: unknown) => void;
  /** Waits until something was told that begins so. */
  readonly hear: (start: string) => Promise<string>;
  readonly closed: Promise<void>;
}

function open(path: string, rest: { origin?: string | undefined; from?: string } = {}): Promise<Line> {
  const origin = 'origin' in rest ? rest.origin : `http://${host}`;
  const socket = new WebSocket(`ws://${host}${path}`, {
    ...(origin === undefined ? {} : { origin }),
    localAddress: rest.from ?? '127.0.0.1',
  });
  sockets.push(socket);
  const told: string[] = [];
  const waiting: (() => void)[] = [];
  socket.on('message', (data) => {
    told.push((data as Buffer).toString());
    for (const look of waiting.splice(0)) look();
  });
  const closed = new Promise<void>((done) => socket.on('close', () => done()));
  const hear = async (start: string): Promise<string> => {
    for (;;) {
      const at = told.findIndex((t) => t.startsWith(start));
      if (at >= 0) return told.splice(at, 1)[0]!;
      await new Promise<void>((look) => waiting.push(look));
    }
  };
  const say = (message: unknown): void => socket.send(typeof message === 'string' ? message : JSON.stringify(message));
  return new Promise((resolve, reject) => {
    socket.on('open', () => resolve({ socket, told, say, hear, closed }));
    socket.on('error', reject);
  });
}

/** The first computer's line, and its code. */
async function first(): Promise<Line & { readonly code: string }> {
  const line = await open('/share/first');
  line.say({ kind: 'new-code' });
  const { code } = JSON.parse(await line.hear('{"kind":"code"')) as { code: string };
  return { ...line, code };
}
/** A second computer's, through its own server: here, the same. */
async function second(word: unknown): Promise<Line> {
  const line = await open('/share/follow');
  line.say({ kind: 'reach', address: `http://${host}/` });
  line.say(word);
  return line;
}
const passOf = (text: string): string => (JSON.parse(text) as { pass: string }).pass;

describe('the line between two computers', () => {
  it('stands after the code, and carries what they tell each other as it is', async () => {
    const a = await first();
    expect(await a.hear('{"kind":"addresses"')).toContain(`"${host}"`);
    const b = await second({ kind: 'join', code: a.code });
    const pass = passOf(await b.hear('{"kind":"joined"'));
    expect(passOf(await a.hear('{"kind":"let-in"'))).toBe(pass);
    expect(await b.hear('{"kind":"peer"')).toContain('true');
    a.say('>{"kind":"anything","n":1}');
    expect(await b.hear('>')).toBe('>{"kind":"anything","n":1}');
    b.say('>back');
    expect(await a.hear('>')).toBe('>back');
  });

  it('tells each one at once that the other has left', async () => {
    const a = await first();
    const b = await second({ kind: 'join', code: a.code });
    await a.hear('{"kind":"peer","there":true');
    b.socket.terminate();
    await a.hear('{"kind":"peer","there":false');
    a.say({ kind: 'new-code' });
    const { code } = JSON.parse(await a.hear('{"kind":"code"')) as { code: string };
    const c = await second({ kind: 'join', code });
    await c.hear('{"kind":"peer","there":true');
    a.socket.terminate();
    await c.hear('{"kind":"peer","there":false');
  });

  it('refuses a wrong code and tells the first one, an old one, and a pass of nobody', async () => {
    const a = await first();
    const wrong = a.code === '111111' ? '222222' : '111111';
    const b = await second({ kind: 'join', code: wrong });
    expect(await b.hear('{"kind":"refused"')).toContain('"code"');
    await a.hear('{"kind":"wrong-codes"');
    await b.closed;
    now += 181_000;
    expect(await (await second({ kind: 'join', code: a.code })).hear('{"kind":"refused"')).toContain('"code"');
    const odd = await second({ kind: 'back', pass: 'f'.repeat(48) });
    expect(await odd.hear('{"kind":"refused"')).toContain('"pass"');
  });

  it('lets a second one back in by its pass, also after the server was started anew', async () => {
    const a = await first();
    const b = await second({ kind: 'join', code: a.code });
    const pass = passOf(await b.hear('{"kind":"joined"'));
    b.socket.terminate();
    await a.hear('{"kind":"peer","there":false');
    await (await second({ kind: 'back', pass })).hear('{"kind":"joined"');
    a.say({ kind: 'end' });
    const gone = await second({ kind: 'back', pass });
    expect(await gone.hear('{"kind":"refused"')).toContain('"pass"');
    // A first computer knows whom it let in, whatever its server does.
    a.say({ kind: 'pass', pass });
    a.say({ kind: 'new-code' });
    await a.hear('{"kind":"code"');
    await (await second({ kind: 'back', pass })).hear('{"kind":"joined"');
  });

  it('stops somebody who guesses, and takes nothing from who is in', async () => {
    const a = await first();
    const b = await second({ kind: 'join', code: a.code });
    await b.hear('{"kind":"joined"');
    for (let i = 0; i < 12; i++) {
      const odd = await open('/share/second', { origin: undefined, from: '127.0.0.9' });
      odd.say({ kind: 'join', code: '000000' });
      await odd.closed;
    }
    const again = await open('/share/second', { origin: undefined, from: '127.0.0.9' });
    again.say({ kind: 'join', code: '000000' });
    expect(await again.hear('{"kind":"refused"')).toContain('"often"');
    a.say('>still');
    expect(await b.hear('>')).toBe('>still');
  });

  it('opens for no page of another place, and the ends of this machine for no other machine', async () => {
    for (const path of ['/share/first', '/share/second', '/share/follow']) {
      await expect(open(path, { origin: 'http://elsewhere.example' })).rejects.toThrow(/403/);
    }
    await expect(open('/share/first', { origin: undefined })).rejects.toThrow(/403/);
    await expect(open('/share/follow', { origin: undefined })).rejects.toThrow(/403/);
  });

  it('lives through odd messages', async () => {
    const a = await first();
    for (const odd of ['', '{', '[]', '{"kind":"pass"}', '{"kind":"join","code":5}', 'null', '>']) a.say(odd);
    for (const odd of ['', '{', 'null', '{"kind":"back"}', 'x'.repeat(5000), 'x'.repeat(3_000_000), '>before']) {
      const line = await open('/share/second', { origin: undefined });
      line.say(odd);
      await line.closed;
    }
    const nowhere = await open('/share/follow');
    nowhere.say({ kind: 'reach', address: 'no where' });
    expect(await nowhere.hear('{"kind":"refused"')).toContain('"address"');
    const closed = await open('/share/follow');
    closed.say({ kind: 'reach', address: '127.0.0.1:9' });
    expect(await closed.hear('{"kind":"refused"')).toContain('"unreachable"');
    const b = await second({ kind: 'join', code: a.code });
    await b.hear('{"kind":"joined"');
  });

  it('hands the first place to the tab that was opened last', async () => {
    const a = await first();
    const c = await first();
    await a.hear('{"kind":"taken"');
    await a.closed;
    await (await second({ kind: 'join', code: c.code })).hear('{"kind":"joined"');
  });
});

describe('a second computer', () => {
  it('is told when another one takes its place', async () => {
    const a = await first();
    const b = await second({ kind: 'join', code: a.code });
    await b.hear('{"kind":"joined"');
    a.say({ kind: 'new-code' });
    const { code } = JSON.parse(await a.hear('{"kind":"code"')) as { code: string };
    const c = await second({ kind: 'join', code });
    await b.hear('{"kind":"taken"');
    await b.closed;
    a.say('>to you');
    expect(await c.hear('>')).toBe('>to you');
  });
});

describe('an address', () => {
  it('is taken as it is typed or copied', () => {
    expect(hostOf('192.168.1.20')).toBe('192.168.1.20:4173');
    expect(hostOf(' pier.local:5000 ')).toBe('pier.local:5000');
    expect(hostOf('http://10.0.0.2:4173/watch')).toBe('10.0.0.2:4173');
    expect(hostOf('[::1]:80')).toBe('[::1]:80');
    for (const odd of ['', 'a b', 'ftp://x', 'http://u:p@x/', 'https://x', '1.2.3.4:99999'])
      expect(hostOf(odd)).toBeNull();
  });
});
