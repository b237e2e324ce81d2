import { randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocket, WebSocketServer } from 'ws';
import {
  fromFirstSchema,
  fromFollowerSchema,
  fromSecondSchema,
  isForPeer,
  readLine,
  type ToFirst,
  type ToSecond,
} from '../src/core/formats/line';
import { CODE_SECONDS, Codes } from './codes';

/** The largest message that one computer tells the other, in bytes: a whole show. */
const SHOW_BYTES = 64 << 20;
/** Until a second computer was let in it may say this much, in bytes. */
const STRANGER_BYTES = 1024;
/** Second computers that have not said yet who they are. */
const STRANGERS = 4;

interface Options {
  /** Addresses that screens are told of, with the port. */
  readonly addresses: readonly string[];
  /** Milliseconds from any fixed time. */
  readonly now: () => number;
  /** Milliseconds within which a line has to say who it is. */
  readonly saysWithin: number;
  /** A line is asked from now on whether it still stands. */
  readonly stands: (socket: WebSocket) => void;
}

/**
 * The line between two computers of one show. The first one is a page on this machine; the second comes over the
 * network, through a server of its own, with a code that the first one shows, or with what it was given then. What
 * they tell each other is passed on as it is.
 */
export function pairLines({ addresses, now, saysWithin, stands }: Options) {
  const servers = {
    '/share/first': new WebSocketServer({ noServer: true, maxPayload: SHOW_BYTES }),
    '/share/second': new WebSocketServer({ noServer: true, maxPayload: SHOW_BYTES }),
    '/share/follow': new WebSocketServer({ noServer: true, maxPayload: SHOW_BYTES }),
  };
  const codes = new Codes(now);
  let first: WebSocket | null = null;
  let second: WebSocket | null = null;
  /** By what a second computer comes back that was let in. */
  let pass: string | null = null;

  const toFirst = (message: ToFirst): void => first?.send(JSON.stringify(message));
  const toSecond = (message: ToSecond, socket = second): void => socket?.send(JSON.stringify(message));

  servers['/share/first'].on('connection', (socket: WebSocket) => {
    stands(socket);
    if (first) {
      toFirst({ kind: 'taken' });
      first.close();
    }
    first = socket;
    const own = addresses.map((a) => new URL(a).host);
    toFirst({ kind: 'addresses', addresses: own });
    toFirst({ kind: 'peer', there: second !== null });
    toSecond({ kind: 'peer', there: true });
    socket.on('message', (data, binary) => {
      if (socket !== first || binary) return;
      const text = textOf(data);
      if (isForPeer(text)) return void second?.send(text);
      const message = readLine(fromFirstSchema, text);
      if (message?.kind === 'new-code') toFirst({ kind: 'code', code: codes.make(), seconds: CODE_SECONDS });
      else if (message?.kind === 'pass') pass = message.pass;
      else if (message?.kind === 'end') {
        pass = null;
        second?.close();
      }
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (socket !== first) return;
      first = null;
      codes.end();
      toSecond({ kind: 'peer', there: false });
    });
  });

  const welcome = (socket: WebSocket, own: string): void => {
    // One second computer: whoever comes back has lost the line that it had, and another one takes its place.
    if (second) {
      toSecond({ kind: 'taken' });
      second.close();
    }
    second = socket;
    pass = own;
    toSecond({ kind: 'joined', pass: own });
    toSecond({ kind: 'peer', there: first !== null });
    toFirst({ kind: 'let-in', pass: own });
    toFirst({ kind: 'peer', there: true });
  };

  servers['/share/second'].on('connection', (socket: WebSocket, request: IncomingMessage) => {
    stands(socket);
    const address = request.socket.remoteAddress ?? '';
    const cutOff = setTimeout(() => socket.terminate(), saysWithin);
    const strangers = [...servers['/share/second'].clients].filter((s) => s !== second);
    if (strangers.length > STRANGERS) strangers[0]!.terminate();
    let isAsked = false;
    // What has not said who it is may not fill the memory with one large message either.
    let bytes = 0;
    const counts = (data: Buffer): void => {
      bytes += data.length;
      if (bytes > STRANGER_BYTES) socket.terminate();
    };
    request.socket.on('data', counts);
    socket.on('message', (data, binary) => {
      if (binary) return;
      const text = textOf(data);
      if (socket === second) {
        if (isForPeer(text)) first?.send(text);
        return;
      }
      // It has one word to say, and that is looked at once.
      if (isAsked) return void socket.terminate();
      isAsked = true;
      clearTimeout(cutOff);
      request.socket.off('data', counts);
      const refuse = (why: Extract<ToSecond, { kind: 'refused' }>['why']): void => {
        toSecond({ kind: 'refused', why }, socket);
        socket.close();
      };
      const message = readLine(fromSecondSchema, text);
      if (!message) socket.terminate();
      else if (message.kind === 'back') {
        if (codes.often(address)) refuse('often');
        else if (pass === null || pass !== message.pass) refuse('pass');
        else welcome(socket, pass);
      } else if (codes.often(address)) refuse('often');
      else if (!codes.takes(message.code, address)) {
        refuse('code');
        toFirst({ kind: 'wrong-codes', count: 1 });
      } else welcome(socket, randomBytes(24).toString('hex'));
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      clearTimeout(cutOff);
      if (socket !== second) return;
      second = null;
      toFirst({ kind: 'peer', there: false });
    });
  });

  // A page of this machine that follows another computer: what it says goes there, and what comes from there to it.
  servers['/share/follow'].on('connection', (socket: WebSocket) => {
    stands(socket);
    let far: WebSocket | null = null;
    const waiting: string[] = [];
    socket.on('message', (data, binary) => {
      if (binary) return;
      const text = textOf(data);
      if (far) {
        if (far.readyState === WebSocket.OPEN) far.send(text);
        else if (waiting.length < STRANGERS) waiting.push(text);
        return;
      }
      const message = readLine(fromFollowerSchema, text);
      const host = message && hostOf(message.address);
      if (!host) {
        toSecond({ kind: 'refused', why: 'address' }, socket);
        return void socket.close();
      }
      far = new WebSocket(`ws://${host}/share/second`, { handshakeTimeout: saysWithin, maxPayload: SHOW_BYTES });
      let wasOpen = false;
      far.on('open', () => {
        wasOpen = true;
        for (const said of waiting.splice(0)) far?.send(said);
      });
      far.on('message', (said, isBinary) => {
        if (!isBinary) socket.send(textOf(said));
      });
      far.on('error', () => undefined);
      far.on('close', () => {
        if (!wasOpen) toSecond({ kind: 'refused', why: 'unreachable' }, socket);
        socket.close();
      });
    });
    socket.on('error', () => undefined);
    socket.on('close', () => far?.terminate());
  });

  const clients = (): WebSocket[] => Object.values(servers).flatMap((s) => [...s.clients]);
  return {
    /** Takes a line on one of its paths. */
    open: (path: keyof typeof servers, request: IncomingMessage, socket: Duplex, head: Buffer): void => {
      const server = servers[path];
      server.handleUpgrade(request, socket, head, (ws) => server.emit('connection', ws, request));
    },
    clients,
    close: (): void => {
      for (const socket of clients()) socket.terminate();
      for (const server of Object.values(servers)) server.close();
    },
  };
}

const textOf = (data: unknown): string => (Buffer.isBuffer(data) ? data.toString('utf8') : '');

/** The port that a server has where nobody said another one. */
const USUAL_PORT = '4173';

/** A host and its port, of an address as one types it or copies it; null where it is none. */
export function hostOf(address: string): string | null {
  const found = /^(?:http:\/\/)?(\[[^\]]+\]|[^/:\s@]+)(?::(\d{1,5}))?(?:\/\S*)?$/i.exec(address.trim());
  const host = found && `${found[1]}:${found[2] ?? USUAL_PORT}`;
  try {
    return host && new URL(`http://${host}`).host === '' ? null : host;
  } catch {
    return null;
  }
}
