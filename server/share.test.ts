import { createServer, request, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { WebSocket } from 'ws';
import { CODE_SECONDS } from './codes';
import { share } from './share';

let server: Server;
let shared: { close: () => void };
let host: string;
let now: number;
const sockets: WebSocket[] = [];

/** A busy machine keeps lines waiting: none is cut off for that, but where a test is about it. */
const PATIENT = { aliveEvery: 60_000, saysWithin: 60_000 };

async function start(times: Partial<typeof PATIENT> = {}): Promise<void> {
  server = createServer((_, response) => response.end());
  await new Promise<void>((ready) => void server.listen(0, '127.0.0.1', ready));
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  shared = share(server, { addresses: [`http://${host}/watch`], now: () => now, ...PATIENT, ...times });
}
function stop(): void {
  for (const socket of sockets.splice(0)) socket.terminate();
  shared.close();
  server.closeAllConnections();
  server.close();
}

beforeEach(async () => {
  now = 1e6;
  await start();
});
afterEach(stop);

interface Line {
  readonly socket: WebSocket;
  /** What was told so far. */
  readonly told: { readonly kind: string; readonly [key: string]: unknown }[];
  readonly say: (message: unknown) => void;
  /** Waits for a message of a kind. */
  readonly hear: (kind: string, nth?: number) => Promise<Record<string, unknown>>;
  readonly closed: Promise<void>;
}

function open(path: string, origin = `http://${host}`, from = '127.0.0.1'): Promise<Line> {
  // All of 127/8 is this machine: others stand in for other machines.
  const socket = new WebSocket(`ws://${host}${path}`, { origin, localAddress: from });
  sockets.push(socket);
  const told: Line['told'] = [];
  const waiting: (() => void)[] = [];
  socket.on('message', (data) => {
    told.push(JSON.parse((data as Buffer).toString()) as Line['told'][number]);
    for (const look of waiting.splice(0)) look();
  });
  const closed = new Promise<void>((done) => socket.on('close', () => done()));
  const hear = async (kind: string, nth = 1): Promise<Record<string, unknown>> => {
    for (;;) {
      const found = told.filter((m) => m.kind === kind)[nth - 1];
      if (found) return found;
      await new Promise<void>((look) => waiting.push(look));
    }
  };
  const say = (message: unknown): void => socket.send(JSON.stringify(message));
  return new Promise((resolve, reject) => {
    socket.on('open', () => resolve({ socket, told, say, hear, closed }));
    socket.on('error', reject);
  });
}

const NEWS = {
  playing: true,
  songId: 's',
  place: 5,
  from: 0,
  begins: 0,
  night: null,
  entryId: null,
  queued: null,
  following: null,
  history: [],
  rig: { amp: { slot: 3, variant: 'stored' } },
  wrong: null,
};
const SHOW = { format: 'hollow-lantern-show', version: 8, title: 'Here' };

async function codeOf(desk: Line, nth = 1): Promise<string> {
  desk.say({ kind: 'new-code' });
  return (await desk.hear('code', nth)).code as string;
}

async function join(code: string): Promise<Line> {
  const screen = await open('/share/screen');
  screen.say({ kind: 'join', code });
  return screen;
}

describe('a shared stage', () => {
  it('is told to a screen that has the code: what is, and what comes', async () => {
    const desk = await open('/share/desk');
    expect(await desk.hear('addresses')).toMatchObject({ addresses: [`http://${host}/watch`] });
    desk.say({ kind: 'show', show: SHOW });
    desk.say({ kind: 'news', news: NEWS });
    const code = await codeOf(desk);
    expect(code).toMatch(/^\d{6}$/);
    const screen = await join(code);
    expect(await screen.hear('show')).toMatchObject({ show: SHOW });
    expect(await screen.hear('news')).toMatchObject({ news: NEWS });
    desk.say({ kind: 'news', news: { ...NEWS, place: 6 } });
    expect(await screen.hear('news', 2)).toMatchObject({ news: { place: 6 } });
    expect(await desk.hear('screens', 2)).toMatchObject({ count: 1 });
    screen.socket.close();
    expect(await desk.hear('screens', 3)).toMatchObject({ count: 0 });
  });

  it('is refused without the code, with one that was used, and with one that is old', async () => {
    const desk = await open('/share/desk');
    expect(await (await join('123456')).hear('refused')).toMatchObject({ why: 'code' });
    const code = await codeOf(desk);
    await (await join(code)).hear('joined');
    const again = await join(code);
    expect(await again.hear('refused')).toMatchObject({ why: 'code' });
    await again.closed;
    const old = await codeOf(desk, 2);
    now += CODE_SECONDS * 1000 + 1;
    expect(await (await join(old)).hear('refused')).toMatchObject({ why: 'code' });
  });

  it('tells the desk that wrong codes are tried, and how many', async () => {
    const desk = await open('/share/desk');
    await codeOf(desk);
    for (const code of ['111111', '222222', '333333']) await (await join(code)).hear('refused');
    expect(await desk.hear('wrong-codes')).toEqual({ kind: 'wrong-codes', count: expect.any(Number) as number });
  });

  it('cannot be guessed: who guesses a few times is not let in, and many tries are too many', async () => {
    const desk = await open('/share/desk');
    const code = await codeOf(desk);
    const wrong = code === '000000' ? '111111' : '000000';
    for (let i = 0; i < 5; i++) await (await join(wrong)).hear('refused');
    expect(await (await join(code)).hear('refused')).toMatchObject({ why: 'code' });
    for (let i = 0; i < 4; i++) await (await join(wrong)).hear('refused');
    expect(await (await join(wrong)).hear('refused')).toMatchObject({ why: 'often' });
    now += 61_000;
    const next = await codeOf(desk, 2);
    await (await join(next)).hear('joined');
  });

  it('stays open to others while somebody guesses: their code is not voided', async () => {
    const desk = await open('/share/desk');
    const code = await codeOf(desk);
    const wrong = code === '000000' ? '111111' : '000000';
    const stranger = (): Promise<Line> => open('/share/screen', undefined, '127.0.0.2');
    for (let i = 0; i < 9; i++) {
      const line = await stranger();
      line.say({ kind: 'join', code: wrong });
      await line.hear('refused');
    }
    await (await join(code)).hear('joined');
  });

  it.each(['é12345', '１２３４５６', '12345', '1234567', '      ', '12345\u0000', "'; --"])(
    'takes %j for a wrong code, and goes on',
    async (typed) => {
      const desk = await open('/share/desk');
      const code = await codeOf(desk);
      expect(await (await join(typed)).hear('refused')).toMatchObject({ why: 'code' });
      await (await join(code)).hear('joined');
    },
  );

  it('cuts off lines that say nothing, and lets others in meanwhile', async () => {
    stop();
    await start({ saysWithin: 2000 });
    const desk = await open('/share/desk');
    const silent = await Promise.all(
      Array.from({ length: 40 }, (_, i) => open('/share/screen', undefined, `127.0.1.${i % 20}`)),
    );
    const screen = await join(await codeOf(desk));
    await screen.hear('joined');
    await Promise.all(silent.map((s) => s.closed));
    expect(screen.socket.readyState).toBe(WebSocket.OPEN);
  });

  it('holds no more than a few silent lines of one address', async () => {
    const lines: Line[] = [];
    for (let i = 0; i < 12; i++) lines.push(await open('/share/screen', undefined, '127.0.0.3'));
    await Promise.all(lines.slice(0, 8).map((l) => l.closed));
    expect(lines.slice(8).every((l) => l.socket.readyState === WebSocket.OPEN)).toBe(true);
  });

  it('closes a line that floods, with messages or with pings, before it is in and after', async () => {
    const desk = await open('/share/desk');
    for (const flood of [
      (l: Line) => l.say({ kind: 'nonsense' }),
      (l: Line) => l.socket.ping(),
      (l: Line) => l.socket.send(Buffer.from([1])),
    ]) {
      const line = await open('/share/screen');
      for (let i = 0; i < 50 && line.socket.readyState === WebSocket.OPEN; i++) flood(line);
      await line.closed;
    }
    const screen = await join(await codeOf(desk));
    await screen.hear('joined');
    for (let i = 0; i < 200 && screen.socket.readyState === WebSocket.OPEN; i++) screen.say({ kind: 'news' });
    await screen.closed;
  });

  it('has one screen a pass, and passes that end', async () => {
    const desk = await open('/share/desk');
    const first = await join(await codeOf(desk));
    const { pass } = await first.hear('joined');
    const second = await open('/share/screen');
    second.say({ kind: 'back', pass });
    await second.hear('joined');
    await first.closed;
    now += 12 * 3_600_000 - 1000;
    second.socket.close();
    const third = await open('/share/screen');
    third.say({ kind: 'back', pass });
    await third.hear('joined');
    now += 12 * 3_600_000 + 1000;
    const late = await open('/share/screen');
    late.say({ kind: 'back', pass });
    expect(await late.hear('refused')).toMatchObject({ why: 'pass' });
  });

  it('lets its screens go when the desk says so, and their passes with them', async () => {
    const desk = await open('/share/desk');
    const screen = await join(await codeOf(desk));
    const { pass } = await screen.hear('joined');
    desk.say({ kind: 'end-screens' });
    await screen.closed;
    const again = await open('/share/screen');
    again.say({ kind: 'back', pass });
    expect(await again.hear('refused')).toMatchObject({ why: 'pass' });
  });

  it('neither stops nor starves by a thousand odd requests, some of them reset', async () => {
    const odd = (text: string, reset: boolean): Promise<void> =>
      new Promise((done) => {
        const [name, port] = host.split(':');
        const socket = connect(Number(port), name);
        socket.on('error', () => done());
        socket.on('close', () => done());
        socket.on('connect', () => {
          socket.write(text);
          if (reset) socket.resetAndDestroy();
          else setTimeout(() => socket.destroy(), 20);
        });
      });
    const upgrade = (headers: string): string =>
      `GET /share/screen HTTP/1.1\r\n${headers}Connection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: AAAAAAAAAAAAAAAAAAAAAA==\r\n\r\n`;
    const texts = [
      upgrade('Host: evil.example\r\nOrigin: http://evil.example\r\n'),
      upgrade(`Host: ${host}\r\nOrigin: http://${host}\r\n`),
      upgrade(`Host: ${host}\r\n`),
      upgrade('').replace('13', '99'),
      'GET / HTTP/1.1\r\nHost: ',
      '\u0000\u0001\u0002',
      'POST /share/screen HTTP/9.9\r\n\r\n',
    ];
    for (let round = 0; round < 20; round++) {
      await Promise.all(Array.from({ length: 50 }, (_, i) => odd(texts[i % texts.length]!, i % 3 > 0)));
    }
    const desk = await open('/share/desk');
    const screen = await join(await codeOf(desk));
    await screen.hear('joined');
  });

  it('lets a screen that lost the line come back by itself', async () => {
    const desk = await open('/share/desk');
    desk.say({ kind: 'show', show: SHOW });
    const first = await join(await codeOf(desk));
    const { pass } = await first.hear('joined');
    first.socket.terminate();
    const again = await open('/share/screen');
    again.say({ kind: 'back', pass });
    expect(await again.hear('show')).toMatchObject({ show: SHOW });
    const stranger = await open('/share/screen');
    stranger.say({ kind: 'back', pass: 'made up' });
    expect(await stranger.hear('refused')).toMatchObject({ why: 'pass' });
  });

  it('says that the desk is gone, and that it is back', async () => {
    const desk = await open('/share/desk');
    const screen = await join(await codeOf(desk));
    expect(await screen.hear('desk')).toMatchObject({ there: true });
    desk.socket.close();
    expect(await screen.hear('desk', 2)).toMatchObject({ there: false });
    await open('/share/desk');
    expect(await screen.hear('desk', 3)).toMatchObject({ there: true });
  });

  it('has one desk: another takes over', async () => {
    const first = await open('/share/desk');
    await open('/share/desk');
    await first.hear('taken');
    await first.closed;
  });

  it('is told nothing by a screen, and takes no harm from what is no message', async () => {
    const desk = await open('/share/desk');
    const screen = await join(await codeOf(desk));
    await screen.hear('joined');
    screen.say({ kind: 'news', news: NEWS });
    screen.say({ kind: 'new-code' });
    screen.socket.send('{');
    screen.socket.send(Buffer.from([1, 2, 3]));
    desk.socket.send('nonsense');
    desk.say({ kind: 'news', news: { playing: 'yes' } });
    desk.say({ kind: 'news', news: NEWS });
    await screen.hear('news');
    expect(screen.told.filter((m) => m.kind === 'news')).toHaveLength(1);
    expect(desk.told.filter((m) => m.kind === 'code')).toHaveLength(1);
    screen.socket.send('x'.repeat(5000));
    await screen.closed;
  });

  it('refuses pages from elsewhere, foreign hosts and other paths', async () => {
    const refused = (path: string, headers: Record<string, string>): Promise<number> =>
      new Promise((resolve, reject) => {
        const asked = request(`http://${host}${path}`, {
          headers: {
            Connection: 'Upgrade',
            Upgrade: 'websocket',
            'Sec-WebSocket-Version': '13',
            'Sec-WebSocket-Key': 'AAAAAAAAAAAAAAAAAAAAAA==',
            ...headers,
          },
        });
        asked.on('response', (r) => resolve(r.statusCode ?? 0));
        asked.on('upgrade', () => resolve(101));
        asked.on('error', reject);
        asked.end();
      });
    expect(await refused('/share/desk', { Origin: 'http://elsewhere.example' })).toBe(403);
    expect(await refused('/share/screen', {})).toBe(403);
    expect(await refused('/share/screen', { Host: 'evil.example', Origin: 'http://evil.example' })).toBe(403);
    expect(await refused('/share/other', { Origin: `http://${host}` })).toBe(404);
    expect(await refused('/share/screen', { Origin: `http://${host}` })).toBe(101);
  });

  it('ends a line that does not answer any more', async () => {
    stop();
    await start({ aliveEvery: 1000 });
    const desk = await open('/share/desk');
    const screen = await join(await codeOf(desk));
    await screen.hear('joined');
    // It takes nothing any more, and so answers nothing.
    screen.socket.pause();
    expect(await desk.hear('screens', 3)).toMatchObject({ count: 0 });
  });
});
