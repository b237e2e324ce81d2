import { barAt, barOfTick, barsPrinted, printedNumber, type BarMap } from './metre';
import type { Ticks } from './units';

/** Bar as counted from 1, beat from 1, tick within the beat from 0. */
export interface Position {
  readonly bar: number;
  readonly beat: number;
  readonly tick: Ticks;
}

export type PositionProblem =
  | { readonly code: 'form'; readonly text: string }
  /** `last` is the highest number that is printed; `meant` how the bar is printed that is so many from the start, or ''. */
  | { readonly code: 'bar'; readonly number: number; readonly last: number; readonly meant: string }
  | { readonly code: 'time'; readonly number: number; readonly times: number }
  | { readonly code: 'beat'; readonly beat: number; readonly from: number; readonly to: number }
  | { readonly code: 'tick'; readonly tick: number; readonly beatTicks: number };

export type ParsedPosition =
  { readonly ok: true; readonly ticks: Ticks } | { readonly ok: false; readonly problem: PositionProblem };

/** The bar, beat and tick of a place. Bars count from 1, bar 0 is the pickup; beats count from 1. */
export function positionOf(map: BarMap, ticks: Ticks): Position {
  const bar = barOfTick(map, ticks);
  // The pickup counts as the end of a full bar.
  const into = ticks - bar.tick + (bar.beats * bar.beatTicks - bar.length);
  const beat = Math.floor(into / bar.beatTicks);
  return { bar: bar.bar, beat: beat + 1, tick: into - beat * bar.beatTicks };
}

/**
 * `17|3`, `17|3.5` or `17|3|113`, with the bar as the score prints it. Where the score prints a
 * number more than once among `last` bars, the second is written `17(2)|3`.
 */
export function formatPosition(map: BarMap, ticks: Ticks, last: number): string {
  const { bar, beat, tick } = positionOf(map, ticks);
  // Quarters of a beat read better as decimals than as ticks.
  const quarters = (tick * 4) / barOfTick(map, ticks).beatTicks;
  if (quarters > 0 && Number.isInteger(quarters)) return `${formatBar(map, bar, last)}|${beat + quarters / 4}`;
  const rounded = Math.round(tick * 1000) / 1000;
  return `${formatBar(map, bar, last)}|${beat}${rounded === 0 ? '' : `|${rounded}`}`;
}

/** A bar as the score prints it, with `(2)` behind it where it is the second so printed. */
export function formatBar(map: BarMap, bar: number, last: number): string {
  const number = printedNumber(map, bar);
  if (map.printed.length === 0) return String(number);
  const time = barsPrinted(map, number, last).indexOf(bar) + 1;
  return time > 1 ? `${number}(${time})` : String(number);
}

const FORM =
  /^(-?\d+)(?:\((\d+)\))?(?:\s*\|\s*(\d+(?:\.\d+)?|\.\d+)(?:\s*\+\s*(\d+)\/(\d+))?(?:\s*\|\s*(\d+(?:\.\d+)?))?)?$/;

/**
 * Reads `bar`, `bar|beat`, `bar|beat|tick`; the beat may have a fraction, `3.5` or `3+1/3`.
 * `last` is the number of bars in the song.
 */
export function parsePosition(map: BarMap, text: string, last: number): ParsedPosition {
  const match = FORM.exec(text.trim());
  if (!match) return { ok: false, problem: { code: 'form', text } };
  const [, barText, timeText, beatText, over, under, tickText] = match;
  const number = Number(barText);
  const bars = barsPrinted(map, number, last);
  if (bars.length === 0) return { ok: false, problem: notPrinted(map, number, last) };
  const time = timeText === undefined ? 1 : Number(timeText);
  const ordinal = bars[time - 1];
  if (ordinal === undefined) {
    return { ok: false, problem: { code: 'time', number, times: bars.length } };
  }
  const bar = barAt(map, ordinal);
  const missing = bar.beats * bar.beatTicks - bar.length;
  let beat = beatText === undefined ? missing / bar.beatTicks + 1 : Number(beatText);
  if (over !== undefined) {
    if (Number(under) === 0) return { ok: false, problem: { code: 'form', text } };
    beat += Number(over) / Number(under);
  }
  const tick = tickText === undefined ? 0 : Number(tickText);
  if (tick >= bar.beatTicks) {
    return { ok: false, problem: { code: 'tick', tick, beatTicks: bar.beatTicks } };
  }
  const into = (beat - 1) * bar.beatTicks - missing + tick;
  if (into < 0 || beat >= bar.beats + 1) {
    const from = Math.floor(missing / bar.beatTicks) + 1;
    return { ok: false, problem: { code: 'beat', beat, from, to: bar.beats } };
  }
  return { ok: true, ticks: bar.tick + into };
}

function notPrinted(map: BarMap, number: number, last: number): PositionProblem {
  const ends = [...map.printed.map((m) => m.bar - 1).filter((b) => b >= 1 && b <= last), last];
  const highest = Math.max(...ends.map((bar) => printedNumber(map, bar)));
  const counted = map.printed.length > 0 && number >= 1 && number <= last;
  return { code: 'bar', number, last: highest, meant: counted ? formatBar(map, number, last) : '' };
}

/** The nearest point of a grid of `step` ticks that starts anew in each bar. */
export function snap(map: BarMap, ticks: Ticks, step: Ticks): Ticks {
  const bar = barOfTick(map, ticks);
  const missing = bar.beats * bar.beatTicks - bar.length;
  const into = ticks - bar.tick + missing;
  const snapped = bar.tick - missing + Math.round(into / step) * step;
  // The next bar line is a point of the grid, also where the step does not divide the bar.
  const line = bar.tick + bar.length;
  return snapped > line || line - ticks < Math.abs(ticks - snapped) ? line : snapped;
}
