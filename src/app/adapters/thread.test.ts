import { expose, transferHandlers } from 'comlink';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { demoShow } from '../../core/demo';
import { applyEdit, setShowTitle, type Show } from '../../core/show';
import type { ShowUpdate } from '../../workers/protocol';
import { ShowMirror } from '../../workers/showMirror';
import { Thread, ThreadFailed, type Starter } from './thread';

interface Echo {
  update(update: ShowUpdate): void;
  title(): string;
  hang(): void;
  breakDown(): void;
}

const show = demoShow();
const open: MessagePort[] = [];
afterEach(() => {
  for (const port of open.splice(0)) port.close();
});

/** Workers that live in this thread and can be killed; a port of Node's speaks to the wrapper as a browser's does. */
function workers(refuses: (update: number) => boolean = () => false) {
  const started: { readonly updates: ShowUpdate[]; die: () => void; fail: () => void }[] = [];
  let updates = 0;
  const start = (): Worker => {
    const { port1, port2 } = new MessageChannel();
    open.push(port1, port2);
    const mirror = new ShowMirror();
    const own: ShowUpdate[] = [];
    const target = {
      alive: () => undefined,
      update: (update: ShowUpdate) => {
        if (refuses(++updates)) throw new Error('refused');
        own.push(update);
        mirror.update(update);
      },
      title: () => mirror.show.title,
      hang: () => new Promise(() => undefined),
      breakDown: () => {
        throw new Error('no such thing');
      },
    };
    expose(target, endpoint(port2));
    const listeners = new Map<string, () => void>();
    const worker = Object.assign(endpoint(port1), {
      terminate: () => port1.close(),
    });
    const listen = worker.addEventListener;
    worker.addEventListener = (type: string, run: never) => {
      if (type === 'message') listen(type, run);
      else listeners.set(type, run);
    };
    let ended = (): void => undefined;
    endings.push((tell) => (ended = tell));
    started.push({ updates: own, die: () => ended(), fail: () => listeners.get('error')?.() });
    return worker as unknown as Worker;
  };
  const endings: ((tell: () => void) => void)[] = [];
  const starter: Starter = {
    start,
    ended: (_, tell) => endings.at(-1)!(tell),
    end: (worker) => worker.terminate(),
  };
  return { started, starter };
}

/** What the wrapper needs of a port. */
function endpoint(port: MessagePort) {
  const handlers = new Map<unknown, (data: unknown) => void>();
  return {
    postMessage: (message: unknown, transfer?: never) => port.postMessage(message, transfer),
    addEventListener: (_: string, run: never) => {
      const handler = (data: unknown): void => (run as (e: unknown) => void)({ data, origin: '' });
      handlers.set(run, handler);
      port.on('message', handler);
    },
    removeEventListener: (_: string, run: never) => port.off('message', handlers.get(run)!),
    start: () => port.start(),
  };
}

const titled = (title: string, from: Show = show): Show => applyEdit(from, setShowTitle(from, title)!);

describe('a thread', () => {
  it('answers about the show that it was told of last', async () => {
    expect(transferHandlers.size).toBeGreaterThan(0);
    const { started, starter } = workers();
    const thread = new Thread<Echo>(starter);
    thread.show(show);
    thread.show(titled('Other'));
    expect(await thread.ask((w) => w.title())).toBe('Other');
    expect(started[0]!.updates.map((u) => u.songs.length)).toEqual([show.songs.length, 0]);
  });

  it('is started anew when it dies, told everything again and asked again', async () => {
    const { started, starter } = workers();
    const lost: string[] = [];
    const thread = new Thread<Echo>(starter, undefined, () => lost.push('lost'));
    thread.show(show);
    await thread.ask((w) => w.title());
    let tries = 0;
    const answer = thread.ask((w) => (++tries === 1 ? w.hang() : w.title()) as Promise<string>);
    await new Promise((r) => setTimeout(r, 5));
    started[0]!.die();
    expect(await answer).toBe(show.title);
    expect(lost).toEqual(['lost']);
    expect(started).toHaveLength(2);
    // What is told late by the first has no meaning any more.
    started[0]!.fail();
    expect(started).toHaveLength(2);
  });

  it('gives up a question that kills it again and again, and goes on with others', async () => {
    const { started, starter } = workers();
    const thread = new Thread<Echo>(starter);
    thread.show(show);
    const killing = thread.ask((w) => w.hang());
    const failed = expect(killing).rejects.toBeInstanceOf(ThreadFailed);
    for (let i = 1; i <= 3; i++) {
      // It lives, as its answer says, before it is killed.
      await thread.ask((w) => w.title());
      started.at(-1)!.fail();
      expect(started).toHaveLength(i + 1);
    }
    await failed;
    expect(await thread.ask((w) => w.title())).toBe(show.title);
    expect(started).toHaveLength(4);
  });

  it('that cannot be started is tried less and less often, and that is said once', () => {
    vi.useFakeTimers();
    try {
      const { started, starter } = workers();
      const said: boolean[] = [];
      const thread = new Thread<Echo>(starter, undefined, undefined, (broken) => said.push(broken));
      thread.show(show);
      // Each fails as soon as it is started, before it answers anything.
      const passed = (millis: number): number => {
        for (let at = 0; at < millis; at += 10) {
          started.at(-1)!.fail();
          vi.advanceTimersByTime(10);
        }
        return started.length;
      };
      expect(passed(2000)).toBeLessThanOrEqual(5);
      expect(said).toEqual([true]);
      expect(passed(60_000)).toBeLessThanOrEqual(11);
      expect(said).toEqual([true]);
      thread.end();
      vi.advanceTimersByTime(100_000);
      expect(started.length).toBeLessThanOrEqual(11);
    } finally {
      vi.useRealTimers();
    }
  });

  it('that works again after all is said, and answers', async () => {
    const { started, starter } = workers();
    const said: boolean[] = [];
    const thread = new Thread<Echo>(starter, undefined, undefined, (broken) => said.push(broken));
    thread.show(show);
    for (let i = 0; i < 4; i++) {
      started.at(-1)!.fail();
      await vi.waitUntil(() => started.length === i + 2, { timeout: 20_000, interval: 1 });
    }
    expect(await thread.ask((w) => w.title())).toBe(show.title);
    expect(said).toEqual([true, false]);
  });

  it('hands on what a question throws, and lives on', async () => {
    const { starter, started } = workers();
    const thread = new Thread<Echo>(starter);
    thread.show(show);
    await expect(thread.ask((w) => w.breakDown())).rejects.toThrow('no such thing');
    expect(await thread.ask((w) => w.title())).toBe(show.title);
    expect(started).toHaveLength(1);
  });

  it('sends the whole show again when an update was not taken', async () => {
    const { starter, started } = workers((n) => n === 2);
    const thread = new Thread<Echo>(starter);
    thread.show(show);
    await thread.ask((w) => w.title());
    thread.show(titled('Other'));
    // The refusal has to come back before the whole is sent: however long that takes.
    await vi.waitFor(async () => expect(await thread.ask((w) => w.title())).toBe('Other'), 30_000);
    expect(started[0]!.updates.map((u) => u.songs.length)).toEqual([show.songs.length, show.songs.length]);
  });
});
