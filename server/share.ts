import { randomBytes } from 'node:crypto';
import type { IncomingMessage, Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import type { Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { CODE_SECONDS, Codes } from './codes';
import { pairLines } from './pair';
import {
  fromDeskSchema,
  fromScreenSchema,
  readLine,
  type FromDesk,
  type ToDesk,
  type ToScreen,
} from '../src/core/formats/line';

/** A pass lets its screen come back this long after it was used last. */
const PASS_HOURS = 12;
/** A line has to say who it is within this time, in milliseconds, and may say this much until then. */
const SAYS_WITHIN = 10_000;
const WORDS = 5;
/** Lines that have not said who they are: of one address, and in all. Of more, the oldest is closed. */
const STRANGERS_OF_ONE = 4;
const STRANGERS = 64;
/** Connections of one address, whatever they are for. */
const CONNECTIONS_OF_ONE = 48;
/** The largest show that is passed on, in bytes, and the largest thing that a screen may say. */
const SHOW_BYTES = 64 << 20;
const SCREEN_BYTES = 1024;
/** Screens at once. */
const SCREENS = 32;
/** A line is asked so often whether it still stands, in milliseconds. */
const ALIVE_EVERY = 2000;
/** A screen hears so often, in milliseconds, that its line stands: within two seconds it knows that it does not. */
const TELL_EVERY = 600;
/** The desk hears of wrong codes so often at the most, in milliseconds. */
const TRIES_TOLD_EVERY = 500;
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
  /** Milliseconds within which a line has to say who it is. */
  readonly saysWithin?: number;
}

/** A line of a screen, until it has said who it is and after. */
interface ScreenLine {
  readonly socket: WebSocket;
  readonly address: string;
  /** Its pass, once it is let in. */
  pass: string | null;
  /** Messages and pings that came in all; of a screen that is in, since it was last asked whether it stands. */
  words: number;
  readonly cutOff: ReturnType<typeof setTimeout>;
}

/**
 * Passes the stage of one desk on to screens elsewhere. The desk is on this machine; a screen joins by a
 * code that it shows, which holds for one screen and a few minutes. Screens are told, and tell nothing.
 */
export function share(
  server: Server,
  { addresses, now, aliveEvery = ALIVE_EVERY, saysWithin = SAYS_WITHIN }: Options,
): { close: () => void } {
  const desks = new WebSocketServer({ noServer: true, maxPayload: SHOW_BYTES });
  const screens = new WebSocketServer({ noServer: true, maxPayload: SCREEN_BYTES });
  /** Passes with the time of their last use. */
  const passes = new Map<string, number>();
  /** Lines of screens in the order in which they came. */
  const lines = new Set<ScreenLine>();
  const codes = new Codes(now);
  const connections = new Map<string, number>();
  const standing = new WeakSet<WebSocket>();
  const stands = (socket: WebSocket): void => {
    standing.add(socket);
    socket.on('pong', () => standing.add(socket));
  };
  const pair = pairLines({ addresses, now, saysWithin, stands });
  let desk: WebSocket | null = null;
  let lastShow: string | null = null;
  let lastNews: string | null = null;

  const toDesk = (message: ToDesk): void => desk?.send(JSON.stringify(message));
  const toScreen = (screen: WebSocket, message: ToScreen): void => screen.send(JSON.stringify(message));
  const toAll = (text: string, droppable: boolean): void => {
    for (const { socket } of joined()) if (!droppable || socket.bufferedAmount < BEHIND) socket.send(text);
  };
  const joined = (): readonly ScreenLine[] => [...lines].filter((l) => l.pass !== null);
  const strangers = (): readonly ScreenLine[] => [...lines].filter((l) => l.pass === null);
  const count = (): void => toDesk({ kind: 'screens', count: joined().length });
  const drop = (line: ScreenLine): void => {
    if (!lines.delete(line)) return;
    clearTimeout(line.cutOff);
    line.socket.terminate();
    if (line.pass !== null) count();
  };

  const fromDesk = (message: FromDesk): void => {
    if (message.kind === 'new-code') {
      toDesk({ kind: 'code', code: codes.make(), seconds: CODE_SECONDS });
    } else if (message.kind === 'end-screens') {
      passes.clear();
      for (const line of joined()) drop(line);
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
    stands(socket);
    toDesk({ kind: 'addresses', addresses: [...addresses] });
    count();
    toAll(JSON.stringify({ kind: 'desk', there: true } satisfies ToScreen), false);
    socket.on('message', (data, binary) => {
      const message = binary ? undefined : readLine(fromDeskSchema, textOf(data));
      if (message && socket === desk) fromDesk(message);
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (desk !== socket) return;
      desk = null;
      codes.end();
      toAll(JSON.stringify({ kind: 'desk', there: false } satisfies ToScreen), false);
    });
  });

  /** The desk hears that somebody tries codes: now, or, where it has just heard so, a moment later with how many. */
  let triesToTell = 0;
  let tellingTries: ReturnType<typeof setTimeout> | undefined;
  const tellTry = (): void => {
    triesToTell += 1;
    tellingTries ??= setTimeout(() => {
      tellingTries = undefined;
      toDesk({ kind: 'wrong-codes', count: triesToTell });
      triesToTell = 0;
    }, TRIES_TOLD_EVERY);
  };

  /** Whether a pass is still good. */
  const knows = (pass: string): boolean => {
    const until = now() - PASS_HOURS * 3_600_000;
    for (const [other, used] of passes) if (used < until) passes.delete(other);
    return passes.has(pass);
  };

  const welcome = (line: ScreenLine, pass: string): void => {
    // One screen a pass: whoever comes back has lost the line that it had.
    for (const other of joined()) if (other.pass === pass) drop(other);
    passes.set(pass, now());
    clearTimeout(line.cutOff);
    line.pass = pass;
    line.words = 0;
    const { socket } = line;
    toScreen(socket, { kind: 'joined', pass });
    toScreen(socket, { kind: 'desk', there: desk !== null });
    if (lastShow !== null) socket.send(lastShow);
    if (lastNews !== null) socket.send(lastNews);
    count();
  };

  const heard = (line: ScreenLine, data: unknown, binary: boolean): void => {
    if (line.pass !== null) return;
    const message = binary ? undefined : readLine(fromScreenSchema, textOf(data));
    if (!message) return;
    const refuse = (why: Extract<ToScreen, { kind: 'refused' }>['why']): void => {
      toScreen(line.socket, { kind: 'refused', why });
      line.socket.close();
    };
    if (message.kind === 'back' ? !knows(message.pass) : false) refuse('pass');
    else if (joined().length >= SCREENS) refuse('full');
    else if (message.kind === 'back') welcome(line, message.pass);
    else if (codes.often(line.address)) refuse('often');
    else if (!codes.takes(message.code, line.address)) {
      refuse('code');
      tellTry();
    } else welcome(line, randomBytes(24).toString('hex'));
  };

  screens.on('connection', (socket: WebSocket, request: IncomingMessage) => {
    const address = request.socket.remoteAddress ?? '';
    const cutOff = setTimeout(() => drop(line), saysWithin);
    const line: ScreenLine = { socket, address, pass: null, words: 0, cutOff };
    lines.add(line);
    // Whoever comes with the code says so at once: those who have said nothing for longest make room.
    const own = strangers().filter((l) => l.address === address);
    if (own.length > STRANGERS_OF_ONE) drop(own[0]!);
    else if (strangers().length > STRANGERS) drop(strangers()[0]!);
    stands(socket);
    /** A line that says too much is closed: a screen has next to nothing to say. */
    const counts = (): boolean => {
      line.words += 1;
      if (line.words <= WORDS) return true;
      drop(line);
      return false;
    };
    socket.on('ping', () => void counts());
    socket.on('error', () => undefined);
    socket.on('close', () => drop(line));
    socket.on('message', (data, binary) => {
      if (counts()) heard(line, data, binary);
    });
  });

  const upgrade = (request: IncomingMessage, socket: Duplex, head: Buffer): void => {
    // A line that is reset while it is refused has nobody else to hear of it: unheard, it would end the process.
    socket.on('error', () => socket.destroy());
    const path = (request.url ?? '').split('?')[0];
    const host = request.headers.host ?? '';
    const refuse = (status: string): void => {
      socket.once('finish', () => socket.destroy());
      socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
    };
    // Another computer's server is no page, and names no origin; what it may, its code says.
    const isServer = path === '/share/second' && request.headers.origin === undefined;
    // Only a page that this server itself served: a page from elsewhere names its own place as its origin.
    if (!isServer && originHost(request.headers.origin) !== host) return refuse('403 Forbidden');
    if (!answersTo(host, addresses)) return refuse('403 Forbidden');
    const isHere = LOOPBACK.has(request.socket.remoteAddress ?? '');
    if (path === '/share/desk') {
      if (!isHere) return refuse('403 Forbidden');
      desks.handleUpgrade(request, socket, head, (ws) => desks.emit('connection', ws, request));
    } else if (path === '/share/screen') {
      screens.handleUpgrade(request, socket, head, (ws) => screens.emit('connection', ws, request));
    } else if (path === '/share/second' || path === '/share/first' || path === '/share/follow') {
      if (!isHere && path !== '/share/second') return refuse('403 Forbidden');
      pair.open(path, request, socket, head);
    } else refuse('404 Not Found');
  };
  server.on('upgrade', upgrade);

  /** No address has more connections than a few screens need. */
  const connected = (socket: Socket): void => {
    const address = socket.remoteAddress ?? '';
    const open = (connections.get(address) ?? 0) + 1;
    connections.set(address, open);
    socket.once('close', () => {
      const left = (connections.get(address) ?? 1) - 1;
      if (left > 0) connections.set(address, left);
      else connections.delete(address);
    });
    socket.on('error', () => socket.destroy());
    if (open > CONNECTIONS_OF_ONE && !LOOPBACK.has(address)) socket.destroy();
  };
  server.on('connection', connected);
  // What is begun and not gone on with holds nothing for long.
  server.headersTimeout = 10_000;
  server.requestTimeout = 30_000;

  // A line that is gone without a word is found by asking.
  const asking = setInterval(() => {
    for (const socket of [...desks.clients, ...screens.clients, ...pair.clients()]) {
      if (!standing.delete(socket)) socket.terminate();
      else socket.ping();
    }
    for (const line of joined()) line.words = 0;
  }, aliveEvery);
  asking.unref();
  // A screen cannot see a ping: that nothing comes tells it that the line is lost.
  const telling = setInterval(() => {
    toAll(JSON.stringify({ kind: 'desk', there: desk !== null } satisfies ToScreen), true);
  }, TELL_EVERY);
  telling.unref();

  return {
    close: () => {
      clearInterval(asking);
      clearInterval(telling);
      clearTimeout(tellingTries);
      server.off('upgrade', upgrade);
      server.off('connection', connected);
      for (const line of lines) clearTimeout(line.cutOff);
      for (const socket of [...desks.clients, ...screens.clients]) socket.terminate();
      desks.close();
      screens.close();
      pair.close();
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
