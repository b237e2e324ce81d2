import { labelOf, slotCount } from '../../addressing';
import { LIMITS } from '../limits';
import { newPart, newTone } from '../builders';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import { freeName } from '../free';
import type { Show, Tone, TonePart, Unit } from '../schema';
import { slotAt, slotFor } from './slots';
import { addTone } from './tones';

/** What is wanted of one unit by itself: the preset at a place of its plan, a variant, or both. */
export interface Direct {
  readonly unitId: string;
  readonly index: number | null;
  readonly variant: number | null;
}

/** The tone of what is wanted by itself, and what makes it where the show has none. */
export interface DirectTone {
  readonly toneId: string;
  readonly name: string;
  readonly edits: readonly Edit[];
}

const only = (tone: Tone): TonePart | undefined => {
  const [part, ...more] = tone.parts;
  return part && more.length === 0 && part.controls.length === 0 && part.effects.length === 0 ? part : undefined;
};

const keyOf = (unitId: string, slotId: string | null, variant: number | null): string =>
  JSON.stringify([unitId, slotId, variant]);

const kept = new WeakMap<Show['tones'], ReadonlyMap<string, Tone>>();

/** Tones that want one preset or variant of one unit and nothing else, by that; of several the first. */
function directTones(tones: Show['tones']): ReadonlyMap<string, Tone> {
  let found = kept.get(tones);
  if (!found) {
    const all = tones.toReversed().flatMap((tone): [string, Tone][] => {
      const part = only(tone);
      return part ? [[keyOf(part.unitId, part.slotId, part.variant), tone]] : [];
    });
    kept.set(tones, (found = new Map(all)));
  }
  return found;
}

/** The tone that wants just this, whatever it is called by now; undefined where the show has none. */
export function knownDirect(show: Show, { unitId, index, variant }: Direct): Tone | undefined {
  const slotId = index === null ? null : slotAt(show, unitId, index)?.id;
  return slotId === undefined ? undefined : directTones(show.tones).get(keyOf(unitId, slotId, variant));
}

/** What something wanted directly is called: as its preset or variant is, else as the unit writes it. */
export function directName(unit: Unit, { index, variant }: Direct): string {
  const { plan, variants } = unit.profile;
  const slot = index === null ? undefined : unit.slots.find((s) => s.index === index);
  const preset = index === null ? '' : slot?.name || `${unit.monogram} ${labelOf(plan, index)}`;
  if (variant === null) return preset;
  const called = variants?.names[variant] || `${variants?.word ?? 'variant'} ${variant + 1}`;
  return `${preset || unit.name} ${called}`;
}

/**
 * The tone that wants just this: one that the show has, whatever it is called by now, or a new one
 * named after it. Null where the unit has no such preset or variant.
 */
export function directTone(show: Show, wanted: Direct, newId: () => string): DirectTone | null {
  const { unitId, index, variant } = wanted;
  const unit = indexShow(show).units.get(unitId);
  if (!unit || (index === null && variant === null)) return null;
  const { plan, variants } = unit.profile;
  if (index !== null && !(index >= 0 && index < slotCount(plan))) return null;
  if (variant !== null && !(variant >= 0 && variant < (variants?.names.length ?? 0))) return null;
  const known = knownDirect(show, wanted);
  if (known) return { toneId: known.id, name: known.name, edits: [] };
  if (show.tones.length >= LIMITS.tones) return null;
  const slot = index === null ? { slotId: null, edits: [] } : slotFor(show, unitId, index, newId);
  const taken = show.tones.map((t) => t.name);
  const plain = directName(unit, wanted).slice(0, LIMITS.title);
  // A tone of the whole rig may be called as the preset is: then the unit's letters tell them apart.
  const name = taken.some((t) => t.trim().toLowerCase() === plain.trim().toLowerCase())
    ? freeName(`${unit.monogram} ${plain}`.slice(0, LIMITS.title), taken)
    : plain;
  const tone = newTone(newId(), name, [newPart(unitId, { slotId: slot.slotId, variant })]);
  return { toneId: tone.id, name, edits: [...slot.edits, addTone(show, tone)] };
}
