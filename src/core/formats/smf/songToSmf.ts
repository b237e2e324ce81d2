import { addTo } from '../../groups';
import { compileSong, problemsOf, writtenSong } from '../../compile';
import type { Bytes } from '../../midi';
import { NOWHERE, problem, type Problem } from '../../problems';
import { routeTo } from '../../meaning';
import { songTime, type Show, type Song } from '../../show';
import type { ShowTonight } from '../../tonight';
import {
  TICKS_PER_QUARTER,
  barAt,
  barStart,
  buildTempoMap,
  microsToSeconds,
  secondsToTicks,
  type TempoMap,
  type Ticks,
} from '../../time';
import { STEP_ERROR_MICROS, tempoSteps, type TempoStep } from './tempoSteps';
import type { SmfEvent, SmfFile, SmfTrack } from './types';
import { MAX_DELTA } from './write';

/** Written: everything on its beat. Sent: as it leaves the cable, with its lead. */
export type SmfMode = 'written' | 'sent';

/** Fine enough for single bytes on a 5-pin cable: 32 µs a tick at 120. */
const SENT_DIVISION = TICKS_PER_QUARTER * 16;
const MAX_DIVISION = 0x7fff;

interface UnitMessage {
  readonly tick: Ticks;
  readonly unitId: string;
  readonly bytes: Bytes;
}

/** What of a song, or of several, a file is to hold. */
export interface SmfWish {
  readonly mode: SmfMode;
  /** 0: all in one track. 1: a track for each unit. */
  readonly format: 0 | 1;
  /** Units whose messages are written; null for all. */
  readonly unitIds: ReadonlySet<string> | null;
}

/** A song, ready to be laid down behind others. Places are ticks of 960 a quarter from its start. */
interface Piece {
  readonly song: Song;
  readonly steps: readonly TempoStep[];
  readonly messages: readonly UnitMessage[];
  /** Of all units, also of those whose messages are not written: they decide how fine the file is. */
  readonly places: readonly { readonly tick: Ticks }[];
  /** Whole bars in front of it. */
  readonly lead: Ticks;
  /** Behind it and all its messages, at a bar line. */
  readonly end: Ticks;
}

/** A song as a Standard MIDI File of format 1, of all units. */
export const songToSmf = (show: ShowTonight, song: Song, mode: SmfMode): { file: SmfFile; problems: Problem[] } =>
  songsToSmf(show, [song], { mode, format: 1, unitIds: null }, song.title);

/**
 * Songs, one behind the other, as a Standard MIDI File 1.0: tempo, metre and section markers in the first
 * track, then a track for each unit that a port reaches, with its name and port; in format 0 all in one track.
 * The problems are the report: what was rounded, shifted or left out.
 */
export function songsToSmf(
  show: ShowTonight,
  songs: readonly Song[],
  wish: SmfWish,
  title: string,
): { file: SmfFile; problems: Problem[] } {
  const problems: Problem[] = [];
  const pieces = songs.map((song) => pieceOf(show, song, wish, problems));
  const places = pieces.flatMap((p) => p.places);
  const division = wish.mode === 'sent' ? SENT_DIVISION : divisionFor(places, problems);
  const whole = (ticks: Ticks): number => Math.round((ticks * division) / TICKS_PER_QUARTER);
  const starts: Ticks[] = [];
  let length: Ticks = 0;
  for (const piece of pieces) {
    starts.push(length);
    length += piece.lead + piece.end;
  }
  const name: SmfEvent = { tick: 0, kind: 'text', type: 'track-name', text: title };
  const marks = pieces.flatMap((piece, i) => conductor(piece, starts[i]!, pieces.length > 1, whole, problems));
  const end = pieces.reduce((last, p, i) => Math.max(last, whole(starts[i]! + p.lead + songTime(p.song).end)), 0);
  const first: SmfTrack = { events: [name, ...marks], end: Math.max(end, marks.at(-1)?.tick ?? 0) };
  const tracks = [first, ...unitTracks(show, pieces, starts, wish, whole, end)];
  const longest = tracks.reduce((last, t) => Math.max(last, t.end), 0);
  if (longest > MAX_DELTA) problems.push(problem('smf.too-wide', 'error', NOWHERE, { ticks: longest }));
  problems.push(...notCarried(show, songs));
  const file: SmfFile = { format: 1, division: { kind: 'quarter', ticks: division }, tracks };
  return { file: wish.format === 1 ? file : inOneTrack(file, problems), problems: summed(problems, songs.length) };
}

/** The report in one piece: what holds for several songs is said once. */
function summed(problems: readonly Problem[], songs: number): Problem[] {
  if (songs < 2) return [...problems];
  const said = new Map<string, Problem>();
  let steps = 0;
  let led = 0;
  for (const p of problems) {
    if (p.code === 'smf.ramp-steps') steps += p.data.steps;
    else if (p.code === 'smf.lead-in') led++;
    else said.set(`${p.code} ${JSON.stringify(p.data)}`, p);
  }
  const sums: Problem[] = [];
  if (led > 0) sums.push(problem('smf.lead-ins', 'note', NOWHERE, { songs: led }));
  if (steps > 0) sums.push(problem('smf.ramp-steps', 'note', NOWHERE, { steps, micros: STEP_ERROR_MICROS }));
  return [...sums, ...said.values()];
}

/** What of the songs a MIDI file has no place for. */
function notCarried(show: Show, songs: readonly Song[]): Problem[] {
  const has = (test: (song: Song) => boolean): boolean => songs.some(test);
  const what = [
    ...(has((s) => s.cues.some((c) => c.action.kind === 'tone' || c.action.kind === 'move'))
      ? ['names of tones and moves (they are found again through the map)']
      : []),
    ...(has((s) => s.sweeps.length > 0) ? ['sweeps as curves (their values are in it)'] : []),
    ...(has((s) => s.tracks.length > 0) ? ['recordings'] : []),
    ...(has((s) => s.calls.length > 0 || s.sections.some((x) => x.call !== null)) ? ['calls'] : []),
    ...(has((s) => s.remarks.length > 0) ? ['remarks'] : []),
    ...(has((s) => s.printed.length > 0) ? ['printed bar numbers'] : []),
    ...(has((s) => s.cues.some((c) => c.muted)) ? ['cues that are muted'] : []),
    ...(show.players.length > 0 ? ['who plays what'] : []),
  ];
  return what.length === 0 ? [] : [problem('export.left-out', 'note', NOWHERE, { what })];
}

/** Format 0 has one track: names of units and their ports have no place in it. */
function inOneTrack(file: SmfFile, problems: Problem[]): SmfFile {
  const [first, ...others] = file.tracks;
  const ports = new Map<number, Set<number>>();
  const portsOf = (channel: number): Set<number> => {
    const found = ports.get(channel) ?? new Set<number>();
    ports.set(channel, found);
    return found;
  };
  for (const track of others) {
    const port = track.events.find((e) => e.kind === 'port')?.port ?? 0;
    for (const e of track.events) {
      if (e.kind === 'message') portsOf(e.bytes[0]! & 0x0f).add(port);
    }
  }
  const mixed = [...ports].filter(([, on]) => on.size > 1).map(([channel]) => channel + 1);
  if (mixed.length > 0) {
    const channels = mixed.toSorted((a, b) => a - b);
    problems.push(problem('smf.one-track', 'warning', NOWHERE, { channels }));
  }
  const kept = others.flatMap((t) => t.events.filter((e) => e.kind === 'message' || e.kind === 'packet'));
  const events = [...first!.events, ...kept].sort((a, b) => a.tick - b.tick);
  return { ...file, format: 0, tracks: [{ events, end: file.tracks.reduce((last, t) => Math.max(last, t.end), 0) }] };
}

function pieceOf(show: Show, song: Song, { mode, unitIds }: SmfWish, problems: Problem[]): Piece {
  const time = songTime(song);
  const lastCue = song.cues.reduce((last, cue) => Math.max(last, cue.at), 0);
  const steps = tempoSteps(time.tempo, Math.ceil(Math.max(time.end, lastCue)) + TICKS_PER_QUARTER);
  if (song.tempo.some((m) => m.rampTo !== null)) {
    const data = { steps: steps.length, micros: STEP_ERROR_MICROS };
    problems.push(problem('smf.ramp-steps', 'note', NOWHERE, data));
  }
  // All units are reckoned first: what one is sent hangs on what the others are.
  const all = mode === 'written' ? written(show, song) : sent(show, song, steps, problems);
  const messages = all.filter((m) => unitIds === null || unitIds.has(m.unitId));
  // The bars in front are those of the whole song, so that files of single units lie beside each other.
  const lead = leadIn(song, all, time.tempo, problems);
  const bar = barAt(time.bars, song.bars).length;
  const over = all.reduce((last, m) => Math.max(last, m.tick), lastCue) - time.end;
  return {
    song,
    steps,
    messages,
    places: [...all, ...steps],
    lead,
    end: time.end + bar * Math.max(0, Math.ceil(over / bar)),
  };
}

function unitTracks(
  show: Show,
  pieces: readonly Piece[],
  starts: readonly Ticks[],
  { unitIds }: SmfWish,
  whole: (ticks: Ticks) => number,
  end: number,
): SmfTrack[] {
  const ports = new Map(show.ports.map((p, i) => [p.id, { name: p.name, number: i }]));
  const byUnit = new Map<string, SmfEvent[]>();
  for (const [i, piece] of pieces.entries()) {
    for (const { tick, unitId, bytes } of piece.messages) {
      addTo(byUnit, unitId, { ...asEvent(bytes), tick: whole(starts[i]! + piece.lead + tick) });
    }
  }
  const tracks: SmfTrack[] = [];
  for (const unit of show.units) {
    if (unitIds !== null && !unitIds.has(unit.id)) continue;
    const route = routeTo(show, unit);
    const list = byUnit.get(unit.id) ?? [];
    // A controller that nothing is sent to needs no track; a unit that merely rests keeps its own.
    if (list.length === 0 && (!route || unit.profile.senders.length > 0)) continue;
    const port = route && ports.get(route.portId);
    const events: SmfEvent[] = [{ tick: 0, kind: 'text', type: 'track-name', text: unit.name }];
    if (port) {
      events.push({ tick: 0, kind: 'port', port: Math.min(127, port.number) });
      events.push({ tick: 0, kind: 'text', type: 'port-name', text: port.name });
    }
    events.push(...list);
    tracks.push({ events, end: Math.max(end, events.at(-1)!.tick) });
  }
  return tracks;
}

/** A whole channel message stands as it is; anything else goes into a packet, where any bytes may stand. */
const asEvent = (bytes: Bytes): { kind: 'message' | 'packet'; bytes: Bytes } =>
  isChannelMessage(bytes) ? { kind: 'message', bytes } : { kind: 'packet', bytes };

function isChannelMessage(bytes: Bytes): boolean {
  const status = bytes[0]!;
  const data = bytes.slice(1);
  if (status < 0x80 || status >= 0xf0) return false;
  return data.length === ((status & 0xe0) === 0xc0 ? 1 : 2) && data.every((byte) => byte < 0x80);
}

const written = (show: Show, song: Song): UnitMessage[] =>
  writtenSong(show, song).map(({ at, unitId, bytes }) => ({ tick: at, unitId, bytes }));

/** Places on the file's own tempo, whose rounding then moves nothing. */
function sent(show: Show, song: Song, steps: readonly TempoStep[], problems: Problem[]): UnitMessage[] {
  const compiled = compileSong(show, song);
  problems.push(...problemsOf(show, compiled));
  const inFile = buildTempoMap(steps.map((s) => ({ at: s.tick, bpm: 60e6 / s.micros, beat: 1 })));
  // A clock has no place in a file, which carries the tempo itself.
  return compiled.events
    .filter((e) => e.unitId !== '')
    .map(({ at, unitId, bytes }) => ({ tick: secondsToTicks(inFile, microsToSeconds(at)), unitId, bytes }));
}

/** Whole bars in front, when something has to leave before the song starts: a file has no time before 0. */
function leadIn(song: Song, messages: readonly UnitMessage[], tempo: TempoMap, problems: Problem[]): Ticks {
  const earliest = messages.reduce((low, m) => Math.min(low, m.tick), 0);
  if (earliest >= 0) return 0;
  const bar = barAt(songTime(song).bars, 1).length;
  const bars = Math.ceil(-earliest / bar);
  const millis = (bars * bar * 60000) / TICKS_PER_QUARTER / tempo.segments[0]!.bpm;
  problems.push(problem('smf.lead-in', 'note', NOWHERE, { bars, millis: Math.round(millis) }));
  return bars * bar;
}

/** The least division of 960 or more in which every place is a whole tick, as far as files go. */
function divisionFor(places: readonly { readonly tick: Ticks }[], problems: Problem[]): number {
  let division = 1;
  for (const { tick } of places) {
    const under = denominator(tick / TICKS_PER_QUARTER);
    const next = (division / gcd(division, under)) * under;
    if (next > MAX_DIVISION) {
      const fallback = TICKS_PER_QUARTER * 32;
      problems.push(problem('smf.division-fallback', 'note', NOWHERE, { division: fallback }));
      return fallback;
    }
    division = next;
  }
  if (TICKS_PER_QUARTER % division === 0) return TICKS_PER_QUARTER;
  return division * Math.max(1, Math.min(Math.floor(MAX_DIVISION / division), Math.ceil(TICKS_PER_QUARTER / division)));
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Smallest whole number that makes `x` whole to a millionth, by continued fractions; beyond all files where there is none. */
function denominator(x: number): number {
  let [before, under] = [0, 1];
  let rest = x - Math.floor(x);
  const part = rest;
  for (let i = 0; i < 20 && under <= MAX_DIVISION; i++) {
    if (Math.abs(part * under - Math.round(part * under)) < 1e-6) return under;
    rest = 1 / rest;
    const whole = Math.floor(rest);
    rest -= whole;
    [before, under] = [under, whole * under + before];
  }
  return MAX_DIVISION + 1;
}

/** Tempo, metre and names of a piece, by time. */
function conductor(
  { song, steps, lead }: Piece,
  start: Ticks,
  titled: boolean,
  whole: (ticks: Ticks) => number,
  problems: Problem[],
): SmfEvent[] {
  const { bars } = songTime(song);
  const inFile = (tick: Ticks): number => whole(start + lead + tick);
  const events: SmfEvent[] = [];
  if (titled) events.push({ tick: whole(start), kind: 'text', type: 'marker', text: song.title });
  for (const { tick, micros } of steps) {
    events.push({ tick: tick === 0 ? whole(start) : inFile(tick), kind: 'tempo', micros });
  }
  const first = barAt(bars, 1);
  if (lead > 0) events.push({ tick: whole(start), kind: 'metre', beats: first.beats, unit: first.unit });
  if (song.pickup > 0) events.push(pickupMetre(song, inFile(0), problems));
  // A song that says nothing of its first bar is counted as its first mark says; in a file the bar before it would go on.
  if ((song.pickup > 0 || (lead === 0 && start > 0)) && !song.metre.some((m) => m.bar === 1)) {
    events.push({ tick: inFile(barStart(bars, 1)), kind: 'metre', beats: first.beats, unit: first.unit });
  }
  for (const mark of song.metre) {
    const tick = inFile(barStart(bars, mark.bar));
    events.push({ tick, kind: 'metre', beats: mark.beats, unit: mark.unit });
  }
  for (const section of song.sections) {
    events.push({ tick: inFile(barStart(bars, section.bar)), kind: 'text', type: 'marker', text: section.name });
  }
  // By time, in the order put in.
  return events.sort((a, b) => a.tick - b.tick);
}

/** A short bar of its own for the pickup, in the coarsest unit that holds it. */
function pickupMetre(song: Song, tick: number, problems: Problem[]): SmfEvent {
  for (const unit of [4, 8, 16, 32, 64, 128]) {
    const beats = (song.pickup * unit) / (TICKS_PER_QUARTER * 4);
    if (Number.isInteger(beats) && beats < 256) return { tick, kind: 'metre', beats, unit };
  }
  problems.push(problem('smf.metre-unit', 'warning', NOWHERE, { bar: 0 }));
  const beats = Math.max(1, Math.round((song.pickup * 128) / (TICKS_PER_QUARTER * 4)));
  return { tick, kind: 'metre', beats: Math.min(255, beats), unit: 128 };
}
