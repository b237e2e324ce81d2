import { append } from '../../groups';
import { isWorstBelow, slotCount, type Profile } from '../../addressing';
import { problem, type Problem } from '../../problems';
import { profileProblems, worstBelow } from '../profileProblems';
import type { Unit } from '../schema';
import { type PathPart, at, type Known, once, missing, checkVariant, checkValues } from './known';

/**
 * What the schema cannot say of a unit: references, slots and controls that are there once. `i` is its place in the
 * show.
 */
export function checkUnit(unit: Unit, i: number, known: Known): Problem[] {
  const problems: Problem[] = [];
  if (unit.playerId !== null && !known.players.has(unit.playerId)) {
    problems.push(missing('player', unit.playerId, 'units', i, 'playerId'));
  }
  if (unit.input?.from === 'port' && !known.ports.has(unit.input.portId)) {
    problems.push(missing('port', unit.input.portId, 'units', i, 'input', 'portId'));
  }
  if (unit.input?.from === 'unit' && !known.units.has(unit.input.unitId)) {
    problems.push(missing('unit', unit.input.unitId, 'units', i, 'input', 'unitId'));
  }
  if (unit.returns && !known.ports.has(unit.returns.portId)) {
    problems.push(missing('port', unit.returns.portId, 'units', i, 'returns', 'portId'));
  }
  problems.push(...checkProfile(unit.name, unit.profile, known, 'units', i, 'profile'));
  for (const [k, version] of unit.versions.entries()) {
    problems.push(...checkProfile(unit.name, version, known, 'units', i, 'versions', k));
  }
  const slotIds = unit.slots.map((s) => s.id);
  append(problems, once('slot', slotIds, 'units', i, 'slots'));
  const kept = new Set(slotIds);
  for (const [k, { id }] of unit.lostSlots.entries()) {
    if (kept.has(id))
      problems.push(problem('show.twice', 'error', at('units', i, 'lostSlots', k), { what: 'slot', id }));
    kept.add(id);
  }
  append(
    problems,
    once(
      'relay',
      unit.relays.map((r) => r.id),
      'units',
      i,
      'relays',
    ),
  );
  const slots = slotCount(unit.profile.plan);
  const taken = new Set<number>();
  for (const [k, slot] of unit.slots.entries()) {
    if (slot.index >= slots) {
      const data = { unit: unit.name, index: slot.index, slots };
      problems.push(problem('show.slot-range', 'error', at('units', i, 'slots', k, 'index'), data));
    } else if (taken.has(slot.index)) {
      const data = { unit: unit.name, label: String(slot.index) };
      problems.push(problem('show.slot-shared', 'error', at('units', i, 'slots', k, 'index'), data));
    }
    taken.add(slot.index);
    if (slot.recall && isWorstBelow(slot.recall)) {
      problems.push(worstBelow(unit.name, slot.recall, at('units', i, 'slots', k, 'recall')));
    }
    problems.push(...checkVariant(unit, slot.startVariant, 'units', i, 'slots', k, 'startVariant'));
    problems.push(...checkValues(unit, slot.startControls, 'units', i, 'slots', k, 'startControls'));
  }
  for (const [k, relay] of unit.relays.entries()) {
    const path = ['units', i, 'relays', k] as const;
    if (relay.when.slotId !== null && !known.slotIds.get(unit.id)!.has(relay.when.slotId)) {
      problems.push(missing('slot', relay.when.slotId, ...path, 'when', 'slotId'));
    }
    if (!known.units.has(relay.toUnitId)) problems.push(missing('unit', relay.toUnitId, ...path, 'toUnitId'));
    else if (!known.slotIds.get(relay.toUnitId)!.has(relay.toSlotId)) {
      problems.push(missing('slot', relay.toSlotId, ...path, 'toSlotId'));
    }
  }
  return problems;
}

/** What a profile's shape alone does not say. */
function checkProfile(unit: string, profile: Profile, known: Known, ...path: PathPart[]): Problem[] {
  const problems = profileProblems(unit, profile, (...rest) => at(...path, ...rest));
  const { controls, effects, engage, senders } = profile;
  const idsOf = (list: readonly { readonly id: string }[]): string[] => list.map((x) => x.id);
  append(problems, once('control', idsOf(controls), ...path, 'controls'));
  append(problems, once('effect', idsOf(effects), ...path, 'effects'));
  append(problems, once('sender', idsOf(senders), ...path, 'senders'));
  const ids = new Set(idsOf(controls));
  for (const [k, effect] of effects.entries()) {
    for (const id of [effect.cut, effect.ring]) {
      if (id !== null && !ids.has(id)) problems.push(missing('control', id, ...path, 'effects', k));
    }
  }
  if (engage !== null && !ids.has(engage)) problems.push(missing('control', engage, ...path, 'engage'));
  for (const [k, { houseId }] of controls.entries()) {
    if (houseId !== null && !known.house.has(houseId)) {
      problems.push(missing('shared control number', houseId, ...path, 'controls', k, 'houseId'));
    }
  }
  return problems;
}
