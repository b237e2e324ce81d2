import type { Micros } from '../core/time';

/** What waits for its time; what has the same time keeps its order. */
export class InTime<T extends { readonly at: Micros }> {
  private waiting: T[] = [];

  put(entry: T): void {
    let i = this.waiting.length;
    while (i > 0 && this.waiting[i - 1]!.at > entry.at) i -= 1;
    this.waiting.splice(i, 0, entry);
  }

  /** What is due at a time, in order; it waits no longer. */
  take(now: Micros): readonly T[] {
    const count = this.waiting.findIndex((e) => e.at > now);
    return this.waiting.splice(0, count < 0 ? this.waiting.length : count);
  }

  /** What still waits, in order. */
  get rest(): readonly T[] {
    return this.waiting;
  }

  /** What is of no use any more waits no longer. */
  drop(useless: (entry: T) => boolean): void {
    this.waiting = this.waiting.filter((e) => !useless(e));
  }
}
