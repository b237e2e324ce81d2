import type { RelaySpec, UnitSpec } from '../rig';
import { DIN_BYTE_MICROS } from '../midi';
import { millisToMicros, type Micros } from '../time';
import { effectTime } from './jobs';
import type { Step } from './expand';

/** Effects that the compiler counts on, from the units' times; it looks at steps, never at bytes. */
export class Forecast {
  private readonly busyUntil = new Map<string, Micros>();
  private readonly outFree = new Map<string, Micros>();

  /** `replaced` is told of a recall that another took the place of before it was there. */
  constructor(
    private readonly units: ReadonlyMap<string, UnitSpec>,
    private readonly replaced: (unitId: string, effect: Micros) => void = () => undefined,
  ) {}

  /** A step arrives; `note` is told of every unit that changes by it, and when. */
  arrive(unit: UnitSpec, step: Step, at: Micros, note: (unitId: string, effect: Micros) => void): void {
    let effect = at + effectTime(unit, step);
    if (step.kind === 'recall') this.load(unit.id, at, effect);
    else effect = Math.max(effect, this.busyUntil.get(unit.id) ?? effect);
    // Bank selects, first halves of values and the releases of notes change nothing by themselves.
    if (step.kind !== 'bank' && step.kind !== 'message') note(unit.id, effect);
    this.relay(unit.id, step.relays, effect, note, 0);
  }

  private load(unitId: string, at: Micros, effect: Micros): void {
    const before = this.busyUntil.get(unitId);
    // In the very moment in which it would be there, it is not there yet.
    if (before !== undefined && at <= before) this.replaced(unitId, before);
    this.busyUntil.set(unitId, effect);
  }

  private relay(
    from: string,
    relays: readonly RelaySpec[],
    reached: Micros,
    note: (unitId: string, effect: Micros) => void,
    depth: number,
  ): void {
    if (depth > this.units.size) return;
    for (const relay of relays) {
      const target = this.units.get(relay.toUnit);
      if (!target) continue;
      let at = Math.max(reached, this.outFree.get(from) ?? reached);
      for (const bytes of relay.messages) at += bytes.length * DIN_BYTE_MICROS;
      this.outFree.set(from, at);
      const effect = at + millisToMicros(target.profile.times.recall);
      this.load(target.id, at, effect);
      note(target.id, effect);
      const onward = target.relays.filter((r) => r.variant === null);
      this.relay(target.id, onward, effect, note, depth + 1);
    }
  }
}
