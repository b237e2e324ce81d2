import { afterSettled, afterThere, thruGap, type Path, type RelayCall } from '../meaning';
import type { Bytes } from '../midi';
import { acceptsAgainAfter, effectAfter, type UnitSpec } from '../rig';
import type { Micros } from '../time';
import type { Send } from './expand';
import type { Wait } from './schedule/job';

/** A queued message that later messages must wait for. */
export interface Pending {
  /** Its index in the list of the port. */
  readonly on: number;
  /** How long after its end: until a unit takes the next message, or until a preset is there. */
  readonly until: Micros;
  /** The change that it belongs to: one moment and one unit. What belongs to the same change does not wait for it. */
  readonly turn: number;
  /** Relay rules are carried out once it has taken effect. */
  readonly firesRules?: boolean;
}

/** How long a message takes, in microseconds. */
export interface Timing {
  readonly duration: Micros;
  /** From its end until its last byte has arrived. */
  readonly latency: Micros;
  /** From its end until its effect; until it has arrived, for what has no effect of its own, such as a bank select. */
  readonly effect: Micros;
  /** How much sooner than that the effect may be, where cables and unit are quicker than at their worst. */
  readonly sooner: Micros;
}

/** What is queued for one unit, as far as the next message to it has to know. One method a rule of what waits for what. */
export class UnitQueue {
  /** Index in the port's list of the unit's last message, -1 for none. */
  last = -1;
  /** From the end of the last message until the unit takes the next. */
  acceptsAfter: Micros = 0;
  /** Messages to other units whose rules called this one since its own last message. */
  relayed: readonly Pending[] = [];
  /** Presets, and variants that fire rules: nothing may take their place before they are there. */
  loading: readonly Pending[] = [];
  /** The preset called last: no variant takes effect sooner. */
  preset: Pending | undefined;
  private lastBytes: Bytes = [];
  private variant: Pending | undefined;
  private control: Pending | undefined;

  constructor(
    readonly portId: string,
    /** How much longer than at the worst what is pending is waited for, where there is room. */
    private readonly guard: Micros,
  ) {}

  /** Least time from the end of the unit's last message to the end of the next: its settling, and room in thrus. */
  gapBefore(path: Path, bytes: Bytes, latency: Micros): Micros {
    if (this.last < 0) return 0;
    return Math.max(this.settledAfter(path, latency), thruGap(path, this.lastBytes, bytes), 0);
  }

  /** How much longer than the `gap` its settling should be waited for. */
  guardBefore(path: Path, latency: Micros, gap: Micros): Micros {
    if (this.last < 0 || this.acceptsAfter === 0) return 0;
    return Math.max(0, this.settledAfter(path, latency) + this.guard - gap);
  }

  private settledAfter(path: Path, latency: Micros): Micros {
    return this.acceptsAfter === 0 ? 0 : this.acceptsAfter - latency + path.spread;
  }

  /** Adds what a message to the unit waits for, beside the message before it. (Into one list: this is done for each message.) */
  addWaitsFor(waits: Wait[], send: Send, turn: number, spread: Micros, timing: Timing): void {
    const { duration, latency, effect, sooner } = timing;
    const { guard } = this;
    for (const p of this.relayed) {
      if (p.turn !== turn) waits.push({ on: p.on, gap: p.until - latency + spread, guard });
    }
    if (send.kind === 'recall') this.addWaitsOfPreset(waits, effect - sooner);
    // Controls take the place of nothing.
    if (send.kind !== 'bank' && send.kind !== 'recall' && send.kind !== 'variant') return;
    for (const { on, until, turn: its, firesRules } of this.loading) {
      // Bytes as they stand leave when they are due, unless rules would never be carried out.
      if (its !== turn && (firesRules || !send.raw)) waits.push({ on, gap: until + duration, guard });
    }
  }

  /** Adds what a message waits for whose rules call the unit. `effect` counts from the end of that message, at the soonest. */
  addWaitsToBeCalled(waits: Wait[], call: RelayCall<unknown>, effect: Micros, turn: number): void {
    const { guard } = this;
    const add = (on: number, gap: Micros): void =>
      void waits.push({ on, gap: Math.max(0, gap), guard: Math.max(0, Math.min(guard, gap + guard)) });
    if (this.last >= 0) add(this.last, afterSettled(this.acceptsAfter, call) - effect);
    for (const p of this.relayed) if (p.turn !== turn) add(p.on, afterSettled(p.until, call) - effect);
    for (const p of this.loading) if (p.turn !== turn) add(p.on, afterThere(p.until, call) - effect);
    const recall = effectAfter({ pace: call.unit.paces.soonest }, 'recall');
    this.addWaitsOfPreset(waits, effect + call.arrives - call.spread + recall);
  }

  /** A preset is there no sooner than what was set before it. `there` counts from the end of what calls it. */
  private addWaitsOfPreset(waits: Wait[], there: Micros): void {
    for (const p of [this.variant, this.control]) {
      const gap = p ? afterThere(p.until, { arrives: there, spread: 0 }) : 0;
      if (p && gap > 0) waits.push({ on: p.on, gap, guard: this.guard });
    }
  }

  /**
   * A message to the unit was queued. `keepsPlace`: nothing may take the place of a preset that it calls before it is
   * there; `firesRules` of that preset.
   */
  sent(unit: UnitSpec, send: Send, pending: Pending, latency: Micros, keepsPlace: boolean, firesRules: boolean): void {
    const recalls = send.kind === 'recall';
    const { preset } = this;
    if (recalls) {
      this.preset = pending;
      this.variant = this.control = undefined;
      this.loading = keepsPlace ? [{ ...pending, firesRules }] : [];
    } else {
      if (send.kind === 'variant') this.variant = pending;
      if (send.kind === 'control') this.control = pending;
      if (send.relayEffects) this.loading = [...this.loading, { ...pending, firesRules: true }];
      // A variant is there no sooner than the preset of an earlier cue that still loads, and lost with it.
      if (send.relayEffects && send.kind === 'variant' && preset) {
        this.loading = [...this.loading, { ...preset, firesRules: true }];
      }
    }
    this.last = pending.on;
    this.lastBytes = send.bytes;
    this.acceptsAfter = recalls ? latency + acceptsAgainAfter(unit) : 0;
    this.relayed = [];
  }

  /** Rules of another unit call this one: what is queued for it waits `settled`; for what is `loading`, if that is given. */
  called(settled: Pending, loading: Pending | null): void {
    // Of earlier ones this one has waited for: what waits for it waits for them.
    const own = (list: readonly Pending[]): readonly Pending[] => list.filter((p) => p.turn === settled.turn);
    this.relayed = [...own(this.relayed), settled];
    if (loading) this.loading = [...own(this.loading), loading];
  }
}
