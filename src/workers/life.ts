/** Name of the lock that a worker holds as long as it lives. */
export const lifeLock = (name: string): string => `hollow-lantern.alive.${name}`;

export interface Living {
  /** Answers when the worker holds the lock of its life. */
  alive(): Promise<void>;
}

/**
 * Has a worker take the lock of its life: the browser gives it free when the worker ends, however
 * that comes about, and the page, which waits for it, hears of it. The page names the worker.
 */
export function living<T extends object>(worker: T): T & Living {
  const { name } = globalThis as unknown as { readonly name: string };
  const held = new Promise<void>((resolve) => {
    // Pages from another machine over plain HTTP have no locks.
    if (navigator.locks === undefined) resolve();
    else void navigator.locks.request(lifeLock(name), () => (resolve(), new Promise<never>(() => undefined)));
  });
  return Object.assign(worker, { alive: () => held });
}
