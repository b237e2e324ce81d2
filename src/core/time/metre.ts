import { TICKS_PER_WHOLE, type Ticks } from './units';

/** A metre from bar `bar` on (counted from 1, whatever the score prints). `unit` 8 is an eighth. */
export interface MetreMark {
  readonly bar: number;
  readonly beats: number;
  readonly unit: number;
}

/** From bar `bar` (counted from 1) on, the score prints `number`, `number` + 1, … */
export interface PrintedMark {
  readonly bar: number;
  readonly number: number;
}

interface MetreRun extends MetreMark {
  readonly tick: Ticks;
  readonly barTicks: Ticks;
  readonly beatTicks: Ticks;
}

/**
 * The bars of a song. Bar 1 starts after the pickup; the pickup itself is bar 0 and
 * is counted as the end of a full bar, so that a quarter's pickup in 4/4 is 0|4.
 */
export interface BarMap {
  readonly runs: readonly MetreRun[];
  readonly pickup: Ticks;
  readonly printed: readonly PrintedMark[];
}

export interface Bar {
  readonly bar: number;
  readonly tick: Ticks;
  readonly length: Ticks;
  readonly beats: number;
  readonly unit: number;
  readonly beatTicks: Ticks;
}

/** Marks must be in order of `bar`. Without a mark on bar 1 the first metre (or 4/4) counts from there. */
export function buildBarMap(
  marks: readonly MetreMark[],
  pickup: Ticks = 0,
  printed: readonly PrintedMark[] = [],
): BarMap {
  const runs: MetreRun[] = [];
  const first = marks[0] ?? { bar: 1, beats: 4, unit: 4 };
  let tick = pickup;
  const push = (mark: MetreMark, at: Ticks): void => {
    const beatTicks = TICKS_PER_WHOLE / mark.unit;
    runs.push({ ...mark, tick: at, beatTicks, barTicks: beatTicks * mark.beats });
  };
  push({ ...first, bar: 1 }, tick);
  for (const mark of marks.slice(1)) {
    const last = runs[runs.length - 1]!;
    tick = last.tick + (mark.bar - last.bar) * last.barTicks;
    push(mark, tick);
  }
  return { runs, pickup, printed };
}

function runOfBar(map: BarMap, bar: number): MetreRun {
  let found = map.runs[0]!;
  for (const run of map.runs) {
    if (run.bar > bar) break;
    found = run;
  }
  return found;
}

function runOfTick(map: BarMap, tick: Ticks): MetreRun {
  let low = 0;
  let high = map.runs.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (map.runs[middle]!.tick <= tick) low = middle;
    else high = middle - 1;
  }
  return map.runs[low]!;
}

/** One bar, counted from 1; bar 0 is the pickup, or a whole bar before the song where there is none. */
export function barAt(map: BarMap, bar: number): Bar {
  const run = runOfBar(map, bar);
  const { beats, unit, beatTicks, barTicks } = run;
  if (bar === 0 && map.pickup > 0) {
    return { bar, tick: 0, length: map.pickup, beats, unit, beatTicks };
  }
  // Bars before the pickup stand in front of it.
  const origin = bar < 0 && map.pickup > 0 ? 0 : run.tick;
  const from = bar < 0 && map.pickup > 0 ? 0 : run.bar;
  const tick = origin + (bar - from) * barTicks;
  return { bar, tick, length: barTicks, beats, unit, beatTicks };
}

/** Tick at which bar `bar` starts. */
export const barStart = (map: BarMap, bar: number): Ticks => barAt(map, bar).tick;

/** The bar that a tick lies in; exactly on a bar line it is the bar that starts there. */
export function barOfTick(map: BarMap, tick: Ticks): Bar {
  if (tick < map.pickup) {
    if (map.pickup > 0 && tick >= 0) return barAt(map, 0);
    const run = map.runs[0]!;
    const origin = map.pickup > 0 ? 0 : run.tick;
    const from = map.pickup > 0 ? 0 : 1;
    return barAt(map, from + Math.floor((tick - origin) / run.barTicks));
  }
  const run = runOfTick(map, tick);
  return barAt(map, run.bar + Math.floor((tick - run.tick) / run.barTicks));
}

/** The number that the score prints over a bar. */
export function printedNumber(map: BarMap, bar: number): number {
  let number = bar;
  for (const mark of map.printed) {
    if (mark.bar > bar) break;
    number = mark.number + (bar - mark.bar);
  }
  return number;
}

/** All bars from 0 (or 1 without a pickup) to `last` that the score prints as `number`, in order. */
export function barsPrinted(map: BarMap, number: number, last: number): number[] {
  const first = map.pickup > 0 ? 0 : 1;
  const edges = [first, ...map.printed.map((m) => m.bar).filter((b) => b > first), last + 1];
  const found: number[] = [];
  for (let i = 0; i + 1 < edges.length; i++) {
    const from = edges[i]!;
    const bar = from + (number - printedNumber(map, from));
    if (bar >= from && bar < edges[i + 1]! && bar <= last) found.push(bar);
  }
  return found;
}
