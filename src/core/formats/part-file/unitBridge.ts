import { fitsRange, isContinuous, slotCount, valueRange, type Control, isTap } from '../../addressing';
import { newSlot, type Slot, type TonePart, type Unit } from '../../show';

/** Says that something of a part has no counterpart in the unit it came to. */
type Lost = (unit: string, what: string) => void;

/** Whether two names are one, as people write them. */
export const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Presets that come to a unit with a part: new ones, or known by name without a place. */
export interface Arrivals {
  readonly slots: Map<string, Slot>;
  readonly lost: Map<string, { readonly id: string; readonly name: string; readonly lastIndex: number }>;
}

/** What is said of a unit in a part, said of a unit of the show. Things are found by their names, as people find them. */
export class UnitBridge {
  readonly arrivals: Arrivals = { slots: new Map(), lost: new Map() };

  constructor(
    readonly from: Unit,
    readonly to: Unit,
    /** `to` is `from` itself, which comes along: all that is said of it holds. */
    readonly alongside: boolean,
    private readonly newId: () => string,
    private readonly lost: Lost,
  ) {}

  slot(slotId: string): string {
    if (this.alongside) return slotId;
    const { from, to, arrivals } = this;
    const made = arrivals.slots.get(slotId) ?? arrivals.lost.get(slotId);
    if (made) return made.id;
    const slot = from.slots.find((s) => s.id === slotId);
    const name = slot?.name ?? from.lostSlots.find((s) => s.id === slotId)?.name ?? '';
    const index = slot?.index ?? from.lostSlots.find((s) => s.id === slotId)?.lastIndex ?? 0;
    const named = name === '' ? [] : [...to.slots, ...to.lostSlots].filter((s) => same(s.name, name));
    if (named.length > 0) return (named.find((s) => 'index' in s && s.index === index) ?? named[0]!).id;
    const there = to.slots.find((s) => s.index === index);
    if (there && (name === '' || there.name === '')) return there.id;
    const taken = there !== undefined || [...arrivals.slots.values()].some((s) => s.index === index);
    if (!taken && slot && index < slotCount(to.profile.plan)) {
      const fresh = newSlot(this.newId(), index, name);
      arrivals.slots.set(slotId, fresh);
      return fresh.id;
    }
    // Its place is another preset's here: it is kept by its name, as a preset that the unit's list has no longer.
    const homeless = { id: this.newId(), name, lastIndex: index };
    arrivals.lost.set(slotId, homeless);
    return homeless.id;
  }

  control(controlId: string): Control | undefined {
    if (this.alongside) return this.from.profile.controls.find((c) => c.id === controlId);
    const was = this.from.profile.controls.find((c) => c.id === controlId);
    const found = was && this.to.profile.controls.filter((c) => same(c.name, was.name));
    return found?.find((c) => c.id === controlId) ?? found?.[0];
  }

  /** A control and a value of it; null, and said, where the unit has none such. */
  value(controlId: string, value: number): { readonly controlId: string; readonly value: number } | null {
    const was = this.from.profile.controls.find((c) => c.id === controlId);
    const now = this.control(controlId);
    const figure = was && now ? translated(was, now, value) : undefined;
    if (now && figure !== undefined) return { controlId: now.id, value: figure };
    this.lost(this.to.name, was?.name ?? 'a control');
    return null;
  }

  /** The continuous control that is meant; null, and said, where the unit has none, or one of another range. */
  swept(controlId: string, values: readonly number[]): string | null {
    const now = this.control(controlId);
    if (now && isContinuous(now.encoding) && values.every((v) => fitsRange(now.encoding, v))) return now.id;
    this.lost(this.to.name, this.from.profile.controls.find((c) => c.id === controlId)?.name ?? 'a control');
    return null;
  }

  tapped(controlId: string): string | null {
    const now = this.control(controlId);
    if (now && isTap(now.encoding)) return now.id;
    this.lost(this.to.name, 'tap tempo');
    return null;
  }

  variant(variant: number): number | null {
    if (this.alongside) return variant;
    const name = this.from.profile.variants?.names[variant] ?? '';
    const names = this.to.profile.variants?.names ?? [];
    const named = name === '' ? -1 : names.findIndex((n) => same(n, name));
    const found = names[variant] !== undefined && (named < 0 || same(names[variant], name)) ? variant : named;
    if (found >= 0) return found;
    this.lost(this.to.name, `${this.from.profile.variants?.word ?? 'variant'} ${name || variant + 1}`);
    return null;
  }

  sender(id: string): string | null {
    if (this.alongside) return id;
    const was = this.from.profile.senders.find((s) => s.id === id);
    const found = this.to.profile.senders.filter((s) => was !== undefined && same(s.name, was.name));
    const now = found.find((s) => s.id === id) ?? found[0];
    if (!now) this.lost(this.to.name, was?.name ?? 'a switch');
    return now?.id ?? null;
  }

  part({ slotId, variant, controls, effects }: TonePart): TonePart {
    return {
      unitId: this.to.id,
      slotId: slotId === null ? null : this.slot(slotId),
      variant: variant === null ? null : this.variant(variant),
      controls: firstOfEach(
        controls.flatMap((c) => this.value(c.controlId, c.value) ?? []),
        (c) => c.controlId,
      ),
      effects: firstOfEach(
        effects.flatMap(({ effectId, how }) => {
          const was = this.from.profile.effects.find((e) => e.id === effectId);
          const now = this.to.profile.effects.find((e) => was !== undefined && same(e.name, was.name));
          if (!now) this.lost(this.to.name, was?.name ?? 'an effect');
          // Without a switch of its own for the input there is nothing that could let it ring.
          return now ? [{ effectId: now.id, how: how === 'ring' && now.ring === null ? 'cut' : how }] : [];
        }),
        (e) => e.effectId,
      ),
    };
  }
}

const firstOfEach = <T>(list: readonly T[], keyOf: (item: T) => string): T[] => {
  const seen = new Set<string>();
  return list.filter((item) => !seen.has(keyOf(item)) && seen.add(keyOf(item)));
};

/** A value of one control as a value of another: by the option's name where both have one, else the same figure. */
function translated(was: Control, now: Control, value: number): number | undefined {
  const name = was.options[value - valueRange(was.encoding).low] ?? '';
  const option = name === '' ? -1 : now.options.findIndex((o) => same(o, name));
  if (option >= 0) return option + valueRange(now.encoding).low;
  return fitsRange(now.encoding, value) && isContinuous(was.encoding) === isContinuous(now.encoding)
    ? value
    : undefined;
}
