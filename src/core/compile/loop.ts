import { append, entry } from '../groups';
import { contextOf, moments, StateFold } from '../meaning';
import type { RigState } from '../rig';
import { microsAt, songTime, type Show, type Song } from '../show';
import { millisToMicros, type Micros, type Ticks } from '../time';
import { CATCH_UP_CUE, caughtUp, settled, stateAt, type Turns } from './catchUp';
import { clockPaths, clockRound } from './clock';
import { Dues } from './dues';
import { expandMoment, type UnitSends } from './expand';
import { Forecast, leavingOf } from './forecast';
import { Planner } from './planner';
import type { PortJob, Release } from './portJob';
import { stopsOf, type PlayLine, type Round, type SeamLate } from './playLine';
import { timed } from './timed';

/** A stretch of a song that is played again and again, from a place up to another. */
export interface Loop {
  readonly from: Ticks;
  readonly to: Ticks;
}

/** The loop as far as the song goes; null where nothing of it is left. */
export function loopIn(song: Song, { from, to }: Loop): Loop | null {
  const { end } = songTime(song);
  const until = Math.min(to, end);
  return from >= 0 && until > from ? { from, to: until } : null;
}

/** Rounds that are planned: one before and one behind the one that is taken, so that both of its seams are planned. */
const ROUNDS = 3;
const TAKEN = 1;

/**
 * One round of a loop. At its seam the rig is brought to the state that the song is in at the start
 * of the stretch, complete there, as by a cue; cues due at the start itself are part of that state.
 */
export function loopRound(show: Show, song: Song, { from, to }: Loop): Round {
  const context = contextOf(show);
  const time = songTime(song);
  const [begin, end] = [microsAt(time, from), microsAt(time, to)];
  const period = end - begin;
  const within = moments(show, song).filter((m) => m.due > begin + 1 && m.due < end - 1);
  const start = stateAt(show, song, from);
  const planner = new Planner(context);
  const dues = new Dues(begin - millisToMicros(song.preRoll));
  let fold = new StateFold(context.units, start);
  for (let round = 0; round < ROUNDS; round++) {
    const later = round * period;
    for (const moment of within) {
      const turn = { ...moment, id: inRound(round, moment.id), due: moment.due + later };
      const { id: cueId, due, landing } = turn;
      planner.add({ cueId, due, landing }, expandMoment(show, context, fold, moment, 'changes'), (sends) =>
        dues.release(turn, sends),
      );
    }
    const seam = end + later;
    const back = caughtUp(show, fold, start);
    fold = new StateFold(context.units, asAtFirst(back.fold.all(), start));
    const release = (due: Micros, sends: UnitSends): Release =>
      dues.release({ ...SEAM, id: inRound(round + 1, CATCH_UP_CUE), due }, sends);
    for (const { ahead, all } of lastTogether(back.plans)) {
      const due = seam - ahead;
      planner.add({ cueId: inRound(round + 1, CATCH_UP_CUE), landing: 'complete', due }, all, (s) => release(due, s));
    }
  }
  const lists = new Map<string, PortJob[]>(planner.lists);
  for (const { id, path } of clockPaths(show, song, planner)) {
    const jobs = clockRound(song, id, path, from, to);
    for (let round = 0; round < ROUNDS; round++) {
      append(
        entry(lists, path.portId, () => []),
        jobs.map((job) => ({
          ...job,
          cueId: inRound(round, job.cueId),
          deadline: job.deadline + round * period,
          release: job.release + round * period,
        })),
      );
    }
  }
  const taken = inRound(TAKEN, '');
  const made = timed(context, start, lists);
  const cast = new Forecast(context, start);
  cast.play(leavingOf(made.scheduled));
  const seamAt = begin + TAKEN * period;
  const seam = [...cast.found.values()]
    .filter((f) => f.cueId === inRound(TAKEN, CATCH_UP_CUE))
    .map(({ unitId, complete }): SeamLate => ({ unitId, late: complete - seamAt }))
    .filter((l) => l.late > millisToMicros(show.tolerance.after))
    .sort((a, b) => b.late - a.late);
  const events = made.events
    .filter((e) => e.cueId.startsWith(taken))
    .map((e) => ({ ...e, at: e.at - TAKEN * period, cueId: e.cueId.slice(taken.length) }));
  return { events, from: begin, to: end, seam };
}

/**
 * Presets and variants that nobody knows where the stretch begins count as not known at the start of every
 * round: what calls them is sent in each as in the first, and brings along what it brought then.
 */
const asAtFirst = (all: RigState, start: RigState): RigState =>
  Object.fromEntries(
    Object.entries(all).map(([id, state]) => {
      const first = start[id];
      const slot = (first?.slot ?? null) === null ? null : state.slot;
      const variant = (first?.variant ?? null) === null ? null : state.variant;
      return [id, { ...state, slot, bank: slot === null ? null : state.bank, variant }];
    }),
  );

const SEAM = {
  source: 'cue',
  at: 0,
  shift: 0,
  landing: 'complete',
  action: { kind: 'tone', toneId: '', reload: false },
} as const;

const inRound = (round: number, id: string): string => `${round}:${id}`;

/**
 * The last turns of all units are there together; what a unit is sent before its last turn, on its
 * way by another place, is ahead of it by all that the turns behind it need.
 */
function lastTogether(plans: readonly Turns[]): { readonly ahead: Micros; readonly all: readonly UnitSends[] }[] {
  const early: { ahead: Micros; all: UnitSends[] }[] = [];
  const last: UnitSends[] = [];
  for (const { unit, turns } of plans) {
    for (const [i, sends] of turns.entries()) {
      const entry = { unit, sends, unreached: false };
      const behind = turns.length - 1 - i;
      if (behind === 0) last.push(entry);
      else early.push({ ahead: behind * (settled(unit) + toldFor(turns)), all: [entry] });
    }
  }
  early.sort((a, b) => b.ahead - a.ahead);
  return last.length > 0 ? [...early, { ahead: 0, all: last }] : early;
}

const toldFor = (turns: Turns['turns']): Micros =>
  Math.max(0, ...turns.flat().flatMap((s) => (s.relayEffects?.relayed ?? []).map((t) => t.there ?? 0)));

/** What is played of a line until a loop's end is reached, and what then comes round. From a place behind that end the song goes on. */
export function lineInto(show: Show, song: Song, line: PlayLine, loop: Loop, place: Micros = line.place): PlayLine {
  const bounds = loopIn(song, loop);
  const time = songTime(song);
  if (!bounds || place >= microsAt(time, bounds.to) - 1) return line;
  const round = loopRound(show, song, bounds);
  const begun = new Set<string>([CATCH_UP_CUE]);
  const placed = new Set<string>();
  for (const { id, due } of moments(show, song)) {
    placed.add(id);
    if (due < round.to - 1) begun.add(id);
  }
  // What belongs to cues behind the end is not sent ahead of it; of sweeps, taps and clocks goes what lies before it.
  const events = line.events.filter((e) => e.at < round.to && (begun.has(e.cueId) || !placed.has(e.cueId)));
  return { ...line, events, round, end: Number.POSITIVE_INFINITY, atStop: stopsOf(show, song) };
}
