import { LIMITS } from '../limits';
import { fitsRange, isContinuous, slotCount, type Control, type Encoding, type Profile } from '../../addressing';
import { NOWHERE, problem, type Problem } from '../../problems';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import { newSlot } from '../builders';
import { profileProblems } from '../profileProblems';
import { withoutControls, type StillThere } from './withoutControls';
import { changedLayers } from './unlinked';
import type { Feet, HouseNumber, Show, Slot, TonePart, Unit } from '../schema';

/** Something that a tone, a preset, a song or a page says of a unit and that a changed profile no longer has. */
export interface Dropped {
  readonly where: 'tone' | 'slot' | 'song' | 'page';
  readonly id: string;
  readonly name: string;
  /** What it was: a control's or an effect's name, or the unit's word for a variant. */
  readonly what: string;
}

export type ProfileChange =
  | { readonly ok: true; readonly edit: Edit | null; readonly dropped: readonly Dropped[] }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** What is programmed, as far as the controller still has the switches and pedals for it. */
function onItsSwitches(feet: Feet, { senders }: Profile): Feet {
  const there = new Set(senders.map((s) => s.id));
  return changedLayers(feet, (layer) => ({
    ...layer,
    switches: layer.switches.filter((s) => there.has(s.id)),
    pedals: layer.pedals.filter((p) => there.has(p.id)),
  }));
}

/**
 * Puts another profile in a unit's place: an edited one, another firmware's, or that of
 * another unit. Refused while it is faulty or has no room for slots that are named. What
 * tones and presets say of things that it has no longer is dropped in the same edit, and
 * told.
 */
export function changeProfile(show: Show, unitId: string, next: Profile, rest: Partial<Unit> = {}): ProfileChange {
  const unit = indexShow(show).units.get(unitId);
  if (!unit) return { ok: true, edit: null, dropped: [] };
  const sound = withoutDangling(next);
  const problems = profileProblems(unit.name, sound, () => NOWHERE);
  const slots = rest.slots ?? unit.slots;
  const room = slotCount(sound.plan);
  const outside = slots.find((s) => s.index >= room);
  if (outside) {
    problems.push(problem('show.slot-range', 'error', NOWHERE, { unit: unit.name, index: outside.index, slots: room }));
  }
  if (problems.length > 0) return { ok: false, problems };
  const dropped: Dropped[] = [];
  const after: Unit = {
    ...unit,
    ...rest,
    profile: sound,
    slots: slots.map((slot) => fitSlot(slot, sound, dropped)),
    relays: unit.relays.filter((r) => r.when.variant === null || r.when.variant < variantCount(sound)),
  };
  const edits: Edit[] = [];
  for (const field of Object.keys(after) as (keyof Unit)[]) {
    if (JSON.stringify(unit[field]) === JSON.stringify(after[field])) continue;
    edits.push({ kind: 'set', path: ['units', { id: unitId }, field], before: unit[field], after: after[field] });
  }
  for (const tone of show.tones) {
    const parts = tone.parts.map((p) => (p.unitId === unitId ? fitPart(p, tone, sound, dropped) : p));
    if (parts.some((p, i) => p !== tone.parts[i])) {
      edits.push({ kind: 'set', path: ['tones', { id: tone.id }, 'parts'], before: tone.parts, after: parts });
    }
  }
  const byId = new Map(sound.controls.map((c) => [c.id, c]));
  const left: StillThere = {
    unit: true,
    value: (controlId, value) => byId.has(controlId) && fitsRange(byId.get(controlId)!.encoding, value),
    swept: (controlId) => byId.has(controlId) && isContinuous(byId.get(controlId)!.encoding),
  };
  edits.push(
    ...withoutControls(show, unitId, left, (name, what) => dropped.push({ where: 'song', id: '', name, what })),
  );
  const feet = show.feet.map((f) => (f.id === unitId ? onItsSwitches(f, sound) : f));
  if (JSON.stringify(feet) !== JSON.stringify(show.feet)) {
    // The pages first: what they name is there until then.
    edits.unshift({ kind: 'set', path: ['feet'], before: show.feet, after: feet });
    dropped.push({ where: 'page', id: unitId, name: `${unit.name}: pages`, what: 'switch' });
  }
  return { ok: true, edit: edits.length === 0 ? null : { kind: 'group', edits }, dropped };
}

const variantCount = (profile: Profile): number => profile.variants?.names.length ?? 0;

/** Effects and the engage switch name controls; those whose control is gone go with it. */
function withoutDangling(profile: Profile): Profile {
  const ids = new Set(profile.controls.map((c) => c.id));
  const effects = profile.effects
    .filter((e) => ids.has(e.cut))
    .map((e) => (e.ring === null || ids.has(e.ring) ? e : { ...e, ring: null }));
  const engage = profile.engage !== null && ids.has(profile.engage) ? profile.engage : null;
  return { ...profile, effects, engage };
}

function fits(profile: Profile, controlId: string, value: number): boolean {
  const control = profile.controls.find((c) => c.id === controlId);
  return control !== undefined && fitsRange(control.encoding, value);
}

function fitSlot(slot: Slot, profile: Profile, dropped: Dropped[]): Slot {
  const drop = (what: string): void => void dropped.push({ where: 'slot', id: slot.id, name: slot.name, what });
  let next = slot;
  const startControls = slot.startControls.filter((c) => fits(profile, c.controlId, c.value));
  if (startControls.length < slot.startControls.length) {
    for (const c of slot.startControls) if (!startControls.includes(c)) drop(c.controlId);
    next = { ...next, startControls };
  }
  if (slot.startVariant !== null && slot.startVariant >= variantCount(profile)) {
    drop(profile.variants?.word ?? 'variant');
    next = { ...next, startVariant: null };
  }
  return next;
}

function fitPart(
  part: TonePart,
  tone: { readonly id: string; readonly name: string },
  profile: Profile,
  dropped: Dropped[],
): TonePart {
  const drop = (what: string): void => void dropped.push({ where: 'tone', id: tone.id, name: tone.name, what });
  const controls = part.controls.filter((c) => fits(profile, c.controlId, c.value));
  const effects = part.effects.filter((e) => profile.effects.some((x) => x.id === e.effectId));
  for (const c of part.controls) if (!controls.includes(c)) drop(c.controlId);
  for (const e of part.effects) if (!effects.includes(e)) drop(e.effectId);
  const keepsVariant = part.variant === null || part.variant < variantCount(profile);
  if (!keepsVariant) drop(profile.variants?.word ?? 'variant');
  if (keepsVariant && controls.length === part.controls.length && effects.length === part.effects.length) return part;
  return { ...part, controls, effects, variant: keepsVariant ? part.variant : null };
}

/** Replaces one control of a profile, or adds it at the end. */
export const withControl = (profile: Profile, control: Control): Profile => {
  const at = profile.controls.findIndex((c) => c.id === control.id);
  const controls = at < 0 ? [...profile.controls, control] : profile.controls.with(at, control);
  return { ...profile, controls };
};

/** The profile without one of its controls. */
export const withoutControl = (profile: Profile, controlId: string): Profile => ({
  ...profile,
  controls: profile.controls.filter((c) => c.id !== controlId),
});

/** Goes over to another version that the unit carries; the present one takes its place among the others. */
export function switchVersion(show: Show, unitId: string, index: number): ProfileChange {
  const unit = indexShow(show).units.get(unitId);
  const next = unit?.versions[index];
  if (!unit || !next) return { ok: true, edit: null, dropped: [] };
  return changeProfile(show, unitId, next, { versions: unit.versions.with(index, unit.profile) });
}

/** Keeps the present profile as another version, with the firmware named `firmware`, to be edited apart. */
export function addVersion(show: Show, unitId: string, firmware: string): Edit | null {
  const unit = indexShow(show).units.get(unitId);
  const name = firmware.trim().slice(0, 24);
  if (!unit || name === '' || [unit.profile, ...unit.versions].some((p) => p.firmware === name)) return null;
  return {
    kind: 'insert',
    path: ['units', { id: unitId }, 'versions'],
    index: unit.versions.length,
    value: { ...unit.profile, firmware: name },
  };
}

/**
 * Copies one unit's map to another: its profile, and with `slots` its named slots too. The
 * other unit keeps its name, cables and channel; slots of the same index keep their
 * identity, so that tones stay right.
 */
export function copyMap(show: Show, fromId: string, toId: string, slots: boolean, newId: () => string): ProfileChange {
  const { units } = indexShow(show);
  const from = units.get(fromId);
  const to = units.get(toId);
  if (!from || !to || fromId === toId) return { ok: true, edit: null, dropped: [] };
  return takeMap(show, from, toId, slots, newId);
}

/** Puts the map of a unit, of this show or of another one, in the place of a unit's own, as `copyMap` does. */
export function takeMap(show: Show, from: Unit, toId: string, slots: boolean, newId: () => string): ProfileChange {
  const to = indexShow(show).units.get(toId);
  if (!to) return { ok: true, edit: null, dropped: [] };
  const rest = { versions: from.versions, ...(slots ? { slots: copiedSlots(from, to, newId) } : {}) };
  return changeProfile(show, toId, from.profile, rest);
}

function copiedSlots(from: Unit, to: Unit, newId: () => string): Slot[] {
  const own = new Map(to.slots.map((s) => [s.index, s]));
  for (const slot of from.slots) {
    own.set(slot.index, { ...slot, id: own.get(slot.index)?.id ?? newSlot(newId(), slot.index, '').id });
  }
  return [...own.values()].sort((a, b) => a.index - b.index);
}

const numberOf = (encoding: Encoding): number | undefined => ('number' in encoding ? encoding.number : undefined);

/** A control on another number, where it has one. */
export const renumbered = (control: Control, number: number): Control =>
  numberOf(control.encoding) === undefined || control.encoding.kind === 'nrpn'
    ? control
    : { ...control, encoding: { ...control.encoding, number } as Encoding };

/** Adds a shared control number: a function and the control number that it has on every unit. */
export const addHouseNumber = (show: Show, house: HouseNumber): Edit | null =>
  show.house.length >= LIMITS.house
    ? null
    : { kind: 'insert', path: ['house'], index: show.house.length, value: house };

/** Takes a shared control number away; controls that followed it keep their number. */
export function removeHouseNumber(show: Show, houseId: string): Edit | null {
  const index = show.house.findIndex((h) => h.id === houseId);
  if (index < 0) return null;
  const edits = show.units.flatMap((u) => followers(u, houseId, (c) => ({ ...c, houseId: null })));
  return { kind: 'group', edits: [...edits, { kind: 'remove', path: ['house'], index, value: show.house[index] }] };
}

function followers(unit: Unit, houseId: string, change: (c: Control) => Control): Edit[] {
  const edit = (profile: Profile): Profile => ({
    ...profile,
    controls: profile.controls.map((c) => (c.houseId === houseId ? change(c) : c)),
  });
  const path = ['units', { id: unit.id }] as const;
  const edits: Edit[] = [];
  if (unit.profile.controls.some((c) => c.houseId === houseId)) {
    edits.push({ kind: 'set', path: [...path, 'profile'], before: unit.profile, after: edit(unit.profile) });
  }
  if (unit.versions.some((v) => v.controls.some((c) => c.houseId === houseId))) {
    edits.push({ kind: 'set', path: [...path, 'versions'], before: unit.versions, after: unit.versions.map(edit) });
  }
  return edits;
}

/** Changes a shared control number; every control that follows it goes along, on every unit. */
export function setHouseNumber(show: Show, houseId: string, after: Pick<HouseNumber, 'name' | 'number'>): Edit | null {
  const before = show.house.find((h) => h.id === houseId);
  if (!before || (before.name === after.name && before.number === after.number)) return null;
  if (after.name.trim() === '' || !Number.isInteger(after.number) || after.number < 0 || after.number > 127)
    return null;
  const value = { id: houseId, name: after.name.trim().slice(0, LIMITS.title), number: after.number };
  const edits = show.units.flatMap((u) => followers(u, houseId, (c) => renumbered(c, after.number)));
  return {
    kind: 'group',
    edits: [
      { kind: 'set', path: ['house'], before: show.house, after: show.house.map((h) => (h === before ? value : h)) },
      ...edits,
    ],
  };
}
