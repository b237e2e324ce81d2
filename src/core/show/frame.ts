import { addTo } from '../groups';
import {
  barAt,
  barOfTick,
  buildBarMap,
  printedNumber,
  tempoAt,
  type BarMap,
  type MetreMark,
  type Ticks,
} from '../time';
import type { Song, Sweep } from './schema';
import { songTime } from './songTime';

type TempoMark = Song['tempo'][number];
type Metre = Song['metre'][number];

/**
 * The song with another metre or pickup. Cues, tempo marks and what is past the end keep
 * their bar and beat; where a bar has become too short for one, it goes to its last beat.
 */
export function refit(song: Song, frame: Partial<Pick<Song, 'metre' | 'pickup'>>): Song {
  const next = { ...song, ...frame };
  const before = songTime(song).bars;
  const after = buildBarMap(next.metre, next.pickup, next.printed);
  const place = (at: Ticks): Ticks => refitTick(before, after, at);
  const tempo = song.tempo.map((m) => ({ ...m, at: m.at === 0 ? 0 : place(m.at) }));
  const cues = song.cues.map((c) => ({ ...c, at: place(c.at) }));
  const sweeps = song.sweeps.map((s) => stretchSweep(s, place(s.from), place(s.to)));
  const tracks = song.tracks.map((t) => ({ ...t, at: place(t.at) }));
  const remarks = song.remarks.map((r) => ({ ...r, at: place(r.at) })).sort((a, b) => a.at - b.at);
  return { ...next, remarks, tempo: inOrder(tempo), cues: cues.sort((a, b) => a.at - b.at), sweeps, tracks };
}

function refitTick(before: BarMap, after: BarMap, at: Ticks): Ticks {
  if (at < 0) return at;
  const old = barOfTick(before, at);
  // The pickup is the end of a bar: what stands in it keeps its distance to bar 1.
  if (old.bar === 0) return Math.max(0, after.pickup - (before.pickup - at));
  const now = barAt(after, old.bar);
  const into = at - old.tick;
  return now.tick + (into < now.length ? into : now.length - now.beatTicks);
}

/** A sweep from and to other places; what is drawn in it is drawn out or pressed together. */
function stretchSweep(sweep: Sweep, from: Ticks, to: Ticks): Sweep {
  const { shape } = sweep;
  // Where its bars have become too short to tell its ends apart, the least is kept.
  const end = Math.max(to, from + 1);
  if (shape.kind === 'wave') return { ...sweep, from, to: end };
  const factor = (end - from) / (sweep.to - sweep.from);
  return {
    ...sweep,
    from,
    to: end,
    shape: { ...shape, points: shape.points.map((p) => ({ ...p, at: p.at * factor })) },
  };
}

/** Marks in the order of their places; of two at one place, the later stays. */
function inOrder(marks: readonly TempoMark[]): TempoMark[] {
  const byPlace = new Map(marks.map((m) => [m.at, m]));
  const sorted = [...byPlace.values()].sort((a, b) => a.at - b.at);
  const last = sorted.at(-1)!;
  return last.rampTo === null ? sorted : [...sorted.slice(0, -1), { ...last, rampTo: null }];
}

/** A bar of the new order: one of the old by its number, or an empty one. */
export type BarOfOrder = number | null;

/** Bars that follow each other as they did before, or empty ones. */
interface Run {
  readonly first: BarOfOrder;
  readonly count: number;
}

function runsOf(order: readonly BarOfOrder[]): Run[] {
  const runs: { first: BarOfOrder; count: number }[] = [];
  for (const bar of order) {
    const run = runs.at(-1);
    const goesOn = run && (run.first === null ? bar === null : bar === run.first + run.count);
    if (goesOn) run.count += 1;
    else runs.push({ first: bar, count: 1 });
  }
  return runs;
}

/**
 * The song with its bars in another order. Bars may be left out, stand there more than once,
 * or be new and empty (null: in the metre and tempo of the bar before). Everything in a bar
 * goes with it: cues, sections, tempo, metre, the number that the score prints. The pickup
 * stays in front, and what is past the end stays past it.
 */
export function rearrangeBars(song: Song, order: readonly BarOfOrder[], newId: () => string): Song {
  const { bars, end } = songTime(song);
  const metre = orderedMetre(bars, order);
  const next: Song = {
    ...song,
    bars: order.length,
    metre,
    printed: orderedPrinted(song, order),
    tempo: orderedTempo(song, order, buildBarMap(metre, song.pickup)),
  };
  const after = songTime({ ...next, cues: [], sweeps: [], sections: [] });
  const places = new Map<number, number[]>();
  for (const [i, bar] of order.entries()) {
    if (bar === null) continue;
    addTo(places, bar, i + 1);
  }
  /** Each place that something of an old bar comes to, the first under its own id. */
  const copies = <T extends { readonly id: string }>(bar: number, thing: T, at: (newBar: number) => Partial<T>): T[] =>
    (places.get(bar) ?? []).map((to, k) => ({ ...thing, ...at(to), id: k === 0 ? thing.id : newId() }));
  const carried = <T extends { readonly id: string; readonly at: Ticks }>(things: readonly T[]): T[] =>
    things
      .flatMap((thing) => {
        const to = (at: Ticks): Partial<T> => ({ at }) as Partial<T>;
        if (thing.at < song.pickup) return [thing];
        if (thing.at >= end) return [{ ...thing, ...to(thing.at + after.end - end) }];
        const old = barOfTick(bars, thing.at);
        return copies(old.bar, thing, (bar) => to(barAt(after.bars, bar).tick + thing.at - old.tick));
      })
      .sort((a, b) => a.at - b.at);
  // A sweep goes with the bar that it begins in, at its full length.
  const sweeps = song.sweeps.flatMap((sweep) => {
    const by = (move: Ticks): Sweep => ({ ...sweep, from: sweep.from + move, to: sweep.to + move });
    if (sweep.from < song.pickup) return [sweep];
    if (sweep.from >= end) return [by(after.end - end)];
    const old = barOfTick(bars, sweep.from);
    return copies(old.bar, sweep, (to) => by(barAt(after.bars, to).tick - old.tick));
  });
  const sections = song.sections.flatMap((s) => (s.bar === 0 ? [s] : copies(s.bar, s, (bar) => ({ bar }))));
  const calls = song.calls.flatMap((c) => copies(c.bar, c, (bar) => ({ bar })));
  return {
    ...next,
    cues: carried(song.cues),
    remarks: carried(song.remarks),
    sweeps: sweeps.sort((a, b) => a.from - b.from),
    sections: sections.sort((a, b) => a.bar - b.bar),
    calls: calls.sort((a, b) => a.bar - b.bar),
  };
}

function orderedMetre(bars: BarMap, order: readonly BarOfOrder[]): Metre[] {
  const marks: Metre[] = [];
  const firstKnown = order.find((b) => b !== null) ?? 1;
  let metre: MetreMark = barMetre(bars, firstKnown);
  for (const [i, bar] of order.entries()) {
    if (bar !== null) metre = barMetre(bars, bar);
    const last = marks.at(-1);
    if (!last || last.beats !== metre.beats || last.unit !== metre.unit) {
      marks.push({ bar: i + 1, beats: metre.beats, unit: metre.unit });
    }
  }
  return marks;
}

function barMetre(bars: BarMap, bar: number): MetreMark {
  const { beats, unit } = barAt(bars, bar);
  return { bar, beats, unit };
}

/** Printed numbers stay with their bars, where the score prints any of its own; empty bars count on. */
function orderedPrinted(song: Song, order: readonly BarOfOrder[]): Song['printed'] {
  if (song.printed.length === 0) return [];
  const { bars } = songTime(song);
  const marks: { bar: number; number: number }[] = [];
  let expected: number | undefined;
  for (const [i, bar] of order.entries()) {
    const number = bar === null ? (expected ?? printedNumber(bars, 1)) : printedNumber(bars, bar);
    if (number !== (expected ?? i + 1)) marks.push({ bar: i + 1, number });
    expected = number + 1;
  }
  return marks;
}

function orderedTempo(song: Song, order: readonly BarOfOrder[], after: BarMap): TempoMark[] {
  const { bars } = songTime(song);
  const marks: TempoMark[] = song.pickup > 0 ? stretch(song, 0, song.pickup, 0) : [];
  let newBar = 1;
  for (const { first, count } of runsOf(order)) {
    const to = barAt(after, newBar).tick;
    newBar += count;
    const from = first ?? 1;
    if (first !== null) {
      const last = barAt(bars, from + count - 1);
      marks.push(...stretch(song, barAt(bars, from).tick, last.tick + last.length, to));
    } else if (marks.length === 0) marks.push({ ...stretch(song, song.pickup, song.pickup + 1, to)[0]!, rampTo: null });
    else {
      const { bpm, rampTo, ...rest } = marks.at(-1)!;
      marks.push({ ...rest, at: to, bpm: rampTo ?? bpm, rampTo: null });
    }
  }
  // A ramp that runs up to the end needs a mark there to arrive at.
  const last = marks.at(-1)!;
  if (last.rampTo !== null) marks.push({ ...last, at: barAt(after, newBar).tick, bpm: last.rampTo, rampTo: null });
  return withoutRepeats(inOrder([{ ...marks[0]!, at: 0 }, ...marks]));
}

/** The tempo marks of a stretch of the song, moved to begin at `to`; a ramp that the stretch cuts keeps its slope. */
function stretch(song: Song, from: Ticks, end: Ticks, to: Ticks): TempoMark[] {
  const marks = song.tempo;
  const map = songTime(song).tempo;
  const active = marks.findLastIndex((m) => m.at <= from);
  const mark = marks[Math.max(0, active)]!;
  const entry: TempoMark = mark.at === from ? mark : { ...mark, bpm: tempoAt(map, from) / mark.beat };
  const inside = [{ ...entry, at: from }, ...marks.filter((m) => m.at > from && m.at < end)];
  const last = inside.at(-1)!;
  const source = marks[marks.findLastIndex((m) => m.at <= last.at)]!;
  const arrives = marks.find((m) => m.at > source.at);
  const cut =
    last.rampTo !== null && arrives && arrives.at > end
      ? {
          ...last,
          rampTo: source.bpm + ((source.rampTo! - source.bpm) * (end - source.at)) / (arrives.at - source.at),
        }
      : last;
  return [...inside.slice(0, -1), cut].map((m) => ({ ...m, at: m.at - from + to }));
}

/** Without marks that change nothing. */
const withoutRepeats = (marks: readonly TempoMark[]): TempoMark[] =>
  marks.filter((m, i) => {
    const before = marks[i - 1];
    return !before || before.rampTo !== null || m.rampTo !== null || before.bpm !== m.bpm || before.beat !== m.beat;
  });

/** Bars of a section: up to the next one, or to the end. Undefined where the song has no such section. */
export function sectionBars(song: Song, sectionId: string): { first: number; count: number } | undefined {
  const sections = song.sections.toSorted((a, b) => a.bar - b.bar);
  const i = sections.findIndex((s) => s.id === sectionId);
  const section = sections[i];
  if (!section) return undefined;
  const next = sections.slice(i + 1).find((s) => s.bar > section.bar);
  const first = Math.max(1, section.bar);
  return { first, count: Math.max(0, (next?.bar ?? song.bars + 1) - first) };
}
