import { labelOf } from '../addressing';
import { contextOf, partAims, toneAims } from '../meaning';
import { indexShow, setTonePart, slotAt } from '../show';
import { finding, type Check, type Finding } from './finding';

/**
 * A tone that wants a state of a unit that only relay rules reach, where the tone's own presets
 * and variants have it brought to another, or no rule ever calls that state. The fix has the
 * tone say what the rules do.
 */
export const toldElsewhere: Check = (show) => {
  const context = contextOf(show);
  const { units } = indexShow(show);
  return show.tones.flatMap((tone) =>
    [...partAims(show, tone)].flatMap(([unitId, aim]): Finding[] => {
      const unit = units.get(unitId)!;
      const tellers = show.units.filter((u) => u.relays.some((r) => r.toUnitId === unitId));
      if (context.paths.has(unitId) || tellers.length === 0) return [];
      const place = { in: 'tone', toneId: tone.id, unitId } as const;
      const base = { tone: tone.name, unit: unit.name, by: tellers.map((t) => t.name) };
      const beyond = unit.profile.controls.find((c) => aim.controls[c.id] !== undefined)?.name;
      const variant = aim.variant === undefined ? undefined : unit.profile.variants?.word;
      const what = beyond ?? variant;
      if (what !== undefined) return [finding('tone.only-told', 'error', place, { ...base, what })];
      if (aim.slot === undefined) return [];
      const others = { ...tone, parts: tone.parts.filter((p) => p.unitId !== unitId) };
      const relayed = toneAims(show, others).get(unitId)?.slot;
      const label = (index: number): string => labelOf(unit.profile.plan, index);
      if (relayed === aim.slot) return [];
      const slots = tellers.flatMap((t) => t.relays.filter((r) => r.toUnitId === unitId).map((r) => r.toSlotId));
      const wanted = slotAt(show, unitId, aim.slot);
      // What was on before may fire the rule that calls it; only a song can tell.
      if (relayed === undefined && wanted && slots.includes(wanted.id)) return [];
      const part = tone.parts.find((p) => p.unitId === unitId)!;
      const there = relayed === undefined ? undefined : slotAt(show, unitId, relayed);
      const fix = there ? setTonePart(show, tone.id, unitId, { ...part, slotId: there.id }) : null;
      const data = { ...base, wants: label(aim.slot), gets: relayed === undefined ? null : label(relayed) };
      return [finding('tone.told-elsewhere', 'error', place, data, fix)];
    }),
  );
};
