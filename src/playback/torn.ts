import { CATCH_UP_CUE, stateAt } from '../core/compile';
import { moments } from '../core/meaning';
import type { TimedBytes } from '../core/midi';
import type { RigState, UnitState } from '../core/rig';
import { songTime, ticksAt, type Show, type Song } from '../core/show';
import type { Micros } from '../core/time';
import { withTold } from './plans';
import { placeOf, type Playing } from './transport';

/**
 * A change that has begun to leave before its beat: what its unit, and those that this one relays to
 * something, come to without it. If playing stops before the beat, they go back to that.
 */
export interface Begun {
  readonly cueId: string;
  readonly unitId: string;
  /** Clock time of the beat. */
  readonly due: Micros;
  readonly states: RigState;
}

const duesOf = new WeakMap<Song, ReadonlyMap<string, Micros>>();

/** When each cue of a song is due, by id; sweeps and taps are no states and have none. */
function cueDues(show: Show, song: Song): ReadonlyMap<string, Micros> {
  let dues = duesOf.get(song);
  if (!dues) {
    const made = new Map<string, Micros>();
    for (const { id, source, due } of moments(show, song)) {
      if ((source === 'cue' || source === 'opening') && !made.has(id)) made.set(id, due);
    }
    duesOf.set(song, (dues = made));
  }
  return dues;
}

/** Clock time at which the cue is due that a message belongs to; undefined where it belongs to none. `at` is clock time. */
function dueOf(show: Show, song: Song, { line, zero }: Playing, { cueId, at }: TimedBytes): Micros | undefined {
  const { round, place } = line;
  const own = cueId === CATCH_UP_CUE ? place : cueDues(show, song).get(cueId);
  if (own === undefined) return undefined;
  if (!round || at - zero < round.from) return own + zero;
  const period = round.to - round.from;
  // The seam of a loop is the start of its next round.
  const first = cueId === CATCH_UP_CUE ? round.from : own;
  return first + Math.max(0, Math.round((at - zero - first) / period)) * period + zero;
}

/**
 * Notes the changes that begin to leave with these messages. `eventual` is what the rig comes to without them.
 * Times are clock times.
 */
export function beginning(
  begun: readonly Begun[],
  show: Show,
  song: Song,
  transport: Playing,
  messages: readonly TimedBytes[],
  now: Micros,
  eventual: () => RigState,
): readonly Begun[] {
  const next = begun.filter((b) => b.due > now);
  const lastOf = new Map<string, Micros>();
  for (const e of messages) {
    const due = dueOf(show, song, transport, e);
    if (due === undefined) continue;
    const { cueId, unitId } = e;
    const before = lastOf.get(unitId);
    lastOf.set(unitId, due);
    if (due <= now || next.some((b) => b.cueId === cueId && b.unitId === unitId && b.due === due)) continue;
    const units = withTold(show, new Set([unitId]));
    // Behind another change of the same unit that leaves with it: that one is part of what it comes to.
    const all =
      before === undefined ? eventual() : stateAt(show, song, ticksAt(songTime(song), before - transport.zero));
    next.push({ cueId, unitId, due, states: pick(all, units) });
  }
  return next;
}

/**
 * Where units have to be brought when playing stops now, so that the rig is in one sound: changes that
 * have begun before their beat are taken back, changes whose beat has come are completed.
 */
export function wholeAgain(show: Show, song: Song, transport: Playing, begun: readonly Begun[], now: Micros): RigState {
  const { line, next, zero } = transport;
  const target: Record<string, UnitState> = {};
  for (const { due, states } of begun) {
    if (due <= now) continue;
    for (const [id, state] of Object.entries(states)) target[id] ??= state;
  }
  const open = new Set<string>();
  for (const e of line.events.slice(next)) {
    const due = dueOf(show, song, transport, { ...e, at: e.at + zero });
    if (due !== undefined && due <= now) open.add(e.unitId);
  }
  if (open.size === 0) return target;
  const wanted = stateAt(show, song, ticksAt(songTime(song), Math.max(0, placeOf(transport, now))));
  return { ...target, ...pick(wanted, withTold(show, open)) };
}

const pick = (state: RigState, units: ReadonlySet<string>): RigState =>
  Object.fromEntries(Object.entries(state).filter(([id]) => units.has(id)));
