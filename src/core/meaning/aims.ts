import { keepsOf } from '../addressing';
import type { UnitAim, Wanted } from '../rig';
import { fromHex } from '../midi';
import { TICKS_PER_QUARTER, millisToMicros } from '../time';
import {
  indexShow,
  microsAt,
  type Show,
  slotsById,
  type Song,
  songTime,
  type Tone,
  type TonePart,
  type Unit,
} from '../show';
import { moments, tapRuns } from './moments';

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
  for (const { id, encoding } of profile.controls) if (keepsOf(encoding) === 'nothing') delete controls[id];
  return { slot, variant: part.variant ?? undefined, controls };
}

/**
 * What a tone wants, unit by unit: what it names, and what relay rules bring to units
 * that it does not name.
 */
export function toneAims(show: Show, tone: Tone): ReadonlyMap<string, UnitAim> {
  const { units } = indexShow(show);
  const aims = new Map<string, UnitAim>();
  for (const part of tone.parts) {
    const unit = units.get(part.unitId);
    if (unit) aims.set(unit.id, aimOf(unit, part));
  }
  const queue = tone.parts.map(({ unitId, slotId, variant }) => ({ unitId, slotId, variant }));
  for (const part of queue) {
    for (const relay of units.get(part.unitId)?.relays ?? []) {
      const target = units.get(relay.toUnitId);
      const slot = target && slotsById(target).get(relay.toSlotId);
      if (!target || !slot || aims.has(target.id) || !relayHolds(relay.when, part)) continue;
      aims.set(target.id, { slot: slot.index, controls: {} });
      queue.push({ unitId: target.id, slotId: slot.id, variant: null });
    }
  }
  return aims;
}

function relayHolds(when: Unit['relays'][number]['when'], part: Pick<TonePart, 'slotId' | 'variant'>): boolean {
  if (when.slotId !== null && when.slotId !== part.slotId) return false;
  return when.variant === null ? part.slotId !== null : when.variant === part.variant;
}

/** All that a song wants of the rig, moment by moment. It knows nothing of how it will be sent. */
export function songWants(show: Show, song: Song): Wanted[] {
  const { tones } = indexShow(show);
  const time = songTime(song);
  const aimsOf = new Map<string, ReadonlyMap<string, UnitAim>>();
  const wants: Wanted[] = [];
  for (const moment of moments(show, song)) {
    const due = microsAt(time, moment.at) + millisToMicros(moment.shift);
    const { id: cueId, landing, action } = moment;
    if (action.kind === 'message') {
      const bytes = fromHex(action.bytes)!;
      wants.push({ cueId, unitId: action.unitId, due, landing, aim: { kind: 'bytes', bytes } });
      continue;
    }
    if (action.kind === 'values') {
      const state = { controls: action.values };
      wants.push({ cueId, unitId: action.unitId, due, landing, aim: { kind: 'state', state } });
      continue;
    }
    let aims = aimsOf.get(action.toneId);
    if (!aims) {
      aims = toneAims(show, tones.get(action.toneId)!);
      aimsOf.set(action.toneId, aims);
    }
    for (const [unitId, state] of aims) {
      wants.push({ cueId, unitId, due, landing, aim: { kind: 'state', state } });
    }
  }
  return [...wants, ...tempoWants(show, song)];
}

/** That units have the tempo: after each run of taps, and after the first quarter of every tempo that a clock gives. */
function tempoWants(show: Show, song: Song): Wanted[] {
  const time = songTime(song);
  const wants: Wanted[] = [];
  for (const { tapsId, unitId, at, beat, count, steady } of tapRuns(show, song)) {
    if (!steady || count === 0) continue;
    const interval = microsAt(time, at + beat) - microsAt(time, at);
    const due = microsAt(time, at + (count - 1) * beat);
    wants.push({ cueId: tapsId, unitId, due, landing: 'sent', aim: { kind: 'tempo', by: 'taps', interval } });
  }
  for (const { id, portId } of song.clocks) {
    const hears = show.units.filter((u) => u.input?.from === 'port' && u.input.portId === portId);
    for (const { at } of song.tempo) {
      // Clocks go by quarters from the start of the song.
      const from = Math.ceil(at / TICKS_PER_QUARTER) * TICKS_PER_QUARTER;
      const to = from + TICKS_PER_QUARTER;
      if (to > time.end) continue;
      const due = microsAt(time, to);
      const aim = { kind: 'tempo', by: 'clock', interval: due - microsAt(time, from) } as const;
      for (const unit of hears) wants.push({ cueId: id, unitId: unit.id, due, landing: 'sent', aim });
    }
  }
  return wants;
}
