import { entry } from '../groups';
import type { TimedBytes } from '../midi';
import type { Micros } from '../time';
import { narrowLater, narrowSlower, unlimited, type BorneBy, type Margin, type Margins } from './margins';
import type { Cause, Loading, TraceEntry } from './trace';
import type { UnitLine } from './unitLine';

/** Rounding of sums of microseconds. */
const GRAIN: Micros = 0.01;

/**
 * What the messages for each cue bear on one unit before one of them is lost, found by the slack between the events of
 * a dry run at the worst times (docs/timing.md): a message that comes after the unit accepts again; a
 * preset that is there before another takes its place; a message that is meant to be ignored, while the unit settles.
 * Times that shift alike, because they go back to the same message, leave each other alone.
 */
export class Losses implements BorneBy {
  private readonly byCue = new Map<string, Margins>();

  constructor(
    line: UnitLine,
    private readonly events: readonly TimedBytes[],
  ) {
    const ignores = line.unit.profile.whileSettling === 'ignore';
    for (const arrival of line.arrivals) if (ignores) this.accepted(arrival);
    for (const ignored of line.ignored) this.staysIgnored(ignored);
    for (const [i, { load, slot }] of line.loads.entries()) {
      const next = line.loads[i + 1]?.load;
      // What another took the place of is not there, as it is meant to be.
      if (next && slot !== undefined) this.isThereBefore(load, next);
    }
  }

  /** Of the messages that belong to what an event was sent for; null where nothing limits them. */
  of({ event }: Pick<Cause, 'event'>): Margin | null {
    return this.byCue.get(this.cueOf(event)) ?? null;
  }

  private cueOf(event: number): string {
    return this.events[event]?.cueId ?? '';
  }

  /** `room` is the time between two things, of which the one shifts by `behind` times of units and the other by `ahead`. */
  private note({ event }: Cause, room: Micros, behind: number, ahead: number, sameEvent: boolean): void {
    const margins = entry(this.byCue, this.cueOf(event), unlimited);
    // A mix of quick and slow units loses what has no room at all, however many times they share.
    const mixed = room < -GRAIN;
    if (behind > ahead || mixed) narrowSlower(margins, mixed ? room : room / (behind - ahead), 'lost');
    if (!sameEvent || mixed) narrowLater(margins, room, 'lost');
  }

  private accepted({ at, cause, behind }: Extract<TraceEntry, { kind: 'arrived' }>): void {
    if (!behind) return;
    const { accepts, cause: before } = behind;
    this.note(cause, at - cause.spread - accepts, before.steps + 1, cause.steps, before.event === cause.event);
  }

  private staysIgnored({ at, why, cause, behind }: Extract<TraceEntry, { kind: 'ignored' }>): void {
    if (why !== 'settling' || !behind) return;
    const { soonestAccepts, cause: before } = behind;
    this.note(cause, soonestAccepts - at, cause.steps, before.steps + 1, before.event === cause.event);
  }

  private isThereBefore({ until, cause }: Loading, { at, cause: after }: Loading): void {
    this.note(cause, at - after.spread - until, cause.steps + 1, after.steps, after.event === cause.event);
  }
}
