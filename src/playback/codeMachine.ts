import { PIECES, frameMicros, fullFrame, labelOf, quarterFrames, type CodeRate } from '../core/clock';
import type { Bytes } from '../core/midi';
import type { Micros } from '../core/time';

/** How a stand-in for a playback machine sends its time code. */
export interface MachineWays {
  readonly rate: CodeRate;
  /** 1 is as fast as its rate says; below 0 it runs backwards. */
  readonly speed: number;
  /** At most so far is a message off its time, either way. */
  readonly jitter: Micros;
}

/** What somebody does to it. `place` is time from midnight. */
export type MachineAct =
  | ({ readonly kind: 'play'; readonly place: Micros } & MachineWays)
  | { readonly kind: 'stop' }
  /** Nothing leaves for so long, while it runs on. */
  | { readonly kind: 'drop-out'; readonly length: Micros };

/** A stand-in for a machine that plays back and sends time code: one that runs, stops, jumps, shakes and drops out. */
export class CodeMachine {
  private ways: MachineWays | null = null;
  /** Quarter frames from midnight of the next message, and when it is due. */
  private quarter = 0;
  private due: Micros = 0;
  private silentUntil: Micros = Number.NEGATIVE_INFINITY;
  private last: Micros = Number.NEGATIVE_INFINITY;
  private seed = 1;

  constructor(private readonly emit: (at: Micros, bytes: Bytes) => void) {}

  act(act: MachineAct, now: Micros): void {
    switch (act.kind) {
      case 'play': {
        const { kind: _, place, ...ways } = act;
        this.ways = ways;
        // Labels begin on even frames of their own: two frames are a whole label.
        const frame = Math.floor(place / frameMicros(ways.rate));
        this.quarter = frame * 4;
        this.due = now;
        return;
      }
      case 'stop': {
        if (!this.ways) return;
        const { rate } = this.ways;
        this.ways = null;
        this.send(now, fullFrame(labelOf(Math.floor(this.quarter / 4), rate), rate));
        return;
      }
      case 'drop-out':
        this.silentUntil = now + act.length;
    }
  }

  /** Lets time come to `now`. */
  advance(now: Micros): void {
    const { ways } = this;
    if (!ways) return;
    const { rate, speed, jitter } = ways;
    const length = frameMicros(rate) / 4 / Math.abs(speed);
    while (this.due + jitter <= now) {
      const piece = ((this.quarter % PIECES) + PIECES) % PIECES;
      const label = labelOf(Math.floor((this.quarter - piece) / 4), rate);
      const at = this.due + (jitter === 0 ? 0 : (this.random() * 2 - 1) * jitter);
      if (this.due >= this.silentUntil) this.send(at, quarterFrames(label, rate)[piece]!);
      this.quarter += speed < 0 ? -1 : 1;
      this.due += length;
    }
  }

  /** A cable keeps the order. */
  private send(at: Micros, bytes: Bytes): void {
    this.last = Math.max(this.last, at);
    this.emit(this.last, bytes);
  }

  private random(): number {
    this.seed = (Math.imul(this.seed, 1664525) + 1013904223) >>> 0;
    return this.seed / 2 ** 32;
  }
}
