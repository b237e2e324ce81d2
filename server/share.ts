import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import type { IncomingMessage, Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import {
  fromDeskSchema,
  fromScreenSchema,
  readLine,
  type FromDesk,
  type ToDesk,
  type ToScreen,
} from '../src/core/formats/line';

/** A code holds so long, for one screen. */
export const CODE_SECONDS = 180;
/** After so many wrong codes the code is void; one address may try so often a minute. */
const WRONG_CODES = 5;
const TRIES_A_MINUTE = 10;
/** The largest show that is passed on, in bytes, and the largest thing that a screen may say. */
const SHOW_BYTES = 64 << 20;
const SCREEN_BYTES = 1024;
/** Screens at once. */
const SCREENS = 32;
/** A line is asked so often whether it still stands, in milliseconds. */
const ALIVE_EVERY = 2000;
/** What a slow screen has not taken yet, in bytes: beyond that, news are left out until it has. */
const BEHIND = 1 << 20;

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);

/** Addresses of this machine in its networks. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter((a) => a.family === 'IPv4' && !a.internal)
    .map((a) => a.address);

interface Options {
  /** Addresses that screens are told of, with the port. */
  readonly addresses: readonly string[];
  /** Milliseconds from any fixed time. */
  readonly now: () => number;
  readonly aliveEvery?: number;
}

/**
 * Passes the stage of one desk on to screens elsewhere. The desk is on this machine; a screen joins by a
 * code that it shows, which holds for one screen and a few minutes. Screens are told, and tell nothing.
 */
export function share(server: Server, { addresses, now, aliveEvery = ALIVE_EVERY }: Options): { close: () => void } {
  const desks = new WebSocketServer({ noServer: true, maxPayload: SHOW_BYTES });
  const screens = new WebSocketServer({ noServer: true, maxPayload: SCREEN_BYTES });
  const passes = new Set<string>();
  const joined = new Set<WebSocket>();
  const tries = new Map<string, number[]>();
  const standing = new WeakSet<WebSocket>();
  let desk: WebSocket | null = null;
  let code: { readonly text: string; readonly until: number; wrong: number } | null = null;
  let lastShow: string | null = null;
  let lastNews: string | null = null;

  const toDesk = (message: ToDesk): void => desk?.send(JSON.stringify(message));
  const toScreen = (screen: WebSocket, message: ToScreen): void => screen.send(JSON.stringify(message));
  const toAll = (text: string, droppable: boolean): void => {
    for (const screen of joined) if (!droppable || screen.bufferedAmount < BEHIND) screen.send(text);
  };
  const count = (): void => toDesk({ kind: 'screens', count: joined.size });

  const fromDesk = (message: FromDesk): void => {
    if (message.kind === 'new-code') {
      code = { text: String(randomInt(1_000_000)).padStart(6, '0'), until: now() + CODE_SECONDS * 1000, wrong: 0 };
      toDesk({ kind: 'code', code: code.text, seconds: CODE_SECONDS });
    } else if (message.kind === 'show') {
      lastShow = JSON.stringify(message);
      lastNews = null;
      toAll(lastShow, false);
    } else {
      lastNews = JSON.stringify(message);
      toAll(lastNews, true);
    }
  };

  desks.on('connection', (socket: WebSocket) => {
    // A desk that is opened anew takes over: it is the same person's.
    if (desk) {
      desk.send(JSON.stringify({ kind: 'taken' } satisfies ToDesk));
      desk.close();
    }
    desk = socket;
    standing.add(socket);
    toDesk({ kind: 'addresses', addresses: [...addresses] });
    count();
    toAll(JSON.stringify({ kind: 'desk', there: true } satisfies ToScreen), false);
    socket.on('pong', () => standing.add(socket));
    socket.on('message', (data, binary) => {
      const message = binary ? undefined : readLine(fromDeskSchema, textOf(data));
      if (message && socket === desk) fromDesk(message);
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (desk !== socket) return;
      desk = null;
      code = null;
      toAll(JSON.stringify({ kind: 'desk', there: false } satisfies ToScreen), false);
    });
  });

  /** Whether an address tries too often. */
  const often = (address: string): boolean => {
    const recent = (tries.get(address) ?? []).filter((t) => t > now() - 60_000);
    tries.set(address, [...recent, now()].slice(-TRIES_A_MINUTE - 1));
    return recent.length >= TRIES_A_MINUTE;
  };

  const takes = (typed: string): boolean => {
    if (!code || now() > code.until || code.wrong >= WRONG_CODES) return false;
    const same =
      typed.length === code.text.length && timingSafeEqual(Buffer.from(typed.padEnd(6)), Buffer.from(code.text));
    if (same) code = null;
    else code.wrong += 1;
    return same;
  };

  const welcome = (screen: WebSocket, pass: string): void => {
    joined.add(screen);
    toScreen(screen, { kind: 'joined', pass });
    toScreen(screen, { kind: 'desk', there: desk !== null });
    if (lastShow !== null) screen.send(lastShow);
    if (lastNews !== null) screen.send(lastNews);
    count();
  };

  screens.on('connection', (screen: WebSocket, request: IncomingMessage) => {
    const address = request.socket.remoteAddress ?? '';
    standing.add(screen);
    screen.on('pong', () => standing.add(screen));
    screen.on('error', () => undefined);
    screen.on('close', () => {
      if (joined.delete(screen)) count();
    });
    screen.on('message', (data, binary) => {
      const message = binary ? undefined : readLine(fromScreenSchema, textOf(data));
      if (!message || joined.has(screen)) return;
      const refuse = (why: Extract<ToScreen, { kind: 'refused' }>['why']): void => {
        toScreen(screen, { kind: 'refused', why });
        screen.close();
      };
      if (message.kind === 'back') {
        if (passes.has(message.pass)) welcome(screen, message.pass);
        else refuse('pass');
      } else if (often(address)) refuse('often');
      else if (!takes(message.code)) refuse('code');
      else {
        const pass = randomBytes(24).toString('hex');
        passes.add(pass);
        welcome(screen, pass);
      }
    });
  });

  const upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer): void => {
    const path = (request.url ?? '').split('?')[0];
    const host = request.headers.host ?? '';
    const refuse = (status: string): void => void socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\n\r\n`);
    // Only a page that this server itself served: a page from elsewhere names its own place as its origin.
    if (originHost(request.headers.origin) !== host || !answersTo(host, addresses)) return refuse('403 Forbidden');
    if (path === '/share/desk') {
      if (!LOOPBACK.has(request.socket.remoteAddress ?? '')) return refuse('403 Forbidden');
      desks.handleUpgrade(request, socket, head, (ws) => desks.emit('connection', ws, request));
    } else if (path === '/share/screen') {
      if (screens.clients.size >= SCREENS) return refuse('503 Service Unavailable');
      screens.handleUpgrade(request, socket, head, (ws) => screens.emit('connection', ws, request));
    } else refuse('404 Not Found');
  };
  server.on('upgrade', upgrade);

  // A line that is gone without a word is found by asking.
  const asking = setInterval(() => {
    for (const socket of [...desks.clients, ...screens.clients]) {
      if (!standing.delete(socket)) socket.terminate();
      else socket.ping();
    }
    // A screen cannot see a ping: that nothing comes tells it that the line is lost.
    toAll(JSON.stringify({ kind: 'desk', there: desk !== null } satisfies ToScreen), true);
  }, aliveEvery);
  asking.unref();

  return {
    close: () => {
      clearInterval(asking);
      server.off('upgrade', upgrade);
      for (const socket of [...desks.clients, ...screens.clients]) socket.terminate();
      desks.close();
      screens.close();
    },
  };
}

const textOf = (data: unknown): string => (Buffer.isBuffer(data) ? data.toString('utf8') : '');

const originHost = (origin: string | undefined): string | null => {
  try {
    return new URL(origin ?? '').host;
  } catch {
    return null;
  }
};

const answersTo = (host: string, addresses: readonly string[]): boolean => {
  const name = host.replace(/:\d+$/, '');
  return ['localhost', '127.0.0.1', '[::1]'].includes(name) || addresses.some((a) => a.includes(`//${name}:`));
};
