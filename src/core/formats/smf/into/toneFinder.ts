import { keepsOf, labelOf, type Control } from '../../../addressing';
import { sameControl, type UnitAim } from '../../../rig';
import { aimOf } from '../../../meaning';
import {
  indexShow,
  newPart,
  newSlot,
  newTone,
  type Edit,
  type Show,
  type Slot,
  type Tone,
  type TonePart,
  type Unit,
} from '../../../show';
import type { Ticks } from '../../../time';
import { startOf, type Event } from './reader';

interface Known {
  slot: number | undefined;
  variant: number | undefined;
  readonly controls: Map<string, number>;
}

interface Loose {
  readonly at: Ticks;
  readonly unit: Unit;
  readonly control: Control;
  readonly value: number;
}

/** Finds the tone that a change stands for, or makes one. It keeps in mind what units were told before. */
export class ToneFinder {
  readonly made: Tone[] = [];
  private readonly known = new Map<string, Known>();
  private readonly slots = new Map<string, Slot[]>();
  private readonly aims: { readonly tone: Tone; readonly aims: ReadonlyMap<string, UnitAim>; readonly size: number }[];

  constructor(
    private readonly show: Show,
    private readonly newId: () => string,
  ) {
    this.aims = show.tones.map((tone) => this.aimed(tone));
  }

  /** The tone of a change, if it is one, and controls that it does not speak for. */
  take(group: readonly Event[]): { readonly tone: Tone | undefined; readonly loose: readonly Loose[] } {
    const told = new Map<string, { unit: Unit; slot?: number; variant?: number; controls: Map<string, Loose> }>();
    for (const e of group) {
      let own = told.get(e.unit.id);
      if (!own) told.set(e.unit.id, (own = { unit: e.unit, controls: new Map<string, Loose>() }));
      const known = this.knownOf(e.unit);
      if (e.kind === 'slot') {
        own.slot = e.index;
        const { recallLoads } = e.unit.profile;
        if (recallLoads.controls) {
          known.controls.clear();
          for (const [id, value] of startOf(e.unit, e.index)) known.controls.set(id, value);
        }
        if (recallLoads.variant) known.variant = undefined;
        known.slot = e.index;
      } else if (e.kind === 'variant') {
        own.variant = e.value;
        known.variant = e.value;
      } else if (e.kind === 'control') {
        const { unit, control, value, at } = e;
        own.controls.set(control.id, { unit, control, value, at });
        known.controls.set(control.id, value);
      }
    }
    const loose = [...told.values()].flatMap((o) => [...o.controls.values()]);
    const called = [...told.values()].some((o) => o.slot !== undefined || o.variant !== undefined);
    const best = this.aims
      .filter(({ aims }) => this.holds(aims) && [...told.values()].every((o) => covers(aims.get(o.unit.id), o)))
      .sort((a, b) => b.size - a.size)[0];
    if (best) {
      const own = loose.filter((l) => best.aims.get(l.unit.id)?.controls[l.control.id] === undefined);
      // Controls alone are a tone only when it says nothing beyond them.
      if (called || (own.length === 0 && best.size === loose.length)) return { tone: best.tone, loose: own };
    }
    if (!called) return { tone: undefined, loose };
    const parts = [...told.values()].map(({ unit, slot, variant, controls }): TonePart => {
      const engage = slot === undefined ? null : unit.profile.engage;
      const kept = [...controls.values()].filter((c) => !(c.control.id === engage && c.value === 1));
      return newPart(unit.id, {
        slotId: slot === undefined ? null : this.slotId(unit, slot),
        variant: variant ?? null,
        controls: kept.map((c) => ({ controlId: c.control.id, value: c.value })),
      });
    });
    const tone = newTone(this.newId(), this.nameFor(parts), parts);
    this.made.push(tone);
    this.aims.push(this.aimed(tone));
    return { tone, loose: [] };
  }

  /** Slots that were entered on the way. */
  slotEdits(): Edit[] {
    return [...this.slots].map(([id, added]) => {
      const before = indexShow(this.show).units.get(id)!.slots;
      const after = [...before, ...added].sort((a, b) => a.index - b.index);
      return { kind: 'set', path: ['units', { id }, 'slots'], before, after };
    });
  }

  private aimed(tone: Tone) {
    const { units } = indexShow(this.show);
    const aims = new Map<string, UnitAim>();
    for (const part of tone.parts) {
      const unit = units.get(part.unitId);
      if (unit) aims.set(unit.id, aimOf(this.withSlots(unit), part));
    }
    const size = [...aims.values()].reduce(
      (sum, a) =>
        sum + (a.slot === undefined ? 0 : 1) + (a.variant === undefined ? 0 : 1) + Object.keys(a.controls).length,
      0,
    );
    return { tone, aims, size };
  }

  private withSlots(unit: Unit): Unit {
    const added = this.slots.get(unit.id);
    return added ? { ...unit, slots: [...unit.slots, ...added] } : unit;
  }

  private knownOf({ id, profile }: Unit): Known {
    let known = this.known.get(id);
    if (!known) {
      const flips = profile.controls.filter((c) => keepsOf(c.encoding) === 'flip');
      const controls = new Map(flips.map((c): [string, number] => [c.id, 0]));
      known = { slot: undefined, variant: undefined, controls };
      this.known.set(id, known);
    }
    return known;
  }

  /** Whether every unit is, as far as the file told, as a tone wants it. */
  private holds(aims: ReadonlyMap<string, UnitAim>): boolean {
    if (aims.size === 0) return false;
    return [...aims].every(([unitId, aim]) => {
      const known = this.known.get(unitId);
      const unit = indexShow(this.show).units.get(unitId);
      if (!known || !unit) return false;
      if (aim.slot !== undefined && known.slot !== aim.slot) return false;
      if (aim.variant !== undefined && known.variant !== aim.variant) return false;
      return Object.entries(aim.controls).every(([id, value]) =>
        sameControl(unit.profile, id, known.controls.get(id), value),
      );
    });
  }

  private slotId(unit: Unit, index: number): string {
    const slot = this.withSlots(unit).slots.find((s) => s.index === index);
    if (slot) return slot.id;
    const made = newSlot(this.newId(), index, '');
    this.slots.set(unit.id, [...(this.slots.get(unit.id) ?? []), made]);
    return made.id;
  }

  /** After the preset and variant of its first unit. */
  private nameFor(parts: readonly TonePart[]): string {
    const part = parts.find((p) => p.slotId !== null) ?? parts[0]!;
    const unit = this.withSlots(indexShow(this.show).units.get(part.unitId)!);
    const slot = unit.slots.find((s) => s.id === part.slotId);
    const variant = part.variant === null ? '' : (unit.profile.variants?.names[part.variant] ?? `${part.variant + 1}`);
    const preset = slot ? slot.name || `${unit.name} ${labelOf(unit.profile.plan, slot.index)}` : unit.name;
    const base = [preset, variant]
      .filter((t) => t !== '')
      .join(', ')
      .slice(0, 110);
    const taken = new Set([...this.show.tones, ...this.made].map((t) => t.name));
    for (let n = 1; ; n++) {
      const name = n === 1 ? base : `${base} ${n}`;
      if (!taken.has(name)) return name;
    }
  }
}

/** Whether a tone speaks for the preset and variant that a unit was told; controls may go beyond it. */
function covers(aim: UnitAim | undefined, told: { readonly slot?: number; readonly variant?: number }): boolean {
  if (told.slot !== undefined && aim?.slot !== told.slot) return false;
  return told.variant === undefined || aim?.variant === told.variant;
}
