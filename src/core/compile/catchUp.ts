import {
  UNKNOWN_STATE,
  sameControl,
  type RelaySpec,
  type RigState,
  type UnitSpec,
  type UnitState,
} from '../addressing';
import type { TimedBytes } from '../midi';
import { activeCues, microsAt, songTime, type Show, type Song } from '../show';
import { millisToMicros, type Micros, type Ticks } from '../time';
import { contextOf, expandCue } from './compileSong';
import { StateFold, expandAim, type Step } from './expand';
import { durationOf, gapAfter, latencyOf, newChain, type Chain, type PlannedJob } from './jobs';
import { schedulePort } from './schedule/schedulePort';

/** Id of the cue that catch-up messages are sent for. */
export const CATCH_UP_CUE = 'catch-up';

/**
 * The state that playing a song from its start leaves the rig in at a place: everything
 * due up to and at `at` has happened. `from` is what is known before the song.
 */
export function stateAt(show: Show, song: Song, at: Ticks, from: RigState = {}): RigState {
  const context = contextOf(show);
  const time = songTime(song);
  const place = microsAt(time, at);
  const fold = new StateFold(context.units, from);
  for (const cue of activeCues(show, song)) {
    const due = microsAt(time, cue.at) + millisToMicros(cue.shift);
    if (due > place + 1) continue;
    expandCue(show, context, fold, cue, 'changes');
  }
  return fold.all();
}

/**
 * The fewest messages that bring the rig from one state to another, in an order that the
 * units accept, unit by unit. What the wanted state does not know is left alone.
 */
export function catchUpSteps(
  show: Show,
  from: RigState,
  to: RigState,
): { readonly unit: UnitSpec; readonly steps: readonly Step[] }[] {
  const context = contextOf(show);
  const fold = new StateFold(context.units, from);
  const units = [...context.units.values()].sort(
    (a, b) => context.order.get(a.id)! - context.order.get(b.id)!,
  );
  const result: { unit: UnitSpec; steps: readonly Step[] }[] = [];
  for (const unit of units) {
    const wanted = to[unit.id];
    if (!wanted || !context.paths.has(unit.id)) continue;
    const channel = context.channels.get(unit.id)!;
    const again = mustRelayAgain(context.units, context.paths, fold, to, unit, wanted);
    const reload = again === 'slot' || lostToStore(unit, fold.get(unit.id), wanted);
    if (again === 'variant' && !reload) forget(fold, unit.id);
    const aim = {
      slot: wanted.slot ?? undefined,
      variant: typeof wanted.variant === 'number' ? wanted.variant : undefined,
      controls: Object.fromEntries(
        Object.entries(wanted.controls).filter((c): c is [string, number] => c[1] !== 'stored'),
      ),
    };
    const steps = expandAim(fold, unit, channel, aim, 'changes', reload && aim.slot !== undefined);
    if (steps.length > 0) result.push({ unit, steps });
  }
  return result;
}

/** Only loading the preset again brings back what the preset stores. */
function lostToStore(unit: UnitSpec, is: UnitState, wanted: UnitState): boolean {
  if (is.slot !== wanted.slot) return false;
  if (wanted.variant === 'stored' && is.variant !== 'stored') return true;
  return Object.entries(wanted.controls).some(
    ([id, value]) => value === 'stored' && !sameControl(unit.profile, id, is.controls[id], value),
  );
}

function forget(fold: StateFold, unitId: string): void {
  fold.set(unitId, { ...fold.get(unitId), variant: null });
}

/**
 * A unit that no port reaches is brought to its state by the unit before it: that one has
 * to go where it is once more, by the variant where the rule hangs on one.
 */
function mustRelayAgain(
  units: ReadonlyMap<string, UnitSpec>,
  paths: ReadonlyMap<string, unknown>,
  fold: StateFold,
  to: RigState,
  unit: UnitSpec,
  wanted: UnitState,
): 'slot' | 'variant' | undefined {
  let again: 'slot' | 'variant' | undefined;
  for (const relay of unit.relays) {
    if (!relayHolds(relay, wanted)) continue;
    const target = units.get(relay.toUnit);
    if (!target || paths.has(target.id)) continue;
    const goal = to[target.id]?.slot ?? null;
    if (goal === null || (fold.get(target.id).slot === goal && !deeper(units, paths, fold, to, target))) continue;
    if (relay.variant === null) return 'slot';
    again = 'variant';
  }
  return again;
}

const deeper = (
  units: ReadonlyMap<string, UnitSpec>,
  paths: ReadonlyMap<string, unknown>,
  fold: StateFold,
  to: RigState,
  target: UnitSpec,
): boolean =>
  mustRelayAgain(units, paths, fold, to, { ...target, relays: target.relays.filter((r) => r.toUnit !== target.id) }, to[target.id] ?? UNKNOWN_STATE) !== undefined;

const relayHolds = (relay: RelaySpec, state: UnitState): boolean =>
  (relay.slot === null || relay.slot === state.slot) &&
  (relay.variant === null || relay.variant === state.variant);

export interface CatchUp {
  readonly events: readonly TimedBytes[];
  /** From the first byte until the last effect. */
  readonly length: Micros;
}

/** Catch-up messages timed from 0 on, as soon as cables and units take them. */
export function catchUp(show: Show, from: RigState, to: RigState): CatchUp {
  const context = contextOf(show);
  const lists = new Map<string, PlannedJob[]>();
  for (const { unit, steps } of catchUpSteps(show, from, to)) {
    const path = context.paths.get(unit.id)!;
    let list = lists.get(path.portId);
    if (!list) lists.set(path.portId, (list = []));
    const chain: Chain = newChain();
    for (const step of steps) {
      const latency = latencyOf(path, step.bytes);
      const duration = durationOf(path, step.bytes);
      const gap = gapAfter(chain, unit, latency);
      list.push({
        cueId: CATCH_UP_CUE,
        unit,
        path,
        step,
        duration,
        deadline: 0,
        release: 0,
        after: chain.last,
        gap,
      });
      chain.last = list.length - 1;
      chain.lastWasRecall = step.kind === 'recall';
      chain.lastLatency = latency;
    }
  }
  const events: TimedBytes[] = [];
  let length = 0;
  for (const list of lists.values()) {
    const { ends } = schedulePort(list);
    for (const [i, job] of list.entries()) {
      const { portId } = job.path;
      events.push({
        at: ends[i]! - job.duration,
        portId,
        bytes: job.step.bytes,
        cueId: CATCH_UP_CUE,
        unitId: job.unit.id,
      });
      length = Math.max(length, ends[i]! + latencyOf(job.path, job.step.bytes) + settled(job.unit));
    }
  }
  events.sort((a, b) => a.at - b.at);
  return { events, length };
}

const settled = ({ profile: { times } }: UnitSpec): Micros =>
  millisToMicros(Math.max(times.recall, times.settle) + times.variant + times.control);
