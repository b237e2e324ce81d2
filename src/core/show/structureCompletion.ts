import { barOfTick, barStart, formatBar, parsePosition } from '../time';
import type { Song } from './schema';
import { songTime } from './songTime';
import { PLACE, readStructureLine } from './structure';

/** So many ways to go on are offered. */
const OFFERED = 6;

const PLACED = new RegExp(`^${PLACE}(\\s+)(.*)$`);

const round = (bpm: number): number => Math.round(bpm * 100) / 100;

/** What songs are made of, as names of sections to begin with. */
const NAMES = ['Intro', 'Verse', 'Chorus', 'Bridge', 'Solo', 'Coda'] as const;

/** Whole lines of a structure that a text may become, in the bars of a song; the text itself is none of them. */
export function structureCompletions(song: Song, text: string): readonly string[] {
  const typed = text.trimStart();
  const low = typed.toLowerCase();
  const begins = (line: string): boolean => line.toLowerCase().startsWith(low) && line.length > typed.trimEnd().length;
  const found = low === '' ? [] : [...new Set([...unplaced(song), ...placed(song, typed)])].filter(begins);
  return found.filter((line) => readStructureLine(song, line).ok).slice(0, OFFERED);
}

/** Lines that begin with a word. */
function unplaced(song: Song): readonly string[] {
  const { bars } = songTime(song);
  const calls = song.sections
    .filter((s) => s.bar > 1 && s.call === null)
    .map((s) => `call ${s.name} 2 before ${formatBar(bars, s.bar, song.bars)}`);
  return ['pickup 1', 'pickup 2', ...calls];
}

/** Lines that begin with a place: a metre, a tempo, a ramp, a section, a printed number, a section that moves. */
function placed(song: Song, typed: string): readonly string[] {
  const [, where, gap] = PLACED.exec(typed) ?? [];
  const { bars } = songTime(song);
  const at = where === undefined ? undefined : parsePosition(bars, where, song.bars);
  if (!at?.ok) return [];
  const own = barOfTick(bars, at.ticks);
  const { bpm } = song.tempo.findLast((m) => m.at <= at.ticks) ?? song.tempo[0]!;
  const { beats, unit } = song.metre.findLast((m) => m.bar <= own.bar) ?? song.metre[0]!;
  const others = song.metre.filter((m) => m.beats !== beats || m.unit !== unit).map((m) => `${m.beats}/${m.unit}`);
  const names = [...new Set([...song.sections.map((s) => s.name), ...NAMES])];
  const here = song.sections.find((s) => s.bar === own.bar);
  const behind = here ? song.sections.filter((s) => s.bar > own.bar) : [];
  const end = formatBar(bars, Math.min(song.bars, own.bar + 4), song.bars);
  const ramp = barStart(bars, Math.min(song.bars, own.bar + 4)) > at.ticks ? ` until ${end}` : '';
  const ways = [
    `tempo ${round(bpm)}`,
    `ramp ${round(bpm)} to ${round(bpm * 0.8)}${ramp}`,
    ...behind.slice(0, 2).map((s) => `move to ${formatBar(bars, s.bar, song.bars)}`),
    '= 1',
    ...new Set([...others, '7/8', '6/8', '3/4', '4/4', '5/4']),
    ...names,
  ];
  // The first of each kind before the second of any.
  const kind = (way: string): string => /^(tempo|ramp|move|=|\d)/.exec(way)?.[0].replace(/\d/, 'metre') ?? 'name';
  const firsts = ways.filter((way, i) => ways.findIndex((w) => kind(w) === kind(way)) === i);
  return [...new Set([...firsts, ...ways])].map((way) => `${where}${gap}${way}`);
}
