import { addressOf, labelOf } from '../addressing';
import { indexShow, type Show, slotsById, type Unit } from '../show';

/** One stored state of a unit that another unit calls, and how to store it. */
export interface StoringStep {
  /** Slot of the unit to store in, with the program that calls it. */
  readonly slotId: string;
  readonly label: string;
  readonly name: string;
  readonly program: number | null;
  /** How the panel has to stand before store is pressed; what is not described is missing. */
  readonly panel: readonly { readonly name: string; readonly setting: string | null }[];
  /** What calls it: a slot of the other unit by its label, or a variant there. */
  readonly calledBy: readonly {
    readonly unit: string;
    readonly label: string | null;
    readonly name: string;
    readonly variant: string | null;
  }[];
}

/** The steps to store all states of a unit that relay rules of other units call, in the order of its slots. */
export function storingSteps(show: Show, unit: Unit): StoringStep[] {
  const steps = new Map<string, StoringStep>();
  for (const from of indexShow(show).units.values()) {
    for (const { when, toUnitId, toSlotId } of from.relays) {
      const slot = toUnitId === unit.id ? slotsById(unit).get(toSlotId) : undefined;
      if (!slot) continue;
      const source = when.slotId === null ? undefined : slotsById(from).get(when.slotId);
      const call = {
        unit: from.name,
        label: source ? labelOf(from.profile.plan, source.index) : null,
        name: source?.name ?? '',
        variant:
          when.variant === null ? null : (from.profile.variants?.names[when.variant] ?? String(when.variant + 1)),
      };
      const known = steps.get(slot.id);
      const settings = new Map(slot.panel.map((p) => [p.name, p.setting]));
      steps.set(slot.id, {
        slotId: slot.id,
        label: labelOf(unit.profile.plan, slot.index),
        name: slot.name,
        program: addressOf(unit.profile.plan, slot.index)?.program ?? null,
        panel: unit.profile.panel.map((name) => ({ name, setting: settings.get(name) || null })),
        calledBy: [...(known?.calledBy ?? []), call],
      });
    }
  }
  const order = new Map(unit.slots.map((s) => [s.id, s.index]));
  return [...steps.values()].sort((a, b) => order.get(a.slotId)! - order.get(b.slotId)!);
}

/** Units whose relay rules lead in a circle, each circle once. */
export function relayCycles(show: Show): readonly (readonly string[])[] {
  const { units } = indexShow(show);
  const cycles: string[][] = [];
  const done = new Set<string>();
  const visit = (id: string, way: readonly string[]): void => {
    const again = way.indexOf(id);
    if (again >= 0) {
      cycles.push(way.slice(again));
      return;
    }
    if (done.has(id)) return;
    for (const { toUnitId } of units.get(id)?.relays ?? []) visit(toUnitId, [...way, id]);
    done.add(id);
  };
  for (const unit of show.units) visit(unit.id, []);
  return cycles;
}
