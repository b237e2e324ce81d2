import { labelOf } from '../core/addressing';
import { indexShow, slotsById, type Show, type TonePart, type Unit } from '../core/show';
import type { ToneDifference } from '../core/meaning';
import { valueWords } from './values';

const slotWords = (unit: Unit, index: number): string => {
  const name = unit.slots.find((s) => s.index === index)?.name ?? '';
  return `${labelOf(unit.profile.plan, index)} ${name}`.trim();
};

const variantName = (unit: Unit, variant: number): string =>
  unit.profile.variants?.names[variant] || String(variant + 1);

const HOW = { on: 'on', cut: 'cut', ring: 'rings out' } as const;

/** What a tone wants of a unit, in the few words of a cell: the preset, the variant, all else. */
export function partWords(unit: Unit, part: TonePart): { slot: string; variant: string; rest: string } {
  const slot = part.slotId === null ? undefined : slotsById(unit).get(part.slotId);
  const lost = unit.lostSlots.find((s) => s.id === part.slotId);
  const { controls, effects } = unit.profile;
  const values = part.controls.flatMap(({ controlId, value }) => {
    const control = controls.find((c) => c.id === controlId);
    return control ? [`${control.name} ${valueWords(control, value)}`] : [];
  });
  const trails = part.effects.flatMap(({ effectId, how }) => {
    const effect = effects.find((e) => e.id === effectId);
    return effect ? [`${effect.name} ${HOW[how]}`] : [];
  });
  return {
    slot: slot ? slotWords(unit, slot.index) : lost ? `${lost.name}, gone` : '',
    variant: part.variant === null ? '' : variantName(unit, part.variant),
    rest: [...trails, ...values].join(', '),
  };
}

/** One difference between two tones: "Quillback: H6 Fog Lead / B1 Ledger Rhythm". */
export function differenceWords(show: Show, d: ToneDifference): string {
  const unit = indexShow(show).units.get(d.unitId)!;
  const control = d.what === 'control' ? unit.profile.controls.find((c) => c.id === d.controlId) : undefined;
  const words = (value: number | undefined): string => {
    if (value === undefined) return 'as it is';
    if (d.what === 'slot') return slotWords(unit, value);
    if (d.what === 'variant') return variantName(unit, value);
    return control ? valueWords(control, value) : String(value);
  };
  const what = d.what === 'slot' ? '' : `${d.what === 'variant' ? unit.profile.variants?.word : control?.name} `;
  return `${unit.name}: ${what}${words(d.first)} / ${words(d.second)}`;
}
