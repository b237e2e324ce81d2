import { keepsOf, slotCount, slotMessages } from '../addressing';
import { changesTo, contextOf, latencyOf, moments, passMoment, StateFold, type RigContext } from '../meaning';
import type { TimedBytes } from '../midi';
import { sameControl, type RigState, type UnitAim, type UnitSpec, type UnitState } from '../rig';
import { microsAt, songTime, type Show, type Song } from '../show';
import type { Micros, Ticks } from '../time';
import { CheckpointKeeper, hasCheckpoints, stateFrom } from './checkpoints';
import { sendsOf, type Send } from './expand';
import { Planner } from './planner';
import { soonestEnds } from './schedule/soonest';
import { scheduleThrough } from './thruWaits';

/** Id of the cue that catch-up messages are sent for. */
export const CATCH_UP_CUE = 'catch-up';

/**
 * The state that playing a song from its start leaves the rig in at a place: everything
 * due up to and at `at` has happened. `from` is what is known before the song.
 */
export function stateAt(show: Show, song: Song, at: Ticks, from: RigState = {}): RigState {
  const context = contextOf(show);
  const time = songTime(song);
  // Rounding of sums of microseconds.
  const place = microsAt(time, at) + 1;
  const all = moments(show, song);
  if (Object.keys(from).length === 0 && all.length > 0) {
    if (!hasCheckpoints(show, song)) passAll(show, song);
    return stateFrom(song, place, (fold, i) => void passMoment(show, context, fold, all[i]!, 'changes'));
  }
  const fold = new StateFold(context.units, from);
  for (const cue of all) {
    if (cue.due <= place) passMoment(show, context, fold, cue, 'changes');
  }
  return fold.all();
}

/** Goes through a song that nobody compiled, for its checkpoints. */
function passAll(show: Show, song: Song): void {
  const context = contextOf(show);
  const fold = new StateFold(context.units);
  const keeper = new CheckpointKeeper();
  for (const moment of moments(show, song)) {
    keeper.add(fold, moment.due);
    passMoment(show, context, fold, moment, 'changes');
  }
  keeper.keep(show, song);
}

/**
 * The fewest messages that bring the rig from one state to another, in an order that the
 * units accept, unit by unit. What the wanted state does not know is left alone.
 */
export const catchUpSends = (show: Show, from: RigState, to: RigState): Turns[] =>
  caughtUp(show, new StateFold(contextOf(show).units, from), to).plans;

/** The same, and what is known of the rig when they have had their effect. */
export function caughtUp(show: Show, from: StateFold, to: RigState): { plans: Turns[]; fold: StateFold } {
  const context = contextOf(show);
  let fold = from;
  const units = [...context.units.values()].sort((a, b) => context.order.get(a.id)! - context.order.get(b.id)!);
  const result: Turns[] = [];
  for (const unit of units) {
    const wanted = to[unit.id];
    if (!wanted || !context.paths.has(unit.id)) continue;
    const plan = bestPlan(context, fold, unit, to);
    fold = plan.fold;
    if (plan.turns.length > 0) result.push({ unit, turns: plan.turns });
  }
  return { plans: result, fold };
}

type Context = RigContext;

/** A unit's messages, in turns: the relay effects of one are over before the next. */
export interface Turns {
  readonly unit: UnitSpec;
  readonly turns: readonly (readonly Send[])[];
}

interface Plan {
  readonly fold: StateFold;
  readonly turns: readonly (readonly Send[])[];
}

const lengthOf = ({ turns }: Plan): number => turns.reduce((n, sends) => n + sends.length, 0);

/** A stop on the way, for what the unit then relays to others. */
interface Detour {
  readonly slot: number | null;
  readonly variant: number | null;
}

/**
 * The messages for one unit. Units that no port reaches are brought to their state by the
 * unit before them, which may have to go where it is once more, or by way of a place that
 * makes it relay; of the ways that do it, the one with the fewest messages is taken. What a recall
 * and the variant right behind it bring together may be brought by nothing else.
 */
function bestPlan(context: Context, fold: StateFold, unit: UnitSpec, to: RigState): Plan {
  const straight = plan(context, fold, unit, to, [], false);
  const goals = unreachedBy(context, unit, to);
  if (done(straight, goals)) return straight;
  const ways = unit.relays
    .filter((r) => goals.has(r.toUnit))
    .flatMap((r): Detour[] => {
      const own = { slot: r.slot, variant: r.variant };
      // A rule on a variant of any preset: also in a preset that no other rule speaks of.
      const spare = r.slot === null ? unnamedSlot(unit) : undefined;
      return spare === undefined ? [own] : [own, { slot: spare, variant: r.variant }];
    });
  // Two detours are tried only where one does not do: a unit may have a rule for each of its presets.
  const shortest = (tried: readonly (readonly Detour[])[]): Plan | undefined => {
    let best: Plan | undefined;
    for (const way of tried) {
      for (const recalls of [false, true]) {
        const found = plan(context, fold, unit, to, way, recalls);
        if (done(found, goals) && (!best || lengthOf(found) < lengthOf(best))) best = found;
      }
    }
    return best;
  };
  const one = shortest([[], ...ways.flatMap((way) => left([way], unit, to))]);
  return (
    one ?? shortest(ways.flatMap((first) => ways.flatMap((second) => left([first, second], unit, to)))) ?? straight
  );
}

/** The first slot that no rule of a unit names. */
function unnamedSlot({ profile, relays }: UnitSpec): number | undefined {
  const named = new Set(relays.map((r) => r.slot));
  for (let slot = 0; slot < slotCount(profile.plan); slot++) {
    if (!named.has(slot) && slotMessages(profile.plan, 1, slot, null) !== null) return slot;
  }
  return undefined;
}

/**
 * A way, and the same with the wanted variant set before the wanted preset is called, or before all
 * of the way: where a preset keeps the variant, calling it in another one might fire a rule of its own.
 * Where the wanted variant is not known it may be any: one that no rule names.
 */
function left(way: readonly Detour[], unit: UnitSpec, to: RigState): (readonly Detour[])[] {
  if (unit.profile.recallLoads.variant || !unit.profile.variants) return [way];
  const wanted = to[unit.id]?.variant;
  const variant = typeof wanted === 'number' ? wanted : unnamedVariant(unit);
  if (variant === undefined) return [way];
  return [way, [...way, { slot: way.at(-1)!.slot, variant }], [{ slot: null, variant }, ...way]];
}

/** The first variant that no rule of a unit names. */
function unnamedVariant({ profile, relays }: UnitSpec): number | undefined {
  const named = new Set(relays.map((r) => r.variant));
  return profile.variants?.names.map((_, i) => i).find((i) => !named.has(i));
}

/** The slots wanted of units that only this one's relay rules reach, near and far. */
function unreachedBy(context: Context, unit: UnitSpec, to: RigState): Map<string, number> {
  const goals = new Map<string, number>();
  const visit = (from: UnitSpec): void => {
    for (const { toUnit } of from.relays) {
      const target = context.units.get(toUnit);
      const slot = to[toUnit]?.slot ?? null;
      if (!target || context.paths.has(toUnit) || slot === null || goals.has(toUnit)) continue;
      goals.set(toUnit, slot);
      visit(target);
    }
  };
  visit(unit);
  return goals;
}

const done = ({ fold }: Plan, goals: ReadonlyMap<string, number>): boolean =>
  [...goals].every(([id, slot]) => fold.get(id).slot === slot);

/** By a way to what is wanted; with `recalls` the wanted preset is recalled at the end also where it is on. */
function plan(
  context: Context,
  from: StateFold,
  unit: UnitSpec,
  to: RigState,
  way: readonly Detour[],
  recalls: boolean,
): Plan {
  const fold = new StateFold(context.units, from.all());
  const channel = context.channels.get(unit.id)!;
  const wanted = to[unit.id]!;
  const turns: (readonly Send[])[] = [];
  const turn = (aim: UnitAim, reload: boolean, resend = false): void => {
    const changes = changesTo(fold, unit, aim, 'changes', reload, resend);
    const sends = sendsOf({ unit, channel, changes, raw: null });
    if (sends.length > 0) turns.push(sends);
  };
  for (const { slot, variant } of way) {
    const place = slot ?? wanted.slot ?? undefined;
    const aim = { slot: place, variant: variant ?? undefined, controls: {} };
    // A rule on the slot alone fires only when the slot is recalled.
    const reload = variant === null && place !== undefined;
    // One on a variant fires when the variant is called again, or kept over the recall of another slot.
    const stays = place === undefined || fold.get(unit.id).slot === place;
    turn(aim, reload, variant !== null && stays);
  }
  const reload = wanted.slot !== null && (recalls || lostToStore(unit, fold.get(unit.id), wanted));
  const aim = {
    slot: wanted.slot ?? undefined,
    variant: typeof wanted.variant === 'number' ? wanted.variant : undefined,
    controls: Object.fromEntries(
      Object.entries(wanted.controls).filter((c): c is [string, number] => c[1] !== 'stored'),
    ),
  };
  turn(aim, reload);
  return { fold, turns };
}

/** Only loading the preset again brings back what the preset stores. */
function lostToStore(unit: UnitSpec, is: UnitState, wanted: UnitState): boolean {
  if (is.slot !== wanted.slot) return false;
  if (wanted.variant === 'stored' && is.variant !== 'stored') return true;
  const start = wanted.slot === null ? undefined : unit.starts[wanted.slot];
  return unit.profile.controls.some(({ id, encoding }) => {
    const value = wanted.controls[id];
    if (value === 'stored') return !sameControl(unit.profile, id, is.controls[id], value);
    // What only turns over is known again once the preset, as somebody wrote it down, is loaded.
    const lost = keepsOf(encoding) === 'flip' && value !== undefined && typeof is.controls[id] !== 'number';
    return lost && unit.profile.recallLoads.controls && start?.controls[id] !== undefined;
  });
}

export interface CatchUp {
  readonly events: readonly TimedBytes[];
  /** From the first byte until the last effect. */
  readonly length: Micros;
}

/** Catch-up messages timed from 0 on, as soon as cables and units take them. */
export const catchUp = (show: Show, from: RigState, to: RigState): CatchUp =>
  soonest(show, from, catchUpSends(show, from, to), CATCH_UP_CUE);

/** Id of the cue that messages sent to try something belong to. */
export const AUDITION_CUE = 'audition';

/**
 * The messages that try one thing on a unit at once. A slot is recalled also when it is on
 * already: whoever presses it wants to hear it load.
 */
export function audition(show: Show, unitId: string, aim: UnitAim, from: RigState): CatchUp {
  const context = contextOf(show);
  const unit = context.units.get(unitId);
  if (!unit || !context.paths.has(unitId)) return { events: [], length: 0 };
  const fold = new StateFold(context.units, from);
  const known = fold.get(unitId);
  // Nothing may be left out as known: the real unit may have been turned by hand.
  fold.set(unitId, { ...known, variant: null, controls: turnedAway(unit, aim) });
  const changes = changesTo(fold, unit, aim, 'changes', true);
  const sends = sendsOf({ unit, channel: context.channels.get(unitId)!, changes, raw: null });
  return soonest(show, from, [{ unit, turns: [sends] }], AUDITION_CUE);
}

/** Whatever a switch that only turns over is at: pressing it turns it. */
const turnedAway = (unit: UnitSpec, aim: UnitAim): Record<string, number> =>
  Object.fromEntries(
    unit.profile.controls
      .filter((c) => keepsOf(c.encoding) === 'flip' && aim.controls[c.id] !== undefined)
      .map((c) => [c.id, 1 - aim.controls[c.id]!]),
  );

/** Times sends from 0 on, as soon as cables and units take them. */
function soonest(show: Show, from: RigState, plans: readonly Turns[], cueId: string): CatchUp {
  const context = contextOf(show);
  const planner = new Planner(context, true);
  const now = { at: 0, cueId: null, due: 0 };
  for (const { unit, turns } of plans) {
    for (const sends of turns) {
      planner.add({ cueId, landing: 'complete', due: 0 }, [{ unit, sends, unreached: false }], () => now);
    }
  }
  const events: TimedBytes[] = [];
  let length = 0;
  for (const jobs of planner.lists.values()) {
    const { ends } = scheduleThrough(context, from, jobs, soonestEnds);
    for (const [i, { path, send, unit, duration }] of jobs.entries()) {
      events.push({ at: ends[i]! - duration, portId: path.portId, bytes: send.bytes, cueId, unitId: unit.id });
      const relayed = send.relayEffects ? Math.max(0, ...send.relayEffects.relayed.map((t) => t.there ?? 0)) : 0;
      length = Math.max(length, ends[i]! + latencyOf(path, send.bytes) + settled(unit) + relayed);
    }
  }
  events.sort((a, b) => a.at - b.at);
  return { events, length };
}

/** The most that a unit needs for one turn of messages. */
export const settled = ({ pace }: UnitSpec): Micros => Math.max(pace.recall, pace.settle) + pace.variant + pace.control;
