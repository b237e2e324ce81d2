import { entry } from '../groups';
import type { TimedBytes } from '../midi';
import { effectAfter, type UnitSpec, type UnitState } from '../rig';
import type { Micros } from '../time';
import {
  narrow,
  narrowLater,
  narrowSlower,
  roomBeside,
  unlimited,
  type BorneBy,
  type Margin,
  type Margins,
  type Stray,
} from './margins';
import type { Cause, Loading, TraceEntry } from './trace';
import type { Instant, UnitLine } from './unitLine';

/** Rounding of sums of microseconds. */
const GRAIN: Micros = 0.01;

/** What the losses of all units of a rig have in common; each adds to it. */
export class RigLosses {
  /** What messages bear on units that relay what they do, by event. */
  readonly byEvent = new Map<number, Margins>();
  /** What would be relayed to each unit. */
  readonly strays = new Map<string, Stray[]>();

  constructor(private readonly units: readonly UnitSpec[]) {}

  /** Puts all in the order of time: once every unit has added its own. */
  sort(): void {
    for (const list of this.strays.values()) list.sort((a, b) => a.at - b.at);
  }

  /** What a unit would relay that has a preset there at a time, and what those that it tells would relay in turn. */
  add(unit: UnitSpec, at: Micros, later: Micros, told: readonly string[] = []): void {
    for (const toUnit of new Set(unit.relays.map((r) => r.toUnit))) {
      if (told.includes(toUnit)) continue;
      entry(this.strays, toUnit, () => []).push({ at, later });
      const to = this.units.find((u) => u.id === toUnit);
      if (to) this.add(to, at + effectAfter(to, 'recall'), later, [...told, toUnit]);
    }
  }
}

/**
 * What the messages for each cue bear on one unit before one of them is lost, found by the slack between the events of
 * a dry run at the worst times (docs/timing.md): a message that comes after the unit accepts again; a
 * preset that is there before another takes its place; a message that is meant to be ignored, while the unit settles; a
 * message that a unit holds back, after the preset that would wipe it; a bank that an earlier cue chose.
 * Times that shift alike, because they go back to the same message, leave each other alone.
 */
export class Losses implements BorneBy {
  private readonly byCue = new Map<string, Margins>();
  /** Of messages that chose a bank, by event: what presets of later cues stand on. */
  private readonly byBank = new Map<number, Margins>();
  private readonly relays: boolean;
  readonly strays: readonly Stray[];

  constructor(
    line: UnitLine,
    private readonly events: readonly TimedBytes[],
    private readonly rig: RigLosses,
  ) {
    this.relays = line.unit.relays.length > 0;
    this.strays = entry(rig.strays, line.unit.id, () => []);
    const ignores = line.unit.profile.whileSettling === 'ignore';
    for (const { load } of line.loads) if (load.bankBy) this.byBank.set(load.bankBy.event, unlimited());
    for (const arrival of line.arrivals) {
      if (ignores) this.accepted(arrival);
      else this.comesAfter(arrival);
    }
    for (const ignored of line.ignored) this.staysIgnored(line.unit, ignored);
    for (const [i, { load, slot }] of line.loads.entries()) {
      const next = line.loads[i + 1]?.load;
      // What another took the place of is not there, as it is meant to be: it must not be there before the other, and be relayed.
      if (next && slot !== undefined) this.isThereBefore(load, next);
      else if (next && this.relays) rig.add(line.unit, load.until, load.until - next.at);
      const bank = load.bankBy && this.byBank.get(load.bankBy.event);
      if (bank) narrow(entry(this.byCue, this.cueOf(load.cause.event), unlimited), bank);
    }
    if (this.relays) this.relaysAsItStands(line);
  }

  /** What a unit relays goes by its preset and its variant: where a message for one of them is lost, it relays something else. */
  private relaysAsItStands({ unit, instants }: UnitLine): void {
    let [slot, variant] = [-1, -1];
    let before: UnitState | undefined;
    for (const [i, instant] of instants.entries()) {
      for (const { at, state, cause } of partsOf(instant)) {
        if (state.slot !== before?.slot) slot = cause.event;
        const fires = instant.loaded === i || state.variant !== before?.variant;
        // A preset that is there is relayed with the variant from before.
        const later = Math.min(
          ...[slot, variant].map((e) => this.rig.byEvent.get(e)?.later ?? Number.POSITIVE_INFINITY),
        );
        if (state.variant !== before?.variant) variant = cause.event;
        if (fires && later < Number.POSITIVE_INFINITY) this.rig.add(unit, at, later);
        before = state;
      }
    }
  }

  /** Of the messages that belong to what an event was sent for, and of what relayed it; null where nothing limits them. */
  of({ event, steps }: Pick<Cause, 'event' | 'steps'>): Margin | null {
    const own = this.byCue.get(this.cueOf(event)) ?? null;
    const on = steps > 0 ? this.rig.byEvent.get(event) : undefined;
    if (!own || !on) return own ?? on ?? null;
    const both = { ...own };
    narrow(both, on);
    return both;
  }

  private cueOf(event: number): string {
    return this.events[event]?.cueId ?? '';
  }

  /**
   * `room` is the time between two things, of which the one shifts by `behind` times of units and the other by `ahead`;
   * `waited` is how much sooner the later one comes where what it waited for on a cable comes after it.
   */
  private note(
    cause: Cause,
    other: Cause,
    room: Micros,
    [behind, ahead]: readonly [number, number],
    waited: Micros,
  ): void {
    const { event } = cause;
    const sameEvent = other.event === event;
    // A mix of quick and slow units loses what has no room at all, however many times they share.
    const mixed = room < -GRAIN;
    const later = roomBeside(roomBeside(Math.max(0, room - waited), cause), other);
    const limit = (margins: Margins): void => {
      if (behind > ahead || mixed) narrowSlower(margins, mixed ? room : room / (behind - ahead), 'lost');
      if (!sameEvent || mixed) narrowLater(margins, mixed ? room : later, 'lost');
    };
    limit(entry(this.byCue, this.cueOf(event), unlimited));
    const bank = this.byBank.get(event);
    if (bank) limit(bank);
    if (this.relays) limit(entry(this.rig.byEvent, event, unlimited));
  }

  private accepted({ at, cause, behind }: Extract<TraceEntry, { kind: 'arrived' }>): void {
    if (!behind) return;
    const { accepts, cause: before } = behind;
    this.note(cause, before, at - cause.spread - accepts, [before.steps + 1, cause.steps], cause.waited);
  }

  /** What a unit holds back while it settles is not lost, as long as it comes after the preset: one port keeps its order. */
  private comesAfter({ came, cause, behind }: Extract<TraceEntry, { kind: 'arrived' }>): void {
    if (!behind || this.inOrder(cause, behind.cause)) return;
    const { at, cause: before } = behind;
    this.note(cause, before, came - cause.spread - at, [before.steps, cause.steps], cause.waited);
  }

  private inOrder(one: Cause, other: Cause): boolean {
    if (one.steps > 0 || other.steps > 0) return one.event === other.event;
    return this.events[one.event]?.portId === this.events[other.event]?.portId;
  }

  private staysIgnored(unit: UnitSpec, { at, why, cause, behind }: Extract<TraceEntry, { kind: 'ignored' }>): void {
    if (why !== 'settling' || !behind) return;
    const { soonestAccepts, cause: before } = behind;
    this.note(cause, before, soonestAccepts - at, [cause.steps, before.steps + 1], before.waited);
    if (!this.relays || before.event === cause.event) return;
    // Whatever it called would be relayed when it is there.
    for (const called of ['recall', 'variant'] as const)
      this.rig.add(unit, at + effectAfter(unit, called), soonestAccepts - at);
  }

  private isThereBefore({ until, cause }: Loading, { at, cause: after }: Loading): void {
    this.note(cause, after, at - after.spread - until, [cause.steps + 1, after.steps], after.waited);
  }
}

/** What happened at one time, in its order. */
function partsOf(instant: Instant): readonly Instant[] {
  const parts: Instant[] = [];
  for (let part: Instant | null = instant; part; part = part.with) parts.unshift(part);
  return parts;
}
