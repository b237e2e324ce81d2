import { wrap, type Remote } from 'comlink';
import { nanoid } from 'nanoid';
import type { Show } from '../../core/show';
import { writtenOf, type ShowTonight } from '../../core/tonight';
import { lifeLock, type Living } from '../../workers/life';
import type { ShowUpdate } from '../../workers/protocol';
import { updateOf } from '../../workers/showMirror';
import type { WithPage } from './withPage';

/** A worker that did not answer, and did not when it was started anew and asked again. */
export class ThreadFailed extends Error {
  override readonly name = 'ThreadFailed';
}

/** How often a question is asked before it counts as one that cannot be answered. */
const TRIES = 3;

interface Question {
  tries: number;
  readonly ask: () => void;
  readonly fail: (error: Error) => void;
}

/** Milliseconds until a worker is started anew that ended before it answered anything: the first at once, each further one twice as late. */
const AGAIN_AFTER = 250;
const AGAIN_AT_MOST = 30_000;
/** After so many starts in a row that came to nothing the thread counts as broken. */
const BROKEN_AFTER = 4;

/** What every worker of a show can do. */
interface Shown {
  update(update: ShowUpdate): void;
}

/** What a thread needs of the browser. */
export interface Starter {
  /** Starts the worker under a name. */
  readonly start: (name: string) => Worker;
  /** Calls back when the worker of a name has ended, however that came about. */
  readonly ended: (name: string, tell: () => void) => void;
  /** Ends a worker. */
  readonly end: (worker: Worker) => void;
}

/**
 * Workers that end with their page. The browser's locks tell when one has ended before that: it holds one of
 * its name as long as it lives.
 */
export const byLocks = (page: WithPage, start: Starter['start']): Starter => ({
  start: (name) => page.keep(start(name)),
  ended: (name, tell) => {
    // The worker has to have it first: it asks for it before it answers anything.
    void navigator.locks?.request(lifeLock(name), () => {
      if (!page.left) tell();
    });
  },
  end: (worker) => page.end(worker),
});

/**
 * A worker that is told of the show, and may die: it is started anew, told everything again, and
 * asked again what it did not answer. `onLost` hears of it. One that cannot be started at all is tried
 * less and less often; `onBroken` hears that it cannot, and that it can again.
 */
export class Thread<W extends Shown> {
  private worker!: Worker;
  private remote!: Remote<W>;
  private shown: Show | undefined;
  /** What the worker was sent last; undefined where it has to be sent the whole. */
  private sent: Show | undefined;
  private readonly open = new Set<Question>();
  private life = 0;
  /** Starts since the last one that answered. */
  private failures = 0;
  private waiting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly starter: Starter,
    /** Done each time the worker is started. */
    private readonly greet: (remote: Remote<W>) => void = () => undefined,
    private readonly onLost: () => void = () => undefined,
    private readonly onBroken: (broken: boolean) => void = () => undefined,
  ) {
    this.start();
  }

  /** The show that questions are about from now on: workers are told it as it is written, and make it tonight's. */
  show(show: Show | ShowTonight): void {
    const written = writtenOf(show);
    if (this.shown === written) return;
    this.shown = written;
    this.tell();
  }

  /** Asks the worker, about the show that it was told of last. Rejects with what it throws, or when it dies again and again. */
  ask<T>(run: (remote: Remote<W>) => Promise<T>): Promise<T> {
    return new Promise((resolve, reject) => {
      const question: Question = {
        tries: 0,
        ask: () => {
          question.tries += 1;
          const { life } = this;
          run(this.remote).then(
            (answer) => {
              if (this.open.delete(question)) resolve(answer);
            },
            (error: unknown) => {
              // What an earlier worker did not get done is asked of the new one.
              if (life === this.life && this.open.delete(question)) reject(error);
            },
          );
        },
        fail: reject,
      };
      this.open.add(question);
      question.ask();
    });
  }

  /** Ends the worker for good. */
  end(): void {
    this.life = -1;
    clearTimeout(this.waiting);
    this.starter.end(this.worker);
  }

  private start(): void {
    const life = ++this.life;
    const name = nanoid(12);
    this.worker = this.starter.start(name);
    const lost = (): void => {
      if (life === this.life) this.fell();
    };
    this.worker.addEventListener('error', lost);
    this.worker.addEventListener('messageerror', lost);
    this.remote = wrap<W>(this.worker);
    this.greet(this.remote);
    this.sent = undefined;
    this.tell();
    (this.remote as unknown as Remote<Living>).alive().then(() => {
      if (life !== this.life) return;
      if (this.failures >= BROKEN_AFTER) this.onBroken(false);
      this.failures = 0;
      this.starter.ended(name, lost);
    }, lost);
  }

  private fell(): void {
    this.life += 1;
    this.starter.end(this.worker);
    this.failures += 1;
    if (this.failures === BROKEN_AFTER) this.onBroken(true);
    const wait = this.failures === 1 ? 0 : Math.min(AGAIN_AT_MOST, AGAIN_AFTER * 2 ** (this.failures - 2));
    if (wait === 0) this.startAnew();
    else this.waiting = setTimeout(() => this.startAnew(), wait);
  }

  private startAnew(): void {
    this.start();
    this.onLost();
    for (const question of this.open) {
      if (question.tries < TRIES) question.ask();
      else {
        this.open.delete(question);
        question.fail(new ThreadFailed('the worker ended again and again'));
      }
    }
  }

  private tell(): void {
    const { shown, sent, life } = this;
    if (!shown || sent === shown) return;
    this.sent = shown;
    const update = this.remote.update as unknown as (u: ShowUpdate) => Promise<void>;
    // An update counts as sent when it was answered; one that was not is followed by the whole show.
    update(updateOf(sent, shown)).catch(() => {
      if (life !== this.life || sent === undefined) return;
      this.sent = undefined;
      this.tell();
    });
  }
}
