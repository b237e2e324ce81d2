import type { Bytes } from '../core/midi';
import type { RigSpec } from '../core/rig';
import type { Micros } from '../core/time';

/** A whole message that came in on the in side of a port. */
export interface Arrival {
  readonly portId: string;
  readonly at: Micros;
  readonly bytes: Bytes;
  /** A stand-in sent it. To a question that a real unit was asked its answer does not count. */
  readonly isStandIn?: boolean;
}

/** Which change of a song a message is for, and when it was to leave. */
export interface SentFor {
  readonly songId: string;
  readonly cueId: string;
  readonly unitId: string;
  readonly planned: Micros;
}

/** A rig whose ports pass nothing on by themselves: while it is played, the playback does that, and knows what must not go on. */
export const withoutThru = (spec: RigSpec): RigSpec => ({
  ...spec,
  ports: spec.ports.map((p) => (p.softThru ? { ...p, softThru: false } : p)),
});

/**
 * The one door to the ports, stand-ins or real. Times are
 * clock times; bytes are whole messages.
 */
export interface Ports {
  /** Puts a message on a port's cable at `at`, which is not past; one that is sent later may leave before it. */
  send(portId: string, at: Micros, bytes: Bytes, sentFor?: SentFor): void;
  /** From now on every message that arrives goes to `listener` too. */
  onArrival(listener: (arrival: Arrival) => void): void;
  /** Another computer sends a message on a port: stand-ins take it as the units do. */
  overhear(portId: string, at: Micros, bytes: Bytes): void;
  /** Whether what is sent on a port leaves this computer. */
  isReal(portId: string): boolean;
}
