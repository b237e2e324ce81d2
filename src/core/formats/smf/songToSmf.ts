import { addTo } from '../../groups';
import { compileSong, problemsOf, writtenSong } from '../../compile';
import type { Bytes } from '../../midi';
import { NOWHERE, problem, type Problem } from '../../problems';
import { routeTo } from '../../meaning';
import { songTime, type Show, type Song } from '../../show';
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

/**
 * A song as a Standard MIDI File of format 1: tempo, metre and section markers in the
 * first track, then a track for each unit that a port reaches, with its name and port.
 * The problems are the report: what was rounded, shifted or left out.
 */
export function songToSmf(show: Show, song: Song, mode: SmfMode): { file: SmfFile; problems: Problem[] } {
  const problems: Problem[] = [];
  const time = songTime(song);
  const lastCue = song.cues.reduce((last, cue) => Math.max(last, cue.at), 0);
  const steps = tempoSteps(time.tempo, Math.ceil(Math.max(time.end, lastCue)) + TICKS_PER_QUARTER);
  if (song.tempo.some((m) => m.rampTo !== null)) {
    const data = { steps: steps.length, micros: STEP_ERROR_MICROS };
    problems.push(problem('smf.ramp-steps', 'note', NOWHERE, data));
  }
  const messages = mode === 'written' ? written(show, song) : sent(show, song, steps, problems);
  const lead = leadIn(song, messages, time.tempo, problems);
  const division = mode === 'sent' ? SENT_DIVISION : divisionFor([...messages, ...steps], problems);
  const inFile = (tick: Ticks): number => Math.round(((tick + lead) * division) / TICKS_PER_QUARTER);

  const tracks: SmfTrack[] = [conductor(song, steps, lead, inFile, problems)];
  const ports = new Map(show.ports.map((p, i) => [p.id, { name: p.name, number: i }]));
  const byUnit = new Map<string, UnitMessage[]>();
  for (const message of messages) {
    addTo(byUnit, message.unitId, message);
  }
  for (const unit of show.units) {
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
    for (const { tick, bytes } of list) events.push({ ...asEvent(bytes), tick: inFile(tick) });
    tracks.push({ events, end: Math.max(inFile(time.end), events.at(-1)!.tick) });
  }
  const longest = tracks.reduce((last, t) => Math.max(last, t.end), 0);
  if (longest > MAX_DELTA) problems.push(problem('smf.too-wide', 'error', NOWHERE, { ticks: longest }));
  return { file: { format: 1, division: { kind: 'quarter', ticks: division }, tracks }, problems };
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

function conductor(
  song: Song,
  steps: readonly TempoStep[],
  lead: Ticks,
  inFile: (tick: Ticks) => number,
  problems: Problem[],
): SmfTrack {
  const { bars, end } = songTime(song);
  const events: SmfEvent[] = [{ tick: 0, kind: 'text', type: 'track-name', text: song.title }];
  for (const { tick, micros } of steps) {
    events.push({ tick: tick === 0 ? 0 : inFile(tick), kind: 'tempo', micros });
  }
  const first = barAt(bars, 1);
  if (lead > 0) events.push({ tick: 0, kind: 'metre', beats: first.beats, unit: first.unit });
  if (song.pickup > 0) events.push(pickupMetre(song, inFile(0), problems));
  for (const mark of song.metre) {
    const tick = inFile(barStart(bars, mark.bar));
    events.push({ tick, kind: 'metre', beats: mark.beats, unit: mark.unit });
  }
  for (const section of song.sections) {
    events.push({ tick: inFile(barStart(bars, section.bar)), kind: 'text', type: 'marker', text: section.name });
  }
  // The name stays first; the rest by time, in the order put in.
  events.sort((a, b) => a.tick - b.tick);
  return { events, end: Math.max(inFile(end), events.at(-1)!.tick) };
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
