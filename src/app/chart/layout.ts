import { songTime, type Call, type Section, type Song } from '../../core/show';
import { TICKS_PER_QUARTER, barAt, printedNumber, type Ticks } from '../../core/time';

/** A bar on a line, or, where a bar is wider than a line, a piece of it. */
export interface ChartBar {
  /** Counted from 1; 0 is the pickup. */
  readonly bar: number;
  /** The number that the score prints; of a later piece, with the beat it begins at. */
  readonly label: string;
  readonly tick: Ticks;
  readonly length: Ticks;
  readonly beats: number;
  readonly unit: number;
  readonly beatTicks: Ticks;
  readonly x: number;
  readonly width: number;
  /** The metre is written where it changes. */
  readonly newMetre: boolean;
  readonly section: Section | undefined;
  /** What is heard in the ears ahead of it. */
  readonly call: Call | undefined;
}

/** A line of bars, as on paper. */
export interface ChartLine {
  readonly bars: readonly ChartBar[];
  readonly tick: Ticks;
  readonly end: Ticks;
  readonly width: number;
}

/** Narrowest bar, so that its number can be read; less where the whole song is to be seen. */
const MIN_BAR = 34;
const MIN_BAR_FAR = 23;
const FAR = 8;

/** Pixels a quarter that one can zoom to: from the whole song at a glance down to a pixel and more a tick. */
export const SCALES = [3, 8, 14, 20, 28, 40, 64, 110, 200, 440, 880, 1760];

/** Parts of a bar, each of which fits a line: as many beats as do, or a half, a quarter … of one. */
function piecesOf(length: Ticks, beatTicks: Ticks, width: number, scale: number): Ticks[] {
  const room = (width / scale) * TICKS_PER_QUARTER;
  if (length <= room) return [0];
  let step = beatTicks * Math.max(1, Math.floor(room / beatTicks));
  while (step > room && step > 1) step /= 2;
  return Array.from({ length: Math.ceil(length / step - 1e-9) }, (_, i) => i * step);
}

/**
 * A song as lines of bars, each as long as fits `width` pixels at `scale` pixels a
 * quarter; a section starts a new line, and a bar that no line can hold takes several.
 */
export function layoutChart(song: Song, width: number, scale: number): ChartLine[] {
  const lines = runsOf(song, width, scale).flatMap((run) => evenLines(run, width).map(lineOfBars));
  return filled(lines, width);
}

/** A song's bars, in runs that each start a line of their own: at sections. */
function runsOf(song: Song, width: number, scale: number): ChartBar[][] {
  const { bars } = songTime(song);
  const sections = new Map(song.sections.map((s) => [s.bar, s]));
  const calls = new Map(song.calls.map((c) => [c.bar, c.call]));
  const runs: ChartBar[][] = [];
  let metre = '';
  for (let n = song.pickup > 0 ? 0 : 1; n <= song.bars; n++) {
    const bar = barAt(bars, n);
    const section = sections.get(n);
    // A pickup stands on the line of the bar that it leads to.
    const follows = n === 1 && runs.length === 1 && runs[0]!.length === 1;
    if (runs.length === 0 || (section && !follows)) runs.push([]);
    const text = `${bar.beats}/${bar.unit}`;
    const printed = printedNumber(bars, n);
    const pieces = piecesOf(bar.length, bar.beatTicks, width, scale);
    for (const [i, from] of pieces.entries()) {
      const length = (pieces[i + 1] ?? bar.length) - from;
      const first = i === 0;
      const beat = Math.floor(from / bar.beatTicks + 1e-9);
      const rest = Math.round(from - beat * bar.beatTicks);
      runs.at(-1)!.push({
        bar: n,
        label: first ? String(printed) : `${printed}|${beat + 1}${rest > 0 ? `|${rest}` : ''}`,
        tick: bar.tick + from,
        length,
        beats: bar.beats,
        unit: bar.unit,
        beatTicks: bar.beatTicks,
        x: 0,
        width: Math.max(leastWidth(n, section, scale), (length / TICKS_PER_QUARTER) * scale),
        // That of a pickup is written at the bar that it leads to.
        newMetre: first && n > 0 && text !== metre,
        section: first ? section : undefined,
        call: first ? (section?.call ?? calls.get(n)) : undefined,
      });
    }
    if (n > 0) metre = text;
  }
  return runs;
}

/** A bar's number has to be read; a pickup also has room for the name of its section, as that of bar 1 stands right behind it. */
function leastWidth(bar: number, section: Section | undefined, scale: number): number {
  const number = scale <= FAR ? MIN_BAR_FAR : MIN_BAR;
  return bar === 0 && section && scale > FAR ? Math.max(number, 14 + section.name.length * 9.5) : number;
}

/** A run in as few lines as it takes, and these as even as can be: no line of two bars after one of six. */
function evenLines(run: readonly ChartBar[], width: number): ChartBar[][] {
  const fewest = linesWithin(run, width);
  let low = run.reduce((sum, bar) => sum + bar.width, 0) / fewest.length;
  let high = width;
  let best = fewest;
  while (fewest.length > 1 && high - low > 1) {
    const middle = (low + high) / 2;
    const lines = linesWithin(run, middle);
    if (lines.length > fewest.length) low = middle;
    else {
      high = middle;
      best = lines;
    }
  }
  return best;
}

/** Bars put on lines as long as they fit. */
function linesWithin(run: readonly ChartBar[], width: number): ChartBar[][] {
  const lines: ChartBar[][] = [[]];
  let x = 0;
  for (const bar of run) {
    if (x > 0 && x + bar.width > width) {
      lines.push([]);
      x = 0;
    }
    lines.at(-1)!.push(bar);
    x += bar.width;
  }
  return lines;
}

function lineOfBars(bars: readonly ChartBar[]): ChartLine {
  let x = 0;
  const placed = bars.map((bar) => {
    const at = { ...bar, x };
    x += bar.width;
    return at;
  });
  const last = bars.at(-1)!;
  return { bars: placed, tick: bars[0]!.tick, end: last.tick + last.length, width: x };
}

/** A line that is filled to this share is as wide as the paper; shorter ones are drawn in the measure of their neighbours. */
const FULL = 0.45;

/** Lines stretched to the width there is, as printed music is. */
function filled(lines: readonly ChartLine[], width: number): ChartLine[] {
  const factors = lines.filter((l) => l.width >= FULL * width && l.width <= width).map((l) => width / l.width);
  const usual = factors.toSorted((a, b) => a - b)[Math.floor(factors.length / 2)] ?? 1;
  return lines.map((line) => {
    // A bar that no line can hold.
    if (line.width > width) return line;
    return stretched(line, line.width >= FULL * width ? width : Math.min(width, line.width * usual));
  });
}

const stretched = (line: ChartLine, width: number, by = width / line.width): ChartLine => ({
  ...line,
  width,
  bars: line.bars.map((bar) => ({ ...bar, x: bar.x * by, width: bar.width * by })),
});

/** Pixels from the start of a line to a tick, which is taken into the line where it lies outside. */
export function xOf(line: ChartLine, tick: Ticks): number {
  if (tick <= line.tick) return 0;
  if (tick >= line.end) return line.width;
  const bar = line.bars.findLast((b) => b.tick <= tick)!;
  return bar.x + ((tick - bar.tick) / bar.length) * bar.width;
}

/** The tick at a pixel of a line. */
export function tickAtX(line: ChartLine, x: number): Ticks {
  const bar = line.bars.findLast((b) => b.x <= x) ?? line.bars[0]!;
  const share = Math.min(1, Math.max(0, (x - bar.x) / bar.width));
  return bar.tick + share * bar.length;
}

/** The line that a tick stands in; the last one for what is past the end. */
export function lineOf(lines: readonly ChartLine[], tick: Ticks): number {
  const found = lines.findIndex((l) => tick < l.end);
  return found < 0 ? lines.length - 1 : found;
}

/** Pixels that a flag takes: lantern, edges, and its name in the display type. */
const flagWidth = (name: string, size: number): number => size * (3 + name.length * 0.58);
const MAX_ROWS = 3;

/** Rows of flags on a line, so that one does not hide another: for each, in order of place, its row. */
export function flagRows(places: readonly { readonly x: number; readonly name: string }[], size = 14): number[] {
  const ends: number[] = [];
  return places.map(({ x, name }) => {
    let row = ends.findIndex((end) => end <= x);
    if (row < 0) row = ends.length < MAX_ROWS ? ends.length : ends.indexOf(Math.min(...ends));
    ends[row] = x + flagWidth(name, size);
    return row;
  });
}

/** Things on a line of time, spread over chart lines: those of each line, by index of the line. */
export function byLine<T extends { readonly at: Ticks }>(lines: readonly ChartLine[], things: readonly T[]): T[][] {
  const result: T[][] = lines.map(() => []);
  for (const thing of things) {
    const i = lineOf(lines, thing.at);
    if (i >= 0) result[i]!.push(thing);
  }
  return result;
}

/** A stretch of pixels. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** Where words that want `size` pixels stand in a span without touching what is drawn there: the first room that holds them, else the widest. */
export function roomFor(span: Span, drawn: readonly Span[], size: number): Span {
  let from = span.from;
  let widest: Span = { from, to: from };
  for (const next of [...drawn.toSorted((a, b) => a.from - b.from), { from: span.to, to: span.to }]) {
    if (next.to < span.from || next.from > span.to) continue;
    const room = { from, to: Math.min(next.from, span.to) };
    if (room.to - room.from >= size) return room;
    if (room.to - room.from > widest.to - widest.from) widest = room;
    from = Math.max(from, next.to);
  }
  return widest;
}
