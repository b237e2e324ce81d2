import type { Wanted } from '../rig';
import type { Micros } from '../time';
import {
  leastOf,
  narrow,
  narrowLater,
  narrowSlower,
  roomBeside,
  unlimited,
  type Margin,
  type Margins,
} from './margins';
import { lastAtOrBefore, type Instant, type UnitLine } from './unitLine';
import type { Outcome, Reason, Verdict } from './verdict';

/** Rounding of sums of microseconds. */
const GRAIN: Micros = 0.01;

/** What a change that landed stands on. */
interface Grounds {
  /** The instants at which each part of it came. */
  readonly parts: readonly Instant[];
  /** When it is late. */
  readonly limit: Micros;
  /** When something else takes its place, if that is before; what comes after that never comes. */
  readonly until: Micros;
  /** Whether what an earlier cue wanted comes in between for no time at all: for some, where messages leave later. */
  readonly crossed: boolean;
}

/**
 * The verdict on a change that landed, with what it bears: until a part of it is late, and until something that it
 * stands on is lost. `came` is when it was complete, undefined where nothing had to change. Where a mix of quick and
 * slow units can lose it, it does not land.
 */
export function landed(line: UnitLine, wanted: Wanted, came: Micros | undefined, grounds: Grounds): Verdict {
  const offset = came === undefined ? 0 : came - wanted.due;
  const reason = came === undefined ? ALREADY : AS_WANTED;
  const { losses } = line;
  if (!losses) return onTime(wanted, offset, reason, null);
  const margin = unlimited();
  for (const part of grounds.parts) {
    for (let at: Instant | null = part; at; at = at.with) {
      const borne = losses.of(at.cause);
      if (borne) narrow(margin, borne);
      narrowToLate(line, margin, at, grounds.limit);
      if (grounds.until >= grounds.limit) continue;
      margin.sooner = Math.min(margin.sooner, Math.max(0, grounds.until - wanted.due));
      narrowSlower(margin, grounds.until - at.at, 'lost');
      narrowLater(margin, grounds.until - at.at, 'lost');
    }
  }
  if (grounds.crossed) narrowLater(margin, 0, 'late');
  if (losses.strays.length > 0) {
    const there = Math.max(wanted.due, came ?? wanted.due);
    const from = line.loads[lastAtOrBefore(line.loads, there)]?.at ?? Number.NEGATIVE_INFINITY;
    const { strays } = losses;
    for (let i = lastAtOrBefore(strays, from) + 1; i < strays.length && strays[i]!.at < there; i++)
      narrowLater(margin, strays[i]!.later, 'lost');
  }
  const least = leastOf(margin);
  if (least >= -GRAIN) return onTime(wanted, offset, reason, margin);
  return missed(wanted, 'never', null, { kind: 'mix', by: -least });
}

const ALREADY = { kind: 'already' } as const;
export const AS_WANTED = { kind: 'as-wanted' } as const;

// Written out: copying takes longer than all else here, and this is done for each unit of each cue.

/** The verdict on what landed. */
export const onTime = (
  { cueId, unitId, due }: Wanted,
  offset: Micros,
  reason: Reason,
  margin: Margin | null,
): Verdict => ({ cueId, unitId, due, outcome: 'on-time', offset, reason, margin });

/** The verdict on what missed. */
export const missed = (
  { cueId, unitId, due }: Wanted,
  outcome: Exclude<Outcome, 'on-time'>,
  offset: Micros | null,
  reason: Reason,
): Verdict => ({ cueId, unitId, due, outcome, offset, reason, margin: null });

/** Each time of a unit on the way makes it later once; what a unit holds back while it settles is later by that too. */
function narrowToLate(
  { arrivals, loads, unit }: UnitLine,
  margin: Margins,
  { at, cause, own }: Instant,
  limit: Micros,
): void {
  const late = (room: Micros, steps: number): void => {
    narrowSlower(margin, room / steps, 'late');
    narrowLater(margin, roomBeside(room, cause), 'late');
  };
  late(limit - own, cause.steps + 1);
  let l = lastAtOrBefore(loads, at);
  // A preset that another took the place of holds back what came before that.
  while (l >= 0 && loads[l]!.until > at + GRAIN) l -= 1;
  const load = loads[l]?.load;
  if (load && Math.abs(load.until - at) <= GRAIN) late(limit - load.until, load.cause.steps + 1);
  if (unit.profile.whileSettling !== 'queue') return;
  let a = lastAtOrBefore(arrivals, at);
  while (a >= 0 && arrivals[a]!.cause.event !== cause.event) a -= 1;
  const arrival = arrivals[a];
  if (!arrival?.behind || arrival.behind.cause.event === cause.event) return;
  const { accepts, cause: before } = arrival.behind;
  late(limit - (accepts + own - arrival.at), before.steps + 2);
}
