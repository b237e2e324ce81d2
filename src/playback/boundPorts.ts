import { StreamParser, type Bytes } from '../core/midi';
import type { Micros } from '../core/time';
import type { Arrival, Ports, SentFor } from './ports';

/** What a port of the show is on this computer: a stand-in, a real one, or both. */
export interface Binding {
  readonly standIn: boolean;
  readonly real: boolean;
}

export const ONLY_STAND_IN: Binding = { standIn: true, real: false };

/** A message for a real port, with the clock time at which it leaves. */
export interface Outgoing extends Arrival {
  readonly sentFor?: SentFor | undefined;
}

/**
 * Ports as this computer binds them. What is for real ones is handed over in batches; what comes from
 * them is cut into messages as a receiver does, whatever arrives.
 */
export class BoundPorts implements Ports {
  private bindings: ReadonlyMap<string, Binding> = new Map();
  private batch: Outgoing[] = [];
  private readonly listeners: ((arrival: Arrival) => void)[] = [];
  private readonly parsers = new Map<string, StreamParser>();
  private at: Micros = 0;

  constructor(
    private readonly standIns: Ports,
    /** Takes what leaves on real ports, in the order in which it was sent. */
    public handOver: (batch: readonly Outgoing[]) => void = () => undefined,
    /** Runs something when what runs now is done: what is sent together is handed over together. */
    private readonly soon: (run: () => void) => void = () => undefined,
  ) {
    standIns.onArrival((arrival) => {
      if (this.bindingOf(arrival.portId).standIn) this.tell({ ...arrival, isStandIn: true });
    });
  }

  bind(bindings: ReadonlyMap<string, Binding>): void {
    this.bindings = bindings;
    this.parsers.clear();
  }

  /** Whether anything leaves this computer. */
  get anyReal(): boolean {
    return [...this.bindings.values()].some((b) => b.real);
  }

  isReal(portId: string): boolean {
    return this.bindingOf(portId).real;
  }

  send(portId: string, at: Micros, bytes: Bytes, sentFor?: SentFor): void {
    const { standIn, real } = this.bindingOf(portId);
    if (standIn) this.standIns.send(portId, at, bytes);
    if (!real) return;
    if (this.batch.length === 0) this.soon(() => this.flush());
    this.batch.push({ portId, at, bytes, sentFor });
  }

  overhear(portId: string, at: Micros, bytes: Bytes): void {
    if (this.bindingOf(portId).standIn) this.standIns.overhear(portId, at, bytes);
  }

  onArrival(listener: (arrival: Arrival) => void): void {
    this.listeners.push(listener);
  }

  /** Bytes came in on a real port at a clock time. */
  arrive(portId: string, at: Micros, bytes: Bytes): void {
    if (!this.bindingOf(portId).real) return;
    let parser = this.parsers.get(portId);
    if (!parser) {
      parser = new StreamParser((message) => this.tell({ portId, at: this.at, bytes: message }));
      this.parsers.set(portId, parser);
    }
    this.at = at;
    for (const byte of bytes) parser.push(byte);
  }

  /** Hands over what was sent since the last time. */
  flush(): void {
    if (this.batch.length === 0) return;
    const { batch } = this;
    this.batch = [];
    this.handOver(batch);
  }

  private bindingOf(portId: string): Binding {
    return this.bindings.get(portId) ?? ONLY_STAND_IN;
  }

  private tell(arrival: Arrival): void {
    for (const listener of this.listeners) listener(arrival);
  }
}
