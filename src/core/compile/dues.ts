import type { Moment } from '../meaning';
import type { Micros } from '../time';
import type { UnitSends } from './expand';
import type { Release } from './portJob';

/** The last due time of a unit and whose it is, and what changes that are due then may not leave before. */
interface UnitDue {
  readonly due: Micros;
  readonly cueId: string;
  readonly before: { readonly at: Micros; readonly cueId: string | null };
}

/**
 * No message leaves before the previous change of its unit was due, nor before that of a unit
 * that it has relayed to. Changes that are due at once share it.
 */
export class Dues {
  private readonly units = new Map<string, UnitDue>();

  constructor(private readonly earliest: Micros) {}

  release({ id: cueId, due }: Moment, { unit, sends }: UnitSends): Release {
    let before = this.pass(unit.id, cueId, due);
    for (const { relayEffects } of sends) {
      for (const { unit: other } of relayEffects?.relayed ?? []) {
        const its = this.pass(other.id, cueId, due);
        if (its.at > before.at) before = its;
      }
    }
    return { at: before.at, cueId: before.cueId, due };
  }

  private pass(unitId: string, cueId: string, due: Micros): UnitDue['before'] {
    const last = this.units.get(unitId);
    if (last && due <= last.due) return last.before;
    const before = last ? { at: last.due, cueId: last.cueId } : { at: this.earliest, cueId: null };
    this.units.set(unitId, { due, cueId, before });
    return before;
  }
}
