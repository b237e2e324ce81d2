import type { Micros } from '../time';

interface Entry {
  readonly at: Micros;
  readonly order: number;
  readonly run: () => void;
}

/** More than anything that is put in. */
const FIRST = 2 ** 50;

/** What is to happen, by time; at the same time what was put first, then in the order in which it was put in. A binary heap. */
export class EventQueue {
  private readonly heap: Entry[] = [];
  private count = 0;

  get empty(): boolean {
    return this.heap.length === 0;
  }

  push(at: Micros, run: () => void): void {
    this.put({ at, order: this.count++, run });
  }

  /** Ahead of all else that happens at the same time, behind what was put first before. */
  pushFirst(at: Micros, run: () => void): void {
    this.put({ at, order: this.count++ - FIRST, run });
  }

  private put(entry: Entry): void {
    const { heap } = this;
    let place = heap.length;
    heap.push(entry);
    while (place > 0) {
      const parent = (place - 1) >> 1;
      if (!before(entry, heap[parent]!)) break;
      heap[place] = heap[parent]!;
      place = parent;
    }
    heap[place] = entry;
  }

  /** Runs everything up to and at `until`, also what is put in meanwhile. */
  runUntil(until: Micros): void {
    for (let next = this.heap[0]; next && next.at <= until; next = this.heap[0]) {
      this.take();
      next.run();
    }
  }

  private take(): void {
    const { heap } = this;
    const last = heap.pop()!;
    if (heap.length === 0) return;
    let place = 0;
    for (;;) {
      let child = place * 2 + 1;
      if (child >= heap.length) break;
      if (child + 1 < heap.length && before(heap[child + 1]!, heap[child]!)) child += 1;
      if (!before(heap[child]!, last)) break;
      heap[place] = heap[child]!;
      place = child;
    }
    heap[place] = last;
  }
}

const before = (a: Entry, b: Entry): boolean => a.at < b.at || (a.at === b.at && a.order < b.order);
