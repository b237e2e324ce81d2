import { append, entry } from '../../../groups';
import { fromHex, toHex } from '../../../midi';
import { NOWHERE, problem, type Problem } from '../../../problems';
import {
  actionCue,
  addSong,
  indexShow,
  messageCue,
  microsAt,
  songTime,
  type Cue,
  type Edit,
  type Port,
  type Show,
  type Song,
  type Unit,
} from '../../../show';
import { barAt, formatPosition, type Ticks } from '../../../time';
import { Reader, type Event } from './reader';
import { groupsOf, rampsOf, sweepsOf } from './runs';
import { ToneFinder } from './toneFinder';

/** What a song from a file would mean for the show. */
export interface Imported {
  readonly edit: Edit;
  readonly song: Song;
  readonly problems: readonly Problem[];
  readonly report: {
    /** Places where a tone of the show was recognised. */
    readonly tonesFound: number;
    /** Names of tones that were made. */
    readonly tonesMade: readonly string[];
    readonly controls: number;
    readonly sweeps: number;
    /** Ramps through a selector, and whether they became steps. */
    readonly ramps: number;
    readonly raw: number;
    readonly unitsMade: readonly string[];
  };
}

/**
 * A song of a file as a song of the show: programs, variants and controls named through the
 * map, changes that are together as tones, runs of values as sweeps, and everything that the
 * map has no name for as it stands. With `steps`, a ramp that a file draws through a selector
 * becomes one step, to where it ends.
 */
export function songIntoShow(
  show: Show,
  plain: Show,
  song: Song,
  places: ReadonlyMap<string, string | null>,
  steps: boolean,
  newId: () => string,
): Imported {
  const guests = guestUnits(show, plain, song, places, newId);
  const { units } = indexShow(show);
  const target = (plainId: string): Unit => units.get(places.get(plainId) ?? '') ?? guests.unitOf.get(plainId)!;
  const time = songTime(song);
  const where = (at: Ticks): string => formatPosition(time.bars, at, song.bars);

  const { events, problems } = eventsOf(song, target, (unit) => units.has(unit.id), where);
  const ramps = rampsOf(events);
  for (const { unit, what, first, last } of ramps) {
    const data = { unit: unit.name, what, from: where(first.at), to: where(last.at), steps };
    problems.push(problem('smf.selector-ramp', 'warning', NOWHERE, data));
  }
  const passed = ramps.flatMap((r) => r.passed);
  const sweeps = sweepsOf(events, newId);
  const dropped = new Set<Event>([...passed, ...sweeps.taken]);
  const rest = events.filter((e) => !dropped.has(e));

  const tones = new ToneFinder(show, newId);
  // The steps of a ramp are no sounds of their own: kept, they stand as the bytes that they are.
  const raw = [...rest, ...(steps ? [] : passed)].flatMap((e) =>
    e.kind === 'raw' || dropped.has(e) ? [messageCue(newId(), e.at, e.unit.id, toHex(e.bytes))] : [],
  );
  const placed = placeGroups(
    groupsOf(rest, (at) => microsAt(time, at)),
    tones,
    newId,
  );

  const framed = withPickup(song);
  const made: Song = {
    ...framed,
    id: newId(),
    sections: framed.sections.map((s) => ({ ...s, id: newId() })),
    openingToneId: placed.openingToneId,
    cues: [...raw, ...placed.cues].sort((a, b) => a.at - b.at),
    sweeps: sweeps.made,
    click: { on: true, countIn: 1, parts: 1 },
  };
  const added = (list: 'ports' | 'units' | 'tones', values: readonly unknown[]): Edit[] =>
    values.map((value, i) => ({ kind: 'insert', path: [list], index: show[list].length + i, value }));
  const edits: Edit[] = [
    ...added('ports', guests.ports),
    ...added('units', guests.units),
    ...tones.slotEdits(),
    ...added('tones', tones.made),
    addSong(show, made, newId()),
  ];
  return {
    edit: { kind: 'group', edits },
    song: made,
    problems,
    report: {
      tonesFound: placed.found,
      tonesMade: tones.made.map((t) => t.name),
      controls: placed.controls,
      sweeps: sweeps.made.length,
      ramps: ramps.length,
      raw: raw.length,
      unitsMade: guests.units.map((u) => u.name),
    },
  };
}

/** What a song's messages mean on the units that they go to, in order of time; for a unit of no show, as they stand. */
function eventsOf(
  song: Song,
  target: (plainId: string) => Unit,
  isKnown: (unit: Unit) => boolean,
  where: (at: Ticks) => string,
): { readonly events: Event[]; readonly problems: Problem[] } {
  const problems: Problem[] = [];
  const readers = new Map<string, Reader>();
  const events: Event[] = [];
  for (const cue of song.cues) {
    if (cue.action.kind !== 'message') continue;
    const unit = target(cue.action.unitId);
    const bytes = fromHex(cue.action.bytes)!;
    if (!isKnown(unit)) {
      events.push({ kind: 'raw', at: cue.at, unit, bytes });
      continue;
    }
    for (const event of entry(readers, unit.id, () => new Reader(unit)).read(cue.at, bytes)) {
      if (event.kind === 'raw' && event.noSlot) {
        problems.push(problem('smf.no-slot', 'warning', NOWHERE, { unit: unit.name, at: where(cue.at) }));
      }
      events.push(event);
    }
  }
  for (const reader of readers.values()) append(events, reader.leftOver());
  events.sort((a, b) => a.at - b.at);
  return { events, problems };
}

/** Changes that are together as tones, and values that belong to none as they are; the first tone at the start opens the song. */
function placeGroups(groups: ReturnType<typeof groupsOf>, tones: ToneFinder, newId: () => string) {
  const cues: Cue[] = [];
  let openingToneId: string | null = null;
  let controls = 0;
  let found = 0;
  for (const group of groups) {
    const at = group[0]!.at;
    const before = tones.made.length;
    const { tone, loose } = tones.take(group);
    if (tone) {
      if (tones.made.length === before) found += 1;
      if (at <= 1 && openingToneId === null) openingToneId = tone.id;
      else cues.push(actionCue(newId(), at, { kind: 'tone', toneId: tone.id, reload: false }));
    }
    for (const e of loose) {
      controls += 1;
      const action = { kind: 'control', unitId: e.unit.id, controlId: e.control.id, value: e.value } as const;
      cues.push(actionCue(newId(), e.at, action));
    }
  }
  return { cues, openingToneId, controls, found };
}

/** A first bar by itself that is shorter than the next is a pickup: a file has no other way to say so. */
function withPickup(song: Song): Song {
  const [first, second] = song.metre;
  if (!first || second?.bar !== 2 || song.pickup > 0) return song;
  const { bars } = songTime(song);
  const length = barAt(bars, 1).length;
  if (length >= barAt(bars, 2).length) return song;
  const back = <T extends { readonly bar: number }>(marks: readonly T[]): T[] =>
    marks.map((m) => ({ ...m, bar: m.bar - 1 }));
  return {
    ...song,
    pickup: length,
    bars: song.bars - 1,
    metre: back(song.metre.slice(1)),
    sections: back(song.sections),
    printed: back(song.printed),
  };
}

/** Units of the file that are no units of the show: they join it as they are, on ports of the same name where there are such. */
function guestUnits(
  show: Show,
  plain: Show,
  song: Song,
  places: ReadonlyMap<string, string | null>,
  newId: () => string,
): { readonly ports: Port[]; readonly units: Unit[]; readonly unitOf: ReadonlyMap<string, Unit> } {
  const used = new Set(song.cues.flatMap((c) => (c.action.kind === 'message' ? [c.action.unitId] : [])));
  const known = indexShow(show).units;
  const ports: Port[] = [];
  const units: Unit[] = [];
  const unitOf = new Map<string, Unit>();
  const portFor = (id: string): string => {
    const { name } = indexShow(plain).ports.get(id)!;
    const port = [...show.ports, ...ports].find((p) => p.name === name);
    if (port) return port.id;
    const made = { ...indexShow(plain).ports.get(id)!, id: newId() };
    ports.push(made);
    return made.id;
  };
  for (const unit of plain.units) {
    if (!used.has(unit.id) || known.has(places.get(unit.id) ?? '')) continue;
    const input = unit.input?.from === 'port' ? { ...unit.input, portId: portFor(unit.input.portId) } : null;
    const guest: Unit = { ...unit, id: newId(), input };
    units.push(guest);
    unitOf.set(unit.id, guest);
  }
  return { ports, units, unitOf };
}
