import { addTo } from '../../groups';
import { linear, newControl, newProfile, type AddressPlan, type Profile } from '../../addressing';
import { BANK_LSB, BANK_MSB, channelOf, toHex, type Bytes } from '../../midi';
import { NOWHERE, problem, type Problem, type Read } from '../../problems';
import {
  LIMITS,
  asTitle,
  emptyShow,
  messageCue,
  newPort,
  newSection,
  newSong,
  newUnit,
  type Cue,
  type Port,
  type Section,
  type Show,
  type Song,
  type Unit,
  inOrder,
  microsAt,
  songTime,
} from '../../show';
import { TICKS_PER_QUARTER, barOfTick, barStart, buildBarMap, type Ticks } from '../../time';
import { readSmf } from './read';
import type { SmfEvent, SmfFile, SmfTrack } from './types';

/** Controls with a fixed meaning: bank, data entry, parameter numbers, channel mode. They are kept as bytes only. */
const isPlainControl = (n: number): boolean =>
  ![BANK_MSB, BANK_LSB, 6, 38].includes(n) && !(n >= 96 && n <= 101) && n < 120;

interface Heard {
  readonly tick: Ticks;
  readonly bytes: Bytes;
  readonly port: string;
  /** Undefined for exclusive and other messages of a whole port. */
  readonly channel: number | undefined;
  readonly trackName: string;
}

/**
 * Reads a MIDI file that nobody has a map for: one plain unit a port and channel, every
 * message a cue with its bytes as they stand. Format 2 gives a song a track.
 */
export function smfToShow(bytes: Uint8Array, name: string): Read<Show> {
  const title = asTitle(name, 'MIDI file');
  const { value: file, problems } = readSmf(bytes);
  if (!file) return { value: undefined, problems };
  const report: Problem[] = [...problems];
  const all = file.format === 2 ? file.tracks.map((t) => [t]) : [file.tracks];
  const patterns = all.slice(0, LIMITS.songs);
  if (all.length > patterns.length) {
    report.push(problem('smf.too-many-songs', 'warning', NOWHERE, { songs: all.length, limit: LIMITS.songs }));
  }
  const heard = patterns.map((tracks) => hear(tracks, file));
  const rig = makeRig(heard.flat(), report);
  const songs: Song[] = [];
  // In format 2 each track is a piece by itself, and its name that of the piece.
  const titles = file.format === 2 ? file.tracks.map((t) => nameOf(t) || title) : [songTitle(file, title)];
  for (const [i, tracks] of patterns.entries()) {
    const song = makeSong(`song-${i + 1}`, numbered(titles, i), tracks, heard[i]!, file, rig.unitOf, report);
    if (!song) return { value: undefined, problems: report };
    songs.push(song);
  }
  const show: Show = {
    ...emptyShow('imported', title),
    ports: rig.ports,
    units: rig.units,
    songs,
    ...inOrder(songs.map((s) => s.id)),
  };
  return { value: show, problems: report };
}

/** Ticks of the file to ticks of the song; a file in frames is laid out at 120. */
function ticker(file: SmfFile): (tick: number) => Ticks {
  const { division } = file;
  if (division.kind === 'quarter') {
    return (tick) => (tick * TICKS_PER_QUARTER) / division.ticks;
  }
  // 29 stands for 30 drop frame: 30000/1001 frames a second.
  const frames = division.frames === 29 ? 30000 / 1001 : division.frames;
  return (tick) => (tick / division.ticks / frames) * 2 * TICKS_PER_QUARTER;
}

/** All messages in order of time; at one time, by track and then as they stand in it. */
function hear(tracks: readonly SmfTrack[], file: SmfFile): Heard[] {
  const inSong = ticker(file);
  const heard: Heard[] = [];
  for (const track of tracks) {
    const name = track.events.find((e) => e.kind === 'text' && e.type === 'track-name');
    // The one track of format 0 is named after the piece, not after what plays it.
    const trackName = name?.kind === 'text' && file.format !== 0 ? name.text.trim() : '';
    const only = onlyChannel(track);
    let number = '';
    let named = '';
    for (const event of track.events) {
      if (event.kind === 'port') number = `Port ${event.port + 1}`;
      else if (event.kind === 'text' && event.type === 'port-name') named = asTitle(event.text, '');
      else if (event.kind === 'message' || event.kind === 'packet') {
        const channel = event.kind === 'message' ? channelOf(event.bytes) : only;
        const port = named || number || 'Port 1';
        heard.push({ tick: inSong(event.tick), bytes: event.bytes, port, channel, trackName });
      }
    }
  }
  return heard.sort((a, b) => a.tick - b.tick);
}

/** The one channel that a track speaks on: its exclusive messages belong there too. */
function onlyChannel(track: SmfTrack): number | undefined {
  let only: number | undefined;
  for (const event of track.events) {
    if (event.kind !== 'message') continue;
    const channel = channelOf(event.bytes);
    if (only !== undefined && channel !== only) return undefined;
    only = channel;
  }
  return only;
}

interface Rig {
  readonly ports: Port[];
  readonly units: Unit[];
  readonly unitOf: (h: Heard) => string;
}

const key = (h: Heard): string => `${h.port}\n${h.channel ?? ''}`;

function makeRig(heard: readonly Heard[], report: Problem[]): Rig {
  const ports: Port[] = [];
  const units: Unit[] = [];
  const groups = new Map<string, Heard[]>();
  for (const h of heard) {
    addTo(groups, key(h), h);
  }
  const ids = new Map<string, string>();
  for (const [k, list] of groups) {
    const { port: portName, channel } = list[0]!;
    let port = ports.find((p) => p.name === portName);
    if (!port) {
      // The file does not say which cable; the fast one adds no lateness of its own.
      port = newPort(`port-${ports.length + 1}`, portName, 'usb');
      ports.push(port);
    }
    const id = `unit-${units.length + 1}`;
    ids.set(k, id);
    const name = freeName(units, list, channel);
    // Exclusive messages pass every channel; on one that is free the unit hears nothing else.
    const own = channel ?? freeChannel(heard, portName);
    const unit = newUnit(id, name, monogram(units.length), plainProfile(list), {
      channel: own,
      listens: own,
      input: { from: 'port', portId: port.id },
    });
    units.push(unit);
  }
  if (ports.length > 0) {
    report.push(problem('smf.ports-assumed', 'note', NOWHERE, { ports: ports.length }));
  }
  return { ports, units, unitOf: (h) => ids.get(key(h))! };
}

/** Letters that are added to a port's name to make a unit's. */
const ROOM_BEHIND = 24;

function freeChannel(heard: readonly Heard[], port: string): number {
  const taken = new Set(heard.filter((h) => h.port === port).map((h) => h.channel));
  for (let channel = 16; channel > 1; channel--) if (!taken.has(channel)) return channel;
  return 1;
}

function freeName(units: readonly Unit[], list: readonly Heard[], channel: number | undefined): string {
  const { trackName, port } = list[0]!;
  const short = port.slice(0, LIMITS.title - ROOM_BEHIND);
  const plain = channel === undefined ? `${short}, all channels` : `${short}, channel ${channel}`;
  const fits = trackName !== '' && list.every((h) => h.trackName === trackName);
  const name = fits ? asTitle(trackName, plain) : plain;
  if (!units.some((u) => u.name === name)) return name;
  return units.some((u) => u.name === plain) ? `${plain} (${units.length + 1})` : plain;
}

/** A1, A2 … Z9: short, and free of any meaning. */
const monogram = (i: number): string => String.fromCharCode(65 + (Math.floor(i / 9) % 26)) + String((i % 9) + 1);

/** A unit of which only its messages are known: programs by number, each control at its own number. */
function plainProfile(list: readonly Heard[]): Profile {
  const controls = new Set<number>();
  for (const { bytes } of list) {
    if ((bytes[0]! & 0xf0) === 0xb0) controls.add(bytes[1]!);
  }
  const numbers = [...controls].filter(isPlainControl).sort((a, b) => a - b);
  return newProfile('Plain unit', plainPlan(controls.has(BANK_MSB), controls.has(BANK_LSB)), {
    controls: numbers.map((n) => newControl(`control-${n}`, `Control ${n}`, linear(n, 0, 127, ''))),
  });
}

function plainPlan(msb: boolean, lsb: boolean): AddressPlan {
  const program = { kind: 'number', start: 0, count: 128, width: 3 } as const;
  const banks = msb && lsb ? 16384 : 128;
  const digits =
    msb || lsb
      ? ([{ kind: 'number', start: 0, count: banks, width: 1 }, { kind: 'text', text: '/' }, program] as const)
      : ([program] as const);
  return {
    groups: [{ readOnly: false, name: 'programs', count: msb || lsb ? banks * 128 : 128, digits }],
    perBank: 128,
    bank: { send: msb && lsb ? 'both' : msb ? 'msb' : lsb ? 'lsb' : 'none', when: 'differs' },
    table: null,
  };
}

function makeSong(
  id: string,
  title: string,
  tracks: readonly SmfTrack[],
  heard: readonly Heard[],
  file: SmfFile,
  unitOf: (h: Heard) => string,
  report: Problem[],
): Song | undefined {
  const inSong = ticker(file);
  const events = tracks.flatMap((t) => t.events).sort((a, b) => a.tick - b.tick);
  const framed = file.division.kind === 'frames';
  const base = newSong(id, title);
  const metre = metreMarks(events, inSong, report);
  const bars = buildBarMap(metre);
  const last = Math.max(0, ...tracks.map((t) => inSong(t.end)), heard.at(-1)?.tick ?? 0);
  // What comes in the last moment of a bar, or a hair after it, does not begin another.
  const count = countBars(bars, Math.max(0, last - LAST_MOMENT));
  const end = barStart(bars, count + 1);
  const behind = heard.filter((h) => h.tick >= end).length;
  if (behind > 0) report.push(problem('smf.last-moment', 'note', NOWHERE, { count: behind, song: title }));
  if (count > LIMITS.bars) {
    report.push(problem('smf.too-long', 'error', NOWHERE, { bars: count, limit: LIMITS.bars }));
    return undefined;
  }
  if (framed && file.division.kind === 'frames') {
    const { frames, ticks } = file.division;
    report.push(problem('smf.smpte', 'note', NOWHERE, { frames, ticks }));
  }
  const left = events.filter((e) => leftOut(e)).length;
  if (left > 0)
    report.push(problem('smf.left-out', 'note', NOWHERE, { what: 'lyrics, keys and remarks', count: left }));
  const song = {
    ...base,
    bars: count,
    tempo: framed ? base.tempo : tempoMarks(events, inSong),
    metre,
    sections: sections(events, inSong, bars, count, report),
  };
  // What comes a hair behind the last bar belongs to its last tick, and is sent at its own time all the same.
  const time = songTime(song);
  const shiftOf = (tick: Ticks): number => (microsAt(time, tick) - microsAt(time, end - 1)) / 1000;
  const cueOf = (h: Heard, i: number): Cue => {
    const bare = messageCue(`c${i + 1}`, Math.min(h.tick, end - 1), unitOf(h), toHex(h.bytes));
    return h.tick < end ? bare : { ...bare, shift: shiftOf(h.tick) };
  };
  return { ...song, cues: heard.map(cueOf) };
}

/** So many ticks after the last bar line still belong to the bar before it. */
const LAST_MOMENT: Ticks = TICKS_PER_QUARTER / 32;

/** A bar that only touches the last message with its first tick still counts: the message is in it. */
function countBars(bars: ReturnType<typeof buildBarMap>, last: Ticks): number {
  const bar = barOfTick(bars, last);
  return Math.max(1, bar.tick < last || last === 0 ? bar.bar : bar.bar - 1);
}

function leftOut(event: SmfEvent): boolean {
  if (event.kind === 'meta') return true;
  return event.kind === 'text' && !['track-name', 'port-name', 'marker'].includes(event.type);
}

/** The name of the first track is that of the piece (SMF 1.0, FF 03), but where it is one instrument's among others. */
function songTitle({ format, tracks }: SmfFile, title: string): string {
  const first = tracks[0]!;
  const conductor = first.events.every((e) => e.kind !== 'message' && e.kind !== 'packet');
  return asTitle(((format === 0 || conductor) && nameOf(first)) || title, title);
}

function nameOf(track: SmfTrack): string {
  const name = track.events.find((e) => e.kind === 'text' && e.type === 'track-name');
  return name?.kind === 'text' ? name.text.trim() : '';
}

/** A title that others have too, with its number: songs are told apart by their titles. */
function numbered(titles: readonly string[], i: number): string {
  const title = asTitle(titles[i]!, 'Song').slice(0, LIMITS.title - ROOM_BEHIND);
  const free = (text: string): boolean => !titles.some((t, k) => k !== i && t === text);
  if (free(title)) return title;
  let text = `${title} ${i + 1}`;
  while (!free(text)) text += ` (${i + 1})`;
  return text;
}

function tempoMarks(events: readonly SmfEvent[], inSong: (tick: number) => Ticks): Song['tempo'] {
  const marks: { at: Ticks; bpm: number; beat: number; rampTo: null }[] = [];
  for (const event of events) {
    if (event.kind !== 'tempo') continue;
    const mark = { at: inSong(event.tick), bpm: 60e6 / event.micros, beat: 1, rampTo: null };
    // The last of several on one tick is the one that counts.
    if (marks.at(-1)?.at === mark.at) marks.pop();
    if (marks.at(-1)?.bpm !== mark.bpm) marks.push(mark);
  }
  if (marks[0]?.at !== 0) marks.unshift({ at: 0, bpm: 120, beat: 1, rampTo: null });
  return marks;
}

/** A metre change inside a bar moves to the next bar line: the messages stay where they are, only the count differs. */
function metreMarks(events: readonly SmfEvent[], inSong: (tick: number) => Ticks, report: Problem[]): Song['metre'] {
  type Unit_ = Song['metre'][number]['unit'];
  const marks: { bar: number; beats: number; unit: Unit_ }[] = [{ bar: 1, beats: 4, unit: 4 }];
  let runTick = 0;
  for (const event of events) {
    if (event.kind !== 'metre') continue;
    const last = marks.at(-1)!;
    const length = (last.beats * TICKS_PER_QUARTER * 4) / last.unit;
    const passed = (inSong(event.tick) - runTick) / length;
    const whole = Math.max(0, Math.ceil(passed - 1e-6));
    const bar = last.bar + whole;
    if (bar > LIMITS.bars) break;
    if (Math.abs(whole - passed) > 1e-6) {
      report.push(problem('smf.metre-moved', 'warning', NOWHERE, { bar }));
    }
    runTick += whole * length;
    if (bar === last.bar) marks.pop();
    const before = marks.at(-1);
    const same = before?.beats === event.beats && before.unit === event.unit;
    if (same) {
      // Nothing changes; go on counting from the mark that stands.
      runTick -= (bar - before.bar) * ((before.beats * TICKS_PER_QUARTER * 4) / before.unit);
    } else marks.push({ bar, beats: event.beats, unit: event.unit });
  }
  return marks;
}

function sections(
  events: readonly SmfEvent[],
  inSong: (tick: number) => Ticks,
  bars: ReturnType<typeof buildBarMap>,
  count: number,
  report: Problem[],
): Section[] {
  const found: Section[] = [];
  for (const event of events) {
    if (event.kind !== 'text' || event.type !== 'marker') continue;
    const name = asTitle(event.text, 'Section');
    const tick = inSong(event.tick);
    const bar = Math.min(count, barOfTick(bars, tick + 1e-6).bar);
    if (Math.abs(barStart(bars, bar) - tick) > 1) {
      report.push(problem('smf.marker-moved', 'note', NOWHERE, { name, bar }));
    }
    if (found.length < LIMITS.sections) found.push(newSection(`section-${found.length + 1}`, name, bar));
  }
  return found;
}
