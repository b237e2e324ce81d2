import { LIMITS } from '../limits';
import { barOfTick, tempoAt, type Ticks } from '../../time';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import { rearrangeBars, refit, sectionBars, type BarOfOrder } from '../frame';
import type { Section, Show, Song } from '../schema';
import { songTime } from '../songTime';

type TempoMark = Song['tempo'][number];
type MetreUnit = Song['metre'][number]['unit'];

/** Puts a changed song in its place. Null when nothing changed. */
function setSong(before: Song | undefined, after: Song): Edit | null {
  if (!before || JSON.stringify(before) === JSON.stringify(after)) return null;
  return { kind: 'set', path: ['songs', { id: before.id }], before, after };
}

const songOf = (show: Show, songId: string): Song | undefined => indexShow(show).songs.get(songId);

const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);

/** Sets the tempo at a place, in place of the mark that is there. A ramp with no mark after it has nowhere to go and is left out. */
export function putTempo(show: Show, songId: string, mark: TempoMark): Edit | null {
  const song = songOf(show, songId);
  if (!song || mark.at < 0) return null;
  const rest = song.tempo.filter((m) => m.at !== mark.at);
  const tempo = [...rest, mark].sort((a, b) => a.at - b.at);
  const last = tempo.length - 1;
  return setSong(song, { ...song, tempo: tempo.map((m, i) => (i === last ? { ...m, rampTo: null } : m)) });
}

/**
 * Puts a tempo mark at a place, at the tempo that is there already: nothing sounds otherwise until it is changed. Inside a
 * ramp it divides the ramp. Null where a mark stands.
 */
export function addTempo(show: Show, songId: string, at: Ticks): Edit | null {
  const song = songOf(show, songId);
  const under = song?.tempo.findLast((m) => m.at <= at);
  if (!song || !under || under.at === at) return null;
  // The map counts quarters; a mark counts its own beats.
  const bpm = tempoAt(songTime(song).tempo, at) / under.beat;
  const tempo = song.tempo.flatMap((m) =>
    m === under
      ? [
          { ...m, rampTo: m.rampTo === null ? null : bpm },
          { ...m, at, bpm, rampTo: m.rampTo },
        ]
      : [m],
  );
  return setSong(song, { ...song, tempo });
}

/** Takes a tempo mark away; the first stays, it may only be changed. */
export function removeTempo(show: Show, songId: string, at: Ticks): Edit | null {
  const song = songOf(show, songId);
  if (!song || song.tempo[0]?.at === at) return null;
  const tempo = song.tempo.filter((m) => m.at !== at);
  const last = tempo.length - 1;
  return setSong(song, { ...song, tempo: tempo.map((m, i) => (i === last ? { ...m, rampTo: null } : m)) });
}

/** Sets the metre from a bar on. Cues and tempo marks keep their bar and beat. */
export function putMetre(show: Show, songId: string, bar: number, beats: number, unit: MetreUnit): Edit | null {
  const song = songOf(show, songId);
  if (!song || bar < 1 || beats < 1) return null;
  const metre = [...song.metre.filter((m) => m.bar !== bar), { bar, beats, unit }].sort((a, b) => a.bar - b.bar);
  return setSong(song, refit(song, { metre }));
}

/** Takes a change of metre away; that of bar 1 stays. */
export function removeMetre(show: Show, songId: string, bar: number): Edit | null {
  const song = songOf(show, songId);
  if (!song || bar <= 1) return null;
  return setSong(song, refit(song, { metre: song.metre.filter((m) => m.bar !== bar) }));
}

/** Sets the length of the pickup; the bars after it, and all in them, move along. It is shorter than a bar. */
export function setPickup(show: Show, songId: string, pickup: Ticks): Edit | null {
  const song = songOf(show, songId);
  const bar = song && barOfTick(songTime(song).bars, song.pickup);
  if (!song || !bar || !(pickup >= 0) || pickup >= bar.beats * bar.beatTicks) return null;
  return setSong(song, refit(song, { pickup }));
}

/** Adds a section, or puts it in the place of the one with its id. Two cannot begin at one bar. */
export function putSection(show: Show, songId: string, section: Section): Edit | null {
  const song = songOf(show, songId);
  const name = section.name.trim().slice(0, LIMITS.title);
  if (!song || name === '' || section.bar < 0 || section.bar > song.bars) return null;
  if (song.sections.some((s) => s.bar === section.bar && s.id !== section.id)) return null;
  const rest = song.sections.filter((s) => s.id !== section.id);
  const sections = [...rest, { ...section, name }].sort((a, b) => a.bar - b.bar);
  return setSong(song, { ...song, sections });
}

/** Takes a section's name away; its bars stay. */
export function removeSection(show: Show, songId: string, sectionId: string): Edit | null {
  const song = songOf(show, songId);
  return song ? setSong(song, { ...song, sections: song.sections.filter((s) => s.id !== sectionId) }) : null;
}

/** Says what the score prints at a bar; null lets it count on from the bar before. */
export function putPrinted(show: Show, songId: string, bar: number, number: number | null): Edit | null {
  const song = songOf(show, songId);
  if (!song || bar < 0 || bar > song.bars) return null;
  const rest = song.printed.filter((m) => m.bar !== bar);
  const printed = number === null ? rest : [...rest, { bar, number }].sort((a, b) => a.bar - b.bar);
  return setSong(song, { ...song, printed });
}

/** Puts empty bars before a bar, in the metre and tempo of the one before. */
export function insertBars(show: Show, songId: string, before: number, count: number): Edit | null {
  const song = songOf(show, songId);
  if (!song || count < 1 || before < 1 || before > song.bars + 1 || song.bars + count > 100000) return null;
  const order = [...range(1, before), ...Array.from({ length: count }, () => null), ...range(before, song.bars + 1)];
  return setSong(song, rearrangeBars(song, order, noCopies));
}

/** Takes bars out with all that is in them. Null where nothing would be left. */
export function removeBars(show: Show, songId: string, first: number, count: number): Edit | null {
  const song = songOf(show, songId);
  if (!song || count < 1 || first < 1 || first + count > song.bars + 1 || count >= song.bars) return null;
  const order = [...range(1, first), ...range(first + count, song.bars + 1)];
  return setSong(song, rearrangeBars(song, order, noCopies));
}

const noCopies = (): string => {
  throw new Error('no bar stands there twice');
};

/** Bars with those of a section moved or copied to stand before a bar of the old order. */
function withSection(song: Song, sectionId: string, before: number, keep: boolean): BarOfOrder[] | undefined {
  const own = sectionBars(song, sectionId);
  if (!own || own.count === 0 || before < 1 || before > song.bars + 1) return undefined;
  const block = range(own.first, own.first + own.count);
  const inside = before > own.first && before < own.first + own.count;
  if (!keep && (inside || before === own.first || before === own.first + own.count)) return undefined;
  const stays = (b: number): boolean => keep || !block.includes(b);
  return [...range(1, before).filter(stays), ...block, ...range(before, song.bars + 1).filter(stays)];
}

/** Moves a section's bars, and all in them, before another bar. */
export function moveSection(show: Show, songId: string, sectionId: string, before: number): Edit | null {
  const song = songOf(show, songId);
  const order = song && withSection(song, sectionId, before, false);
  return song && order ? setSong(song, rearrangeBars(song, order, noCopies)) : null;
}

/** Puts a copy of a section's bars, and of all in them, before a bar. */
export function copySection(
  show: Show,
  songId: string,
  sectionId: string,
  before: number,
  newId: () => string,
): Edit | null {
  const song = songOf(show, songId);
  const order = song && withSection(song, sectionId, before, true);
  return song && order ? setSong(song, rearrangeBars(song, order, newId)) : null;
}
