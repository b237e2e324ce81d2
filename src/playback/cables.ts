import { DIN_BYTE_MICROS, type Bytes } from '../core/midi';
import type { RigSpec } from '../core/rig';
import type { Micros } from '../core/time';

interface Taken {
  readonly from: Micros;
  until: Micros;
}

/** Messages closer than this are sent as one: nothing is put between a bank select and its program. */
const TOGETHER: Micros = 3000;

/** What a cable could not take in time: so much later it was, and so long what follows has to be later too. */
interface Slip {
  readonly wanted: Micros;
  readonly by: Micros;
}

/** Messages older than this are dropped: placement goes in about the order of time. */
const KEPT: Micros = 1_000_000;

/**
 * The time that messages take on each port's cable: a 5-pin cable carries one byte after the other,
 * however many the operating system would accept. What is handed over ahead of its time keeps its
 * place; what is to leave at once goes into the room before it.
 */
export class Cables {
  private din = new Set<string>();
  private readonly taken = new Map<string, Taken[]>();
  private readonly slips = new Map<string, Slip>();
  private settles: Micros = 0;

  follow({ ports, units }: RigSpec): void {
    this.din = new Set(ports.filter((p) => p.cable === 'din').map((p) => p.id));
    const needs = units.map(({ pace }) => Math.max(pace.recall, pace.settle) + pace.variant);
    this.settles = Math.max(0, ...needs);
  }

  /**
   * When a message can leave: at `at` or as soon after it as its cable has room. That room is taken. What
   * follows a message that had to wait is as much later, as long as a unit may still be loading because of
   * it: the gaps between them stay, in which units take nothing.
   */
  place(portId: string, at: Micros, bytes: Bytes): Micros {
    const slip = this.slips.get(portId);
    const after = slip && at >= slip.wanted && at - slip.wanted <= this.settles ? slip.by : 0;
    const placed = this.reserve(portId, at + after, bytes);
    if (placed > at) this.slips.set(portId, { wanted: at, by: placed - at });
    else if (after === 0 && slip && at > slip.wanted + this.settles) this.slips.delete(portId);
    return placed;
  }

  /** When what leaves at a time has left. */
  endOf(portId: string, at: Micros, bytes: Bytes): Micros {
    return this.din.has(portId) ? at + bytes.length * DIN_BYTE_MICROS : at;
  }

  /** From when on a message would leave that is to leave at once. */
  waitsUntil(portId: string, now: Micros): Micros {
    return this.taken.get(portId)?.findLast((t) => t.from <= now || t.until > now)?.until ?? now;
  }

  /** The same for a message with nothing to do with what was sent before it. */
  reserve(portId: string, at: Micros, bytes: Bytes): Micros {
    if (!this.din.has(portId)) return at;
    const length = bytes.length * DIN_BYTE_MICROS;
    const taken = (this.taken.get(portId) ?? []).filter((t) => t.until > at - KEPT);
    let start = at;
    let i = taken.findIndex((t) => t.until > at);
    if (i < 0) i = taken.length;
    while (i < taken.length && taken[i]!.from < start + length) {
      start = Math.max(start, taken[i]!.until);
      i += 1;
    }
    taken.splice(i, 0, { from: start, until: start + length });
    this.taken.set(portId, joined(taken));
    return start;
  }
}

function joined(taken: readonly Taken[]): Taken[] {
  const all: Taken[] = [];
  for (const next of taken) {
    const last = all.at(-1);
    if (last && next.from - last.until < TOGETHER) last.until = Math.max(last.until, next.until);
    else all.push({ ...next });
  }
  return all;
}
