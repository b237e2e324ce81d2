import {
  catchUp,
  clocksGoOn,
  compileSong,
  lineInto,
  playLine,
  stopsOf,
  type Loop,
  type PlayLine,
} from '../core/compile';
import { contextOf, durationOf, latencyOf, rigSpec } from '../core/meaning';
import type { TimedBytes } from '../core/midi';
import type { RigState } from '../core/rig';
import { indexShow, microsAt, songTime, ticksAt, type Show, type Song } from '../core/show';
import { SimulatedRig } from '../core/simulate';
import { soundLine } from '../core/sound';
import type { Micros, Ticks } from '../core/time';

/** What a song's play is bounded by: nothing, or a loop. */
export const within = (show: Show, song: Song, line: PlayLine, loop: Loop | null, place = line.place): PlayLine =>
  loop ? lineInto(show, song, line, loop, place) : line;

/** Plans a song from a place on, from the rig's eventual state; a count-in or a call ahead of the place has its time too. */
export function startLine(show: Show, song: Song, from: Ticks, eventual: RigState): PlayLine {
  const lead = microsAt(songTime(song), from) - soundLine(song, from).start;
  return playLine(show, song, from, eventual, undefined, lead);
}

/** Where a song is at a moment, for planning it anew from there. All are song times of the song as it is now. */
export interface Standing {
  readonly place: Micros;
  /** Up to here messages were handed over: they have left, or can no longer be called back. */
  readonly handedUntil: Micros;
  /** The line that was played so far. */
  readonly line: PlayLine;
  readonly eventual: RigState;
  /** Until when units load what was handed over; and from when on one takes messages again. */
  readonly rests: (units: ReadonlySet<string>) => Micros;
  readonly takes: (unitId: string) => Micros;
  /** Units that are sent nothing. */
  readonly hushed: ReadonlySet<string>;
  /** Ports whose clock runs already, with the song as it was. */
  readonly clocked: ReadonlySet<string>;
  /** What was handed over lately: where its time now lies a little later, it is not sent again. */
  readonly ahead: readonly TimedBytes[];
}

/** What left so long ago is remembered as handed over lately. */
export const RECENT: Micros = 2_000_000;

/** What was handed over counts as done where the new plan has it leave no later than this behind what was handed over. */
const SOON: Micros = 1_000_000;

/**
 * Which messages of a new plan have been handed over: those that lie before, and those that the old plan
 * sent ahead already because the song seemed to be further on. Taking these back would have units go to and fro.
 */
function doneOf(
  events: readonly TimedBytes[],
  { place, handedUntil, ahead }: Pick<Standing, 'place' | 'handedUntil' | 'ahead'>,
): ReadonlySet<TimedBytes> {
  const left = new Map<string, number>();
  for (const e of ahead) left.set(keyOf(e), (left.get(keyOf(e)) ?? 0) + 1);
  const done = new Set<TimedBytes>();
  for (const e of events) {
    if (e.at > handedUntil + SOON) break;
    const count = e.at < place - RECENT ? 0 : (left.get(keyOf(e)) ?? 0);
    if (e.at > handedUntil && count === 0) continue;
    done.add(e);
    if (count > 0) left.set(keyOf(e), count - 1);
  }
  return done;
}

const keyOf = ({ cueId, unitId, portId, bytes }: TimedBytes): string =>
  `${cueId} ${unitId} ${portId} ${bytes.join(' ')}`;

/**
 * A song that plays, planned anew from now: what leaves later keeps its time; where the rig
 * is not what playing the song up to here would have made of it, it is caught up at once.
 */
export function lineFromHere(show: Show, song: Song, standing: Standing): PlayLine {
  const { place, handedUntil, eventual, rests, takes, hushed, clocked, line } = standing;
  const compiled = compileSong(show, song);
  const done = doneOf(compiled.events, standing);
  const target = cameTo(
    show,
    compiled.events.filter((e) => done.has(e)),
  );
  const { events, length } = catchUp(show, eventual, without(target, hushed));
  const caught = new Set(events.map((e) => e.unitId));
  // Not ahead of what is on its way already, nor while it loads.
  const start = Math.max(place, handedUntil, caught.size > 0 ? rests(caught) : place);
  const catching = events.map((e) => ({ ...e, at: e.at + start }));
  const stops = line.atStop.filter((s) => !stopsOf(show, song).some((t) => t.portId === s.portId));
  const goOn = clocksGoOn(show, song, Math.max(0, ticksAt(songTime(song), place))).filter(
    (e) => !clocked.has(e.portId),
  );
  const goesOn = new Map(goOn.map((e) => [e.cueId, e.at]));
  const halved = selectsOf(compiled.events, handedUntil);
  const ahead = compiled.events.flatMap((e) => {
    if (halved.has(e)) return [{ ...e, at: start }];
    return !done.has(e) && e.at >= (goesOn.get(e.cueId) ?? e.at) ? [e] : [];
  });
  return {
    events: [
      ...stops.map((s) => ({ ...s, at: start, cueId: '', unitId: '' })),
      ...catching,
      ...goOn,
      ...held(show, ahead, withTold(show, caught), start + length, takes),
    ].sort((a, b) => a.at - b.at),
    start: line.start,
    place: line.place,
    end: compiled.end,
    atStop: stopsOf(show, song),
  };
}

/** Controls that only say what the next message means: bank select, and the numbers of NRPN and RPN (MIDI 1.0). */
const SELECTS = new Set([0, 32, 98, 99, 100, 101]);

/**
 * Bank selects and the like that lie before a time, while what they are for lies behind it: in a song that was
 * edited they may never have been sent. Sent twice they do no harm.
 */
function selectsOf(events: readonly TimedBytes[], handedUntil: Micros): ReadonlySet<TimedBytes> {
  const open = new Map<string, TimedBytes[]>();
  const found = new Set<TimedBytes>();
  for (const e of events) {
    const selects = e.bytes[0]! >> 4 === 0xb && SELECTS.has(e.bytes[1]!);
    if (e.at <= handedUntil) open.set(e.unitId, selects ? [...(open.get(e.unitId) ?? []), e] : []);
    else {
      for (const before of open.get(e.unitId) ?? []) if (before.cueId === e.cueId) found.add(before);
      open.delete(e.unitId);
    }
  }
  return found;
}

/** The rig's state after these bytes, from an unknown one. */
function cameTo(show: Show, events: readonly TimedBytes[]): RigState {
  const rig = new SimulatedRig(rigSpec(show), () => undefined);
  for (const { portId, at, bytes } of events) rig.send(portId, at, bytes);
  rig.settle();
  return rig.state();
}

const without = (state: RigState, units: ReadonlySet<string>): RigState =>
  units.size === 0 ? state : Object.fromEntries(Object.entries(state).filter(([id]) => !units.has(id)));

/** Units, and those that they relay to. */
export function withTold(show: Show, of: ReadonlySet<string>): ReadonlySet<string> {
  const { units } = indexShow(show);
  const all = new Set(of);
  for (const id of all) for (const { toUnitId } of units.get(id)?.relays ?? []) all.add(toUnitId);
  return all;
}

/**
 * Units that are being caught up take what comes next when that is done, others when they have settled
 * after what was sent late: else it would be lost while they load. What follows for the same unit keeps
 * its distance as far as the unit may need it.
 */
function held(
  show: Show,
  events: readonly TimedBytes[],
  caught: ReadonlySet<string>,
  until: Micros,
  takes: (unitId: string) => Micros,
): readonly TimedBytes[] {
  const { paths, units } = contextOf(show);
  const last = new Map<string, { readonly was: Micros; readonly now: Micros }>();
  return events.map((e) => {
    const path = paths.get(e.unitId);
    const unit = units.get(e.unitId);
    if (!path || !unit) return e;
    const arrives = durationOf(path, e.bytes) + latencyOf(path, e.bytes);
    const earliest = Math.max(caught.has(e.unitId) ? until : Number.NEGATIVE_INFINITY, takes(e.unitId) - arrives + 1);
    const before = last.get(e.unitId);
    const { recall, settle, variant } = unit.pace;
    const needs = Math.max(recall, settle) + variant;
    const behind =
      before && before.now > before.was ? before.now + Math.min(e.at - before.was, needs) : Number.NEGATIVE_INFINITY;
    const at = Math.max(e.at, earliest, behind);
    last.set(e.unitId, { was: e.at, now: at });
    return at === e.at ? e : { ...e, at };
  });
}
