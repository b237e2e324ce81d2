import { rigSpec } from '../core/meaning';
import type { PeerSent } from '../core/formats/line';
import type { Bytes, TimedBytes } from '../core/midi';
import type { RigState } from '../core/rig';
import type { Show } from '../core/show';
import type { Micros } from '../core/time';
import { AssumedRig } from './assumedRig';
import { Cables } from './cables';
import type { Monitor } from './monitor';
import { withoutThru, type Ports, type SentFor } from './ports';
import type { Moment } from './sessionState';

/** What is passed on leaves within this time, or not at all. */
const PASSED_WITHIN: Micros = 100_000;
/** That a port is flooded is said this often. */
const FLOOD_SAID_EVERY: Micros = 5_000_000;

type Sent = Pick<TimedBytes, 'portId' | 'at' | 'bytes'> & { readonly unitId?: string; readonly cueId?: string };

/** Everything that leaves goes through here: onto its cable, to the monitor, to the ports and to what is assumed of the rig. */
export class Sender {
  readonly assumed = new AssumedRig();
  private readonly cables = new Cables();
  /** Until when something is on its way to units, by their id; '' for what is for none. */
  private readonly until = new Map<string, Micros>();
  /** When it was said last that a port is flooded. */
  private readonly flooded = new Map<string, Micros>();
  private show: Show | null = null;
  /** Another computer leads: nothing leaves here. */
  isSilent = false;
  /** Hears of everything that leaves. */
  onPut: (sent: PeerSent) => void = () => undefined;

  constructor(
    private readonly ports: Ports,
    private readonly monitor: Monitor,
  ) {}

  follow(show: Show): void {
    this.show = show;
    const spec = withoutThru(rigSpec(show));
    this.assumed.follow(spec);
    this.cables.follow(spec);
  }

  /** What is known at a time. */
  moment(now: Micros): Moment {
    const { assumed } = this;
    return {
      now,
      rig: assumed.state(),
      eventual: (): RigState => assumed.eventual(),
      busy: (ids) => this.busy(now, ids),
      acceptsAt: () => assumed.acceptsAt(),
    };
  }

  /** A port's cable carries one message after the other; none leaves in the past. `songId` is of the song that it is from. */
  send<E extends Sent>(e: E, now: Micros, songId?: string): E {
    if (this.isSilent) return e;
    const at = this.cables.place(e.portId, Math.max(e.at, now), e.bytes);
    const unitId = e.unitId ?? '';
    const end = this.cables.endOf(e.portId, at, e.bytes);
    this.until.set(unitId, Math.max(end, this.until.get(unitId) ?? end));
    const { cueId } = e;
    this.put(e, at, songId && cueId ? { songId, cueId, unitId, planned: e.at } : undefined);
    return { ...e, at };
  }

  /** Sends a message that no unit waits for: it takes its place on the cable, and nothing waits until it is through. */
  sendBeside(portId: string, at: Micros, bytes: Bytes, now: Micros): void {
    if (!this.isSilent) this.put({ portId, bytes }, this.cables.place(portId, Math.max(at, now), bytes));
  }

  /**
   * Sends a message now that has nothing to do with what else leaves; not where the cable is full. Whether the port
   * is flooded, and that is to be said again.
   */
  passOn(portId: string, bytes: Bytes, now: Micros): boolean {
    if (this.isSilent) return false;
    if (this.cables.waitsUntil(portId, now) <= now + PASSED_WITHIN) {
      this.put({ portId, bytes }, this.cables.reserve(portId, now, bytes));
      return false;
    }
    const said = this.flooded.get(portId) ?? Number.NEGATIVE_INFINITY;
    if (now - said < FLOOD_SAID_EVERY) return false;
    this.flooded.set(portId, now);
    return true;
  }

  private put({ portId, bytes, cueId = '', unitId = '' }: Omit<Sent, 'at'>, at: Micros, sentFor?: SentFor): void {
    this.monitor.note('out', portId, at, bytes);
    this.ports.send(portId, at, bytes, sentFor);
    this.assumed.send(portId, at, bytes);
    this.onPut({ portId, cueId, unitId, at, bytes: [...bytes] });
  }

  /** Another computer sends these: they are on their way to the rig as if they had been sent here. */
  overhear(list: readonly PeerSent[]): void {
    for (const { portId, at, bytes } of list) {
      this.ports.overhear(portId, at, bytes);
      this.assumed.send(portId, at, bytes);
    }
  }

  /** Until when something is in flight to units, or loads in them or in units that relay to them; at least now. */
  private busy(now: Micros, ids?: ReadonlySet<string>): Micros {
    const all = ids && withRelaying(this.show, ids);
    let until = all ? Math.max(now, this.assumed.restsAt(all)) : now;
    for (const [id, at] of this.until) {
      if (at <= now) this.until.delete(id);
      else if (!all || all.has(id)) until = Math.max(until, at);
    }
    return until;
  }
}

/** Units, and those that relay to them. */
function withRelaying(show: Show | null, ids: ReadonlySet<string>): ReadonlySet<string> {
  const all = new Set(ids);
  for (const id of all) {
    for (const unit of show?.units ?? []) if (unit.relays.some((r) => r.toUnitId === id)) all.add(unit.id);
  }
  return all;
}
