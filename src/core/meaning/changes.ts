import { addressOf, keepsOf, slotCount, type Control } from '../addressing';
import { DIN_BYTE_MICROS, decodeMessage, type Bytes } from '../midi';
import { remember, sameControl, understand, type RigSpec, type UnitAim, type UnitSpec } from '../rig';
import type { Micros } from '../time';
import { Course, type RelayCall as CallOf } from './course';
import type { StateFold } from './stateFold';

/** Whether to send only what changes something, or all that a cue says. */
export type Thrift = 'changes' | 'everything';

/** Which message of a change set something off: its recall or its variant. */
export type Root = 'recall' | 'variant';

export type RelayCall = CallOf<Root>;

/** What a change of a unit causes by relay rules; times count from its effect, in microseconds. */
export interface RelayEffects {
  /** From the effect until the last unit down the chain has changed too. */
  readonly tail: Micros;
  readonly relayed: readonly RelayCall[];
}

/** One thing that is changed on a unit, in the order in which it is sent. */
export type Change =
  /** `bankBefore` is the bank that the unit was in, as far as it is known. */
  | {
      readonly kind: 'slot';
      readonly slot: number;
      readonly bankBefore: number | null;
      readonly relayEffects: RelayEffects;
    }
  | { readonly kind: 'variant'; readonly variant: number; readonly relayEffects: RelayEffects }
  | { readonly kind: 'control'; readonly control: Control; readonly value: number };

export const NO_RELAY_EFFECTS: RelayEffects = { tail: 0, relayed: [] };

type Writable<T> = { -readonly [K in keyof T]: T[K] };

/**
 * What brings one unit to an aim: slot, engage, variant, controls. Changes `fold`, and what relay rules do in it.
 * With `reload` the slot is recalled also where it is on, with `resend` the variant is called also where it is on:
 * both trigger their relay rules once more.
 */
export function changesTo(
  fold: StateFold,
  unit: UnitSpec,
  aim: UnitAim,
  thrift: Thrift,
  reload: boolean,
  resend = false,
): Change[] {
  const { profile } = unit;
  const changes: Writable<Change>[] = [];
  const all = thrift === 'everything';
  const course = unit.relays.length > 0 ? new Course<Root>(fold.units, fold) : undefined;
  let recalls: Writable<Extract<Change, { kind: 'slot' }>> | undefined;
  if (aim.slot !== undefined && (all || reload || fold.get(unit.id).slot !== aim.slot)) {
    const address = addressOf(profile.plan, aim.slot);
    // A slot behind the last stands for one that the unit has not got: no message calls it.
    if (address && aim.slot < slotCount(profile.plan)) {
      const before = fold.get(unit.id);
      recalls = { kind: 'slot', slot: aim.slot, bankBefore: all ? null : before.bank, relayEffects: NO_RELAY_EFFECTS };
      changes.push(recalls);
      fold.set(unit.id, { ...before, bank: address.bank });
      fold.loadSlot(unit, aim.slot);
      course?.reached(unit, 'slot', 0, 'recall');
    }
  }
  const engage = profile.engage === null ? undefined : profile.controls.find((c) => c.id === profile.engage);
  if (engage) setControl(engage);
  if (aim.variant !== undefined && profile.variants && (all || resend || fold.get(unit.id).variant !== aim.variant)) {
    const change: Writable<Extract<Change, { kind: 'variant' }>> = {
      kind: 'variant',
      variant: aim.variant,
      relayEffects: NO_RELAY_EFFECTS,
    };
    changes.push(change);
    fold.setVariant(unit, aim.variant);
    if (course) {
      const behind = recalls ? variantBehindRecall(unit) : 0;
      course.reachedLater(unit, 'variant', behind, 'variant');
      course.run();
      const [byRecall, byVariant] = relayEffectsOf(course.relayed, behind);
      if (recalls) recalls.relayEffects = byRecall;
      change.relayEffects = byVariant;
    }
  } else if (course && recalls) {
    course.run();
    recalls.relayEffects = relayEffectsOf(course.relayed, 0)[0];
  }
  // Most aims name no control, or a few.
  let named = 0;
  for (const _ in aim.controls) named += 1;
  if (named > 0) {
    for (const control of profile.controls) {
      if (aim.controls[control.id] !== undefined && control.id !== profile.engage) setControl(control);
    }
  }
  return changes;

  function setControl(control: Control): void {
    const value = aim.controls[control.id];
    if (value === undefined) return;
    const is = fold.get(unit.id).controls[control.id];
    if (keepsOf(control.encoding) === 'flip') {
      // From a state that nobody knows, turning it over is as likely wrong as right.
      if (typeof is !== 'number' || is === value) return;
    } else if (!all && sameControl(profile, control.id, is, value)) return;
    fold.moveControl(unit, control, value);
    changes.push({ kind: 'control', control, value });
  }
}

/**
 * How long after a recalled preset is there the variant is that follows the recall as soon as
 * the unit takes it: not at all where it is accepted while the preset still loads.
 */
export function variantBehindRecall({ profile, pace }: UnitSpec): Micros {
  const { recall, variant, settle } = pace;
  const wire = (profile.engage === null ? 1 : 2) * 3 * DIN_BYTE_MICROS;
  return Math.max(0, Math.max(settle, wire) + variant - recall);
}

/**
 * The relay effects of recall and variant of one change. Where both call the same unit, the variant's
 * rules have to come as close behind the recall's as was reckoned, or the unit ends elsewhere.
 */
function relayEffectsOf(relayed: readonly RelayCall[], behind: Micros): [recall: RelayEffects, variant: RelayEffects] {
  const byRecall = relayed.filter((t) => t.root === 'recall');
  const byVariant = relayed.filter((t) => t.root === 'variant');
  const end = (list: readonly RelayCall[]): Micros => list.reduce((last, t) => Math.max(last, t.there ?? 0), 0);
  const both = byRecall.some((a) => byVariant.some((b) => a.unit === b.unit));
  const tail = Math.max(0, end(byVariant) - behind);
  const from = (t: RelayCall): RelayCall => ({
    ...t,
    first: t.first - behind,
    arrives: t.arrives - behind,
    there: t.there === null ? null : t.there - behind,
  });
  return [
    { tail: end(byRecall), relayed: byRecall },
    { tail: both ? Math.max(tail, end(byRecall) - behind) : tail, relayed: byVariant.map(from) },
  ];
}

/** What bytes do to a unit as they stand: what the map understands of them becomes part of the state. */
export type Taken =
  | { readonly kind: 'slot'; readonly slot: number | null; readonly relayEffects: RelayEffects }
  | { readonly kind: 'variant'; readonly variant: number; readonly relayEffects: RelayEffects }
  | { readonly kind: 'control' }
  /** A part of something longer, a bank, or nothing that the map knows. */
  | { readonly kind: 'other' };

/**
 * Applies a message to the folded state of a unit as the unit itself would take it, and says what it set off by relay
 * rules.
 */
export function takeMessage(fold: StateFold, unit: UnitSpec, bytes: Bytes): Taken {
  const message = decodeMessage(bytes);
  if (!message) return { kind: 'other' };
  const memory = fold.memoryOf(unit.id);
  const { variant, controls, heard } = understand(unit.profile, message, memory);
  remember(memory, message);
  for (const [control, value] of controls) fold.moveControl(unit, control, value);
  if (variant !== undefined) {
    fold.setVariant(unit, variant);
    return { kind: 'variant', variant, relayEffects: alone(fold, unit, 'variant') };
  }
  if (controls.length > 0) return { kind: 'control' };
  if (heard) return { kind: 'other' };
  const slot = fold.readAddress(unit, bytes);
  if (slot === undefined) return { kind: 'other' };
  fold.loadSlot(unit, slot);
  return { kind: 'slot', slot, relayEffects: alone(fold, unit, 'slot') };
}

function alone(fold: StateFold, unit: UnitSpec, reached: 'slot' | 'variant'): RelayEffects {
  if (unit.relays.length === 0) return NO_RELAY_EFFECTS;
  const course = new Course<Root>(fold.units, fold);
  course.reached(unit, reached, 0, reached === 'slot' ? 'recall' : 'variant');
  course.run();
  return relayEffectsOf(course.relayed, 0)[reached === 'slot' ? 0 : 1];
}

/** Units in an order in which every relay leads forward; those on a cycle keep their place. */
export function relayOrder(spec: RigSpec): readonly UnitSpec[] {
  const units = new Map(spec.units.map((u) => [u.id, u]));
  const order: UnitSpec[] = [];
  const seen = new Set<string>();
  const visit = (unit: UnitSpec): void => {
    if (seen.has(unit.id)) return;
    seen.add(unit.id);
    for (const relay of unit.relays) {
      const target = units.get(relay.toUnit);
      if (target) visit(target);
    }
    order.push(unit);
  };
  for (const unit of spec.units.toReversed()) visit(unit);
  return order.reverse();
}
