import { isTap } from '../addressing';
import type { UnitAim } from '../rig';
import { indexShow, slotsById, type Show, type Tone, type TonePart, type Unit } from '../show';

/**
 * What a part of a tone wants of its unit. A slot that the map lost is not wanted any more.
 * How effects are left becomes values of the switches that decide it; where the unit has to
 * be engaged after a recall, that is part of the tone.
 */
export function aimOf(unit: Unit, part: TonePart): UnitAim {
  const { profile } = unit;
  const slot = part.slotId === null ? undefined : slotsById(unit).get(part.slotId)?.index;
  const controls: Record<string, number> = {};
  if (profile.engage !== null && slot !== undefined) controls[profile.engage] = 1;
  for (const { effectId, how } of part.effects) {
    const effect = profile.effects.find((e) => e.id === effectId);
    if (!effect) continue;
    // Ringing out needs the effect to stay in; without an input switch it can only be cut.
    const rings = effect.ring !== null;
    controls[effect.cut] = how === 'on' || (how === 'ring' && rings) ? 1 : 0;
    if (effect.ring !== null && how !== 'cut') controls[effect.ring] = how === 'on' ? 1 : 0;
  }
  for (const { controlId, value } of part.controls) controls[controlId] = value;
  // Whoever wants an effect on wants to hear it: an input that an earlier tone closed is opened.
  for (const { cut, ring } of profile.effects) {
    if (ring !== null && controls[cut] === 1 && controls[ring] === undefined) controls[ring] = 1;
  }
  for (const { id, encoding } of profile.controls) if (isTap(encoding)) delete controls[id];
  return { slot, variant: part.variant ?? undefined, controls };
}

/** What a tone itself says, unit by unit: what relay rules do beside it is not in it. */
export function partAims(show: Show, tone: Tone): ReadonlyMap<string, UnitAim> {
  const { units } = indexShow(show);
  const aims = new Map<string, UnitAim>();
  for (const part of tone.parts) {
    const unit = units.get(part.unitId);
    if (unit) aims.set(unit.id, aimOf(unit, part));
  }
  return aims;
}
