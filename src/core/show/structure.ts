import { NOWHERE, problem, type Problem } from '../problems';
import { barAt, barOfTick, barStart, formatBar, formatPosition, parsePosition, type Ticks } from '../time';
import {
  moveSection,
  putMetre,
  putPrinted,
  putSection,
  putTempo,
  removeMetre,
  removeSection,
  removeTempo,
  setPickup,
} from './commands/frame';
import { setCall } from './commands/sound';
import { applyEdit, type Edit } from './edits';
import { indexShow } from './find';
import { LIMITS, RANGES } from './limits';
import type { Show, Song } from './schema';
import { songTime } from './songTime';

/**
 * The structure of a song as lines of text, one for each thing:
 *
 *     17 7/8                 a metre from bar 17 on
 *     1 tempo 126            a tempo; `41 tempo 84.5 dotted` counts dotted quarters, `half` and `eighth` those
 *     41 ramp 132 to 57      a tempo that moves, to the next tempo or the last bar; `until 45` says where to
 *     9 Chorus               a section
 *     25 = 18                the score prints 18 at bar 25
 *     pickup 2               beats before bar 1
 *     call Solo 2 before 33  a word in the ears, two bars ahead of bar 33
 *     33 move to 49          the section that begins at bar 33 goes before bar 49
 *
 * Bars are written as the score prints them, `18(2)` for the second so printed.
 */
export type StructureLine =
  | {
      readonly does: 'metre';
      readonly bar: number;
      readonly beats: number;
      readonly unit: Song['metre'][number]['unit'];
    }
  | {
      readonly does: 'tempo';
      readonly at: Ticks;
      readonly bpm: number;
      readonly beat: number | null;
      readonly rampTo: number | null;
      readonly until: Ticks | null;
    }
  | { readonly does: 'section'; readonly bar: number; readonly name: string }
  | { readonly does: 'printed'; readonly bar: number; readonly number: number }
  | { readonly does: 'pickup'; readonly beats: number }
  | { readonly does: 'call'; readonly bar: number; readonly text: string; readonly bars: number }
  | { readonly does: 'move'; readonly bar: number; readonly before: number };

type Read = { readonly ok: true; readonly line: StructureLine } | { readonly ok: false; readonly problem: Problem };

const UNITS: readonly number[] = [1, 2, 4, 8, 16, 32, 64, 128];
const BEATS: Readonly<Record<string, number>> = { dotted: 1.5, half: 2, eighth: 0.5, quarter: 1 };
/** A place as one types it, for the front of other patterns: `17`, `18(2)`, `17|3.5`. */
export const PLACE = '(-?\\d+(?:\\(\\d+\\))?(?:\\s*\\|\\s*[\\d.]+)?)';
const NUMBER = '(\\d+(?:\\.\\d+)?)';

const PICKUP = new RegExp(`^pickup\\s+${NUMBER}$`, 'i');
const CALL = new RegExp(`^call\\s+(\\S.*?)\\s+(\\d+)\\s+before\\s+${PLACE}$`, 'i');
const AT = new RegExp(`^${PLACE}\\s+(\\S.*)$`);
const METRE = /^(\d+)\s*\/\s*(\d+)$/;
const RAMP = new RegExp(
  `^ramp\\s+${NUMBER}\\s+to\\s+${NUMBER}(?:\\s+(dotted|half|eighth|quarter))?(?:\\s+until\\s+${PLACE})?$`,
  'i',
);
const TEMPO = new RegExp(`^tempo\\s+${NUMBER}(?:\\s+(dotted|half|eighth|quarter))?$`, 'i');
const PRINTED = /^=\s*(-?\d+)$/;
const MOVE = new RegExp(`^move\\s+to\\s+${PLACE}$`, 'i');

/** Whether a text is a line of a structure, and not only a place: whatever is wrong with it is told as such then. */
export const isStructureLine = (text: string): boolean => /^(pickup|call)\s/i.test(text.trim()) || AT.test(text.trim());

/** Reads one line of a structure, in the bars of a song. A problem names what was expected. */
export function readStructureLine(song: Song, text: string): Read {
  const line = text.trim();
  const { bars } = songTime(song);
  const fail = (p: Problem): Read => ({ ok: false, problem: p });
  const wrong = (): Read => fail(problem('structure.form', 'error', NOWHERE, { text: line }));
  const tick = (place: string): Ticks | Problem => {
    const parsed = parsePosition(bars, place, song.bars);
    if (parsed.ok) return parsed.ticks;
    const { code, ...data } = parsed.problem;
    return problem(`position.${code}`, 'error', NOWHERE, data as never);
  };
  const pickup = PICKUP.exec(line);
  if (pickup) return { ok: true, line: { does: 'pickup', beats: Number(pickup[1]) } };
  const call = CALL.exec(line);
  if (call) {
    const at = tick(call[3]!);
    if (typeof at !== 'number') return fail(at);
    return { ok: true, line: { does: 'call', bar: barOfTick(bars, at).bar, text: call[1]!, bars: Number(call[2]) } };
  }
  const [, where, rest] = AT.exec(line) ?? [];
  if (where === undefined || rest === undefined) return wrong();
  const at = tick(where);
  if (typeof at !== 'number') return fail(at);
  const { bar } = barOfTick(bars, at);
  const metre = METRE.exec(rest);
  if (metre) {
    const [beats, unit] = [Number(metre[1]), Number(metre[2])];
    if (beats < 1 || beats > 255 || !UNITS.includes(unit)) {
      return fail(problem('structure.metre', 'error', NOWHERE, { text: rest }));
    }
    return { ok: true, line: { does: 'metre', bar, beats, unit } };
  }
  const [ramp, tempo] = [RAMP.exec(rest), TEMPO.exec(rest)];
  if (ramp ?? tempo) {
    const bpm = Number((ramp ?? tempo)![1]);
    const rampTo = ramp ? Number(ramp[2]) : null;
    const [from, to] = RANGES.bpm;
    if ([bpm, rampTo ?? bpm].some((b) => b < from || b > to)) {
      return fail(problem('structure.tempo', 'error', NOWHERE, { from, to }));
    }
    const named = (ramp ? ramp[3] : tempo![2])?.toLowerCase();
    const until = ramp?.[4] === undefined ? null : tick(ramp[4]);
    if (until !== null && typeof until !== 'number') return fail(until);
    const beat = named === undefined ? null : BEATS[named]!;
    return { ok: true, line: { does: 'tempo', at, bpm, beat, rampTo, until } };
  }
  const printed = PRINTED.exec(rest);
  if (printed) return { ok: true, line: { does: 'printed', bar, number: Number(printed[1]) } };
  const move = MOVE.exec(rest);
  if (move) {
    const before = tick(move[1]!);
    if (typeof before !== 'number') return fail(before);
    return { ok: true, line: { does: 'move', bar, before: barOfTick(bars, before).bar } };
  }
  // What begins like one of the others is not a name.
  if (/^(ramp|tempo|move|=)/i.test(rest) || /^\d/.test(rest)) return wrong();
  return { ok: true, line: { does: 'section', bar, name: rest.slice(0, LIMITS.title) } };
}

/** The edit that a line of a structure makes in a song. Null where nothing would change, or it cannot be. */
export function structureEdit(show: Show, songId: string, line: StructureLine, newId: () => string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song) return null;
  const { bars } = songTime(song);
  switch (line.does) {
    case 'metre':
      return putMetre(show, songId, line.bar, line.beats, line.unit);
    case 'section': {
      const there = song.sections.find((s) => s.bar === line.bar);
      return putSection(show, songId, {
        call: null,
        ...there,
        id: there?.id ?? newId(),
        bar: line.bar,
        name: line.name,
      });
    }
    case 'printed':
      return putPrinted(show, songId, line.bar, line.number);
    case 'pickup':
      return setPickup(show, songId, line.beats * barAt(bars, 1).beatTicks);
    case 'move': {
      const section = song.sections.find((s) => s.bar === line.bar);
      return section ? moveSection(show, songId, section.id, line.before) : null;
    }
    case 'call': {
      const there = song.calls.find((c) => c.bar === line.bar)?.id ?? newId();
      const ahead = Math.min(64, Math.max(1, line.bars * barAt(bars, Math.max(1, line.bar - 1)).beats));
      const call = { how: 'voice', text: line.text, pattern: 'rise', audioId: null, ahead, count: 0 } as const;
      return setCall(show, songId, { of: 'bar', id: there, bar: line.bar }, call);
    }
    case 'tempo':
      return tempoEdit(show, song, line);
  }
}

/** A ramp goes to where the line says, or to the tempo behind it, or to the last bar; what it passes goes. */
function tempoEdit(show: Show, song: Song, line: Extract<StructureLine, { does: 'tempo' }>): Edit | null {
  const { bars } = songTime(song);
  const under = song.tempo.findLast((m) => m.at <= line.at) ?? song.tempo[0]!;
  const beat = line.beat ?? under.beat;
  const mark = { at: line.at, bpm: line.bpm, beat, rampTo: line.rampTo };
  if (line.rampTo === null) return putTempo(show, song.id, mark);
  const behind = song.tempo.find((m) => m.at > line.at)?.at;
  const end = line.until ?? behind ?? barStart(bars, song.bars);
  if (end <= line.at) return null;
  const without = { ...song, tempo: song.tempo.filter((m) => m.at <= line.at || m.at >= end) };
  const cleared: Edit[] =
    without.tempo.length === song.tempo.length
      ? []
      : [{ kind: 'set', path: ['songs', { id: song.id }], before: song, after: without }];
  const edits: Edit[] = [];
  let state = show;
  const add = (edit: Edit | null): void => {
    if (!edit) return;
    edits.push(edit);
    state = applyEdit(state, edit);
  };
  cleared.forEach(add);
  // Where the ramp ends a tempo stands, so that it has somewhere to go.
  if (!without.tempo.some((m) => m.at === end))
    add(putTempo(state, song.id, { at: end, bpm: line.rampTo, beat, rampTo: null }));
  add(putTempo(state, song.id, mark));
  return edits.length === 0 ? null : { kind: 'group', edits };
}

const beatWord = (beat: number): string => {
  const word = Object.entries(BEATS).find(([, of]) => of === beat)?.[0] ?? '';
  return word === 'quarter' || word === '' ? '' : ` ${word}`;
};

const figure = (bpm: number): string => String(Math.round(bpm * 1000) / 1000);

/** The structure of a song as lines, in the order of the song; read again they make the same structure. */
export function structureLines(song: Song): readonly string[] {
  const { bars } = songTime(song);
  const bar = (of: number): string => formatBar(bars, of, song.bars);
  const place = (at: Ticks): string => {
    const own = barOfTick(bars, at);
    return own.tick === at ? bar(own.bar) : formatPosition(bars, at, song.bars);
  };
  const lines: { readonly at: Ticks; readonly text: string }[] = [
    ...song.metre.slice(1).map((m) => ({ at: barStart(bars, m.bar), text: `${bar(m.bar)} ${m.beats}/${m.unit}` })),
    ...song.tempo.map((m, i) => {
      const next = song.tempo[i + 1];
      const until = next && m.rampTo !== null ? ` until ${place(next.at)}` : '';
      const how = m.rampTo === null ? `tempo ${figure(m.bpm)}` : `ramp ${figure(m.bpm)} to ${figure(m.rampTo)}`;
      return { at: m.at, text: `${place(m.at)} ${how}${beatWord(m.beat)}${until}` };
    }),
    ...song.sections.map((s) => ({ at: barStart(bars, s.bar), text: `${bar(s.bar)} ${s.name}` })),
    ...song.calls
      .filter((c) => c.call.how === 'voice' && c.call.text !== '')
      .map(({ bar: of, call }) => {
        const whole = Math.max(1, Math.round(call.ahead / barAt(bars, Math.max(1, of - 1)).beats));
        return { at: barStart(bars, of), text: `call ${call.text} ${whole} before ${bar(of)}` };
      }),
  ];
  // The pickup is counted in beats of the first metre, and all that follows in bars behind it.
  const [first] = song.metre;
  const pickup = song.pickup > 0 ? [`pickup ${figure(song.pickup / barAt(bars, 1).beatTicks)}`] : [];
  // Each printed number is written in those that stand before it, and all else in all of them.
  const printed = song.printed.map((p, i) => {
    const before = songTime({ ...song, printed: song.printed.slice(0, i) }).bars;
    return `${formatBar(before, p.bar, song.bars)} = ${p.number}`;
  });
  const opening = first ? [`${bar(first.bar)} ${first.beats}/${first.unit}`] : [];
  return [...opening, ...pickup, ...printed, ...lines.sort((x, y) => x.at - y.at).map((l) => l.text)];
}

/** Which thing of a song a line is about: two lines with the same cannot both be. */
function subject(line: StructureLine): string {
  switch (line.does) {
    case 'pickup':
      return 'pickup';
    case 'tempo':
      return `tempo ${line.at}`;
    case 'move':
      return `move ${line.bar} ${line.before}`;
    default:
      return `${line.does} ${line.bar}`;
  }
}

/** Takes away what a line is about. */
function withoutLine(show: Show, songId: string, line: StructureLine): Edit | null {
  const song = indexShow(show).songs.get(songId);
  switch (line.does) {
    case 'metre':
      return removeMetre(show, songId, line.bar);
    case 'tempo':
      return removeTempo(show, songId, line.at);
    case 'printed':
      return putPrinted(show, songId, line.bar, null);
    case 'pickup':
      return setPickup(show, songId, 0);
    case 'section': {
      const there = song?.sections.find((s) => s.bar === line.bar);
      return there ? removeSection(show, songId, there.id) : null;
    }
    case 'call': {
      const there = song?.calls.find((c) => c.bar === line.bar);
      return there ? setCall(show, songId, { of: 'bar', id: there.id, bar: line.bar }, null) : null;
    }
    case 'move':
      return null;
  }
}

/** What a whole structure that was edited as text comes to. */
export type StructureRead =
  | { readonly ok: true; readonly edit: Edit | null }
  /** The first line that cannot be read, counted from 1. */
  | { readonly ok: false; readonly row: number; readonly problem: Problem };

/**
 * The edit that makes a song's structure be as lines say it: lines that are new are written, lines that are gone are
 * taken away, all others are left as they are. What stands in the bars keeps its bar and beat.
 */
export function rewriteStructure(show: Show, songId: string, text: string, newId: () => string): StructureRead {
  const song = indexShow(show).songs.get(songId);
  if (!song) return { ok: true, edit: null };
  const old = structureLines(song);
  const next = text.split(/\r?\n/).map((l) => l.trim());
  const edits: Edit[] = [];
  let state = show;
  const add = (edit: Edit | null): void => {
    if (!edit) return;
    edits.push(edit);
    state = applyEdit(state, edit);
  };
  const known = new Set(old);
  const kept = new Set<string>();
  for (const [i, line] of next.entries()) {
    if (line === '') continue;
    const now = indexShow(state).songs.get(songId)!;
    const read = readStructureLine(now, line);
    if (!read.ok) return { ok: false, row: i + 1, problem: read.problem };
    kept.add(subject(read.line));
    if (!known.has(line)) add(structureEdit(state, songId, read.line, newId));
  }
  for (const line of old) {
    const now = indexShow(state).songs.get(songId)!;
    const read = readStructureLine(now, line);
    if (read.ok && !next.includes(line) && !kept.has(subject(read.line))) add(withoutLine(state, songId, read.line));
  }
  return { ok: true, edit: edits.length === 0 ? null : { kind: 'group', edits } };
}
