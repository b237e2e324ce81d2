import { fromHex, type Bytes } from '../midi';
import { meets, microsOf, type Extreme, type RigSpec, type UnitAim, type UnitSpec } from '../rig';
import { millisToMicros, type Micros, type Millis } from '../time';
import { indexShow, type Show, type Tone, type Unit } from '../show';
import { partAims } from './partAims';
import { changesTo, relayOrder, takeMessage, type Change, type Taken, type Thrift } from './changes';
import type { Moment } from './moments';
import type { Path } from './path';
import { rigSpec, routeTo } from './rigOf';
import type { StateFold } from './stateFold';

/** What one needs of a rig to go through a song, made once a rig. */
export interface RigContext {
  readonly spec: RigSpec;
  readonly units: ReadonlyMap<string, UnitSpec>;
  /** Units by id; a unit comes before those that it relays to. */
  readonly order: ReadonlyMap<string, number>;
  /** Of the units that bytes from the computer reach. */
  readonly paths: ReadonlyMap<string, Path>;
  readonly channels: ReadonlyMap<string, number>;
  /** What is kept free around the changes of each unit, in microseconds. */
  readonly room: ReadonlyMap<string, Room>;
  /** What a tone sends to: unit and aim, relaying units first. Made once a tone. */
  readonly plans: WeakMap<Tone, readonly TonePlan[]>;
}

interface TonePlan {
  readonly unit: UnitSpec;
  readonly channel: number;
  readonly aim: UnitAim;
}

/** What is kept free around a unit's changes where there is room, in microseconds. */
export interface Room {
  /** How much sooner than due a change is complete. */
  readonly margin: Micros;
  /** How much longer than at the worst its settling is waited for. */
  readonly guard: Micros;
}

const contexts = new WeakMap<
  RigSpec,
  { readonly margin: Millis; readonly guard: Millis; readonly context: RigContext }
>();

/**
 * The rig of a show as compile and checks ask for it: units, order of relays, paths and channels. Kept for as long as
 * the rig is the same.
 */
export function contextOf(show: Show): RigContext {
  const spec = rigSpec(show);
  const kept = contexts.get(spec);
  if (kept && kept.margin === show.margin && kept.guard === show.guard) return kept.context;
  const ports = new Map(spec.ports.map((p) => [p.id, p]));
  const routes = show.units.map((unit) => ({ unit, route: routeTo(show, unit) }));
  const thrus = new Set(routes.flatMap(({ route }) => (route && route.hops > 0 ? [route.portId] : [])));
  const paths = new Map<string, Path>();
  for (const { unit, route } of routes) {
    const port = route && ports.get(route.portId);
    if (!route || !port) continue;
    const delayAt = (at: Extreme): Micros =>
      route.through.reduce((sum, { profile }) => sum + microsOf(profile.times.thru, at), port.delays[at]);
    const delay = delayAt('worst');
    paths.set(unit.id, {
      portId: port.id,
      cable: port.cable,
      hops: route.hops,
      thru: thrus.has(port.id),
      portDelay: port.delay,
      delay,
      spread: delay - delayAt('soonest'),
    });
  }
  const context: RigContext = {
    spec,
    units: new Map(spec.units.map((u) => [u.id, u])),
    order: new Map(relayOrder(spec).map((u, i) => [u.id, i])),
    paths,
    channels: new Map(show.units.map((u) => [u.id, u.channel])),
    room: new Map(show.units.map((u) => [u.id, roomOf(show, u)])),
    plans: new WeakMap(),
  };
  contexts.set(spec, { margin: show.margin, guard: show.guard, context });
  return context;
}

const roomOf = (show: Show, { margin, guard }: Unit): Room => ({
  margin: millisToMicros(margin ?? show.margin),
  guard: millisToMicros(guard ?? show.guard),
});

/** What a moment does to one unit. */
export interface Doing {
  readonly unit: UnitSpec;
  readonly channel: number;
  /** How bytes reach it; undefined where none do. */
  readonly path: Path | undefined;
  readonly changes: readonly Change[];
  /** Bytes that are sent as they stand, and what they do. */
  readonly raw: { readonly bytes: Bytes; readonly taken: Taken } | null;
  /** No port reaches the unit, and relay rules do not bring it to what is wanted. */
  readonly unreached: boolean;
}

/**
 * What a moment changes, unit by unit, those that relay to others first. Changes `fold`. A unit
 * that no port reaches is left to what others relay to it.
 */
export function passMoment(
  show: Show,
  context: RigContext,
  fold: StateFold,
  { action }: Moment,
  thrift: Thrift,
): readonly Doing[] {
  const { units, channels, paths } = context;
  if (action.kind === 'tone') {
    const tone = indexShow(show).tones.get(action.toneId);
    if (!tone) return [];
    return planOf(show, context, tone).map(({ unit, aim }) => bring(unit, aim, action.reload));
  }
  const unit = units.get(action.unitId);
  if (!unit) return [];
  if (action.kind === 'values') return [bring(unit, { controls: action.values }, false)];
  const bytes = fromHex(action.bytes)!;
  const path = paths.get(unit.id);
  const base = { unit, channel: channels.get(unit.id)!, path, changes: [] };
  if (!path) return [{ ...base, raw: null, unreached: true }];
  return [{ ...base, raw: { bytes, taken: takeMessage(fold, unit, bytes) }, unreached: false }];

  function bring(unit: UnitSpec, aim: UnitAim, reload: boolean): Doing {
    // Written out: copying what is shared takes longer than all else here, and this is done for each unit of each cue.
    const path = paths.get(unit.id);
    const channel = channels.get(unit.id)!;
    if (path) {
      const changes = changesTo(fold, unit, aim, thrift, reload);
      return { unit, channel, path, changes, raw: null, unreached: false };
    }
    return { unit, channel, path, changes: [], raw: null, unreached: !meets(unit.profile, fold.get(unit.id), aim) };
  }
}

function planOf(show: Show, context: RigContext, tone: Tone): readonly TonePlan[] {
  let plan = context.plans.get(tone);
  if (!plan) {
    const aims = [...partAims(show, tone)];
    aims.sort(([a], [b]) => context.order.get(a)! - context.order.get(b)!);
    plan = aims.map(([unitId, aim]) => ({
      unit: context.units.get(unitId)!,
      channel: context.channels.get(unitId)!,
      aim,
    }));
    context.plans.set(tone, plan);
  }
  return plan;
}
