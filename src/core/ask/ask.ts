import { addressOf, controlNumberOf, indexOfAddress, indexOfLabel, slotCount } from '../addressing';
import { compileSong, stateAt } from '../compile';
import { MessageReader, contextOf, toneAims } from '../meaning';
import { UNKNOWN_STATE } from '../rig';
import { fromHex, type Bytes } from '../midi';
import {
  indexShow,
  microsAt,
  openingOf,
  setTimes,
  songTime,
  songsOfSet,
  type Show,
  type Song,
  type Unit,
} from '../show';
import { changesFor } from '../tonight';
import { barOfTick, parsePosition, type PositionProblem, type Ticks } from '../time';
import type { Answer } from './answer';

/** What a question is asked beside. */
interface AskedIn {
  /** The song that stands: bars are bars of it; null for the first of the set. */
  readonly songId: string | null;
}

/** So many answers of a kind, and of all. */
const OF_A_KIND = 6;
const IN_ALL = 14;

/** Fewer letters than this are a part of too many names. */
const SHORTEST = 2;

/**
 * What a question comes to, the likeliest first: a bar (`58`, `58(2)`, `58 harrow`, `bytes 58`), a program in a counting
 * (`program 41`, `40 from 0`), a label (`H6`), a control number (`CC 85`), messages in hexadecimal (`B0 55 02`), or a part
 * of a name of a preset, tone, song, unit, player, port or switch. Empty where nothing is meant.
 */
export function ask(show: Show, question: string, { songId }: AskedIn): readonly Answer[] {
  const text = question.trim();
  if (text === '') return [];
  const song = indexShow(show).songs.get(songId ?? '') ?? songsOfSet(show)[0] ?? show.songs[0];
  return [
    ...(song ? aboutPlace(show, song, text) : []),
    ...aboutProgram(show, text),
    ...aboutLabel(show, text),
    ...aboutControl(show, text),
    ...aboutMessage(show, text),
    ...aboutNames(show, text.toLowerCase()),
  ].slice(0, IN_ALL);
}

const PLACE = /^(bytes\s+)?(-?\d+(?:\(\d+\))?(?:\s*\|\s*[\d.]+)?)(?:\s+(\S.*))?$/i;

function aboutPlace(show: Show, song: Song, text: string): readonly Answer[] {
  const found = PLACE.exec(text);
  if (!found) return [];
  const [, bytes, where, rest] = found;
  const { bars } = songTime(song);
  const parsed = parsePosition(bars, where!, song.bars);
  if (!parsed.ok) return rest === undefined ? notThere(show, song, parsed.problem) : [];
  const at = parsed.ticks;
  if (bytes !== undefined) return rest === undefined ? [sentAt(show, song, at)] : [];
  if (rest !== undefined) {
    const unit = show.units.find((u) => names(u, rest.toLowerCase()));
    if (!unit) return [];
    const state = stateAt(show, song, at)[unit.id] ?? UNKNOWN_STATE;
    return [
      { kind: 'unit-there', songId: song.id, at, unitId: unit.id, state, cueId: lastCue(show, song, at, unit.id) },
    ];
  }
  // A number that is printed twice is two places.
  const times = [at, ...again(song, where!)];
  return times.map((t) => placeAnswer(show, song, t));
}

/** What is wrong with a place, and the place that may be meant. */
function notThere(show: Show, song: Song, problem: PositionProblem): readonly Answer[] {
  const meant = problem.code === 'bar' ? parsePosition(songTime(song).bars, problem.meant, song.bars) : undefined;
  return [{ kind: 'no-place', songId: song.id, problem }, ...(meant?.ok ? [placeAnswer(show, song, meant.ticks)] : [])];
}

const names = ({ name, monogram }: Unit, part: string): boolean =>
  name.toLowerCase().includes(part) || monogram.toLowerCase() === part;

/** The other bars that are printed with the same number, from the second on. */
function again(song: Song, where: string): readonly Ticks[] {
  if (!/^\d+$/.test(where)) return [];
  const { bars } = songTime(song);
  const found: Ticks[] = [];
  for (let time = 2; time <= OF_A_KIND; time++) {
    const parsed = parsePosition(bars, `${where}(${time})`, song.bars);
    if (!parsed.ok) break;
    found.push(parsed.ticks);
  }
  return found;
}

function placeAnswer(show: Show, song: Song, at: Ticks): Answer {
  const rig = stateAt(show, song, at);
  const last = song.cues.filter((c) => !c.muted && c.at <= at && c.action.kind === 'tone').at(-1);
  const toneId = last?.action.kind === 'tone' ? last.action.toneId : openingOf(show, song);
  const known = show.units.flatMap(({ id }) => {
    const state = rig[id];
    return state && state.slot !== null ? [{ unitId: id, state }] : [];
  });
  return { kind: 'place', songId: song.id, at, toneId, rig: known };
}

/** The last cue up to a place that wants something of a unit. */
function lastCue(show: Show, song: Song, at: Ticks, unitId: string): string | null {
  const { tones } = indexShow(show);
  const wants = song.cues.filter(
    ({ at: t, muted, action }) =>
      !muted && t <= at && action.kind === 'tone' && tones.get(action.toneId)?.parts.some((p) => p.unitId === unitId),
  );
  return wants.at(-1)?.id ?? null;
}

/** What leaves for the cues of the bar that a place is in. */
function sentAt(show: Show, song: Song, at: Ticks): Answer {
  const time = songTime(song);
  const bar = (t: Ticks): number => barOfTick(time.bars, t).bar;
  const cues = new Map(song.cues.filter((c) => !c.muted && bar(c.at) === bar(at)).map((c) => [c.id, c.at]));
  const sent = compileSong(show, song).events.flatMap(({ cueId, unitId, bytes, at: leaves }) => {
    const due = cues.get(cueId);
    return due === undefined ? [] : [{ unitId, bytes, before: (microsAt(time, due) - leaves) / 1e6 }];
  });
  return { kind: 'sent', songId: song.id, at, sent };
}

const PROGRAM = /^(?:program|pc)\s*(\d+)(?:\s+from\s+([01]))?$/i;
const FROM = /^(\d+)\s+from\s+([01])$/i;

/** Presets of the units that a program number means, counted from 1 where nothing is said. */
function aboutProgram(show: Show, text: string): readonly Answer[] {
  const found = PROGRAM.exec(text) ?? FROM.exec(text);
  if (!found) return [];
  const number = Number(found[1]) - (found[2] === undefined ? 1 : Number(found[2]));
  return show.units.flatMap((unit) => {
    const { plan } = unit.profile;
    const indexes = unit.slots.filter((s) => addressOf(plan, s.index)?.program === number).map((s) => s.index);
    const first = indexOfAddress(plan, { bank: 0, program: number });
    const all = indexes.length > 0 || first === undefined || unit.profile.senders.length > 0 ? indexes : [first];
    return all.slice(0, OF_A_KIND).map((index) => slotAnswer(show, unit, index));
  });
}

/** Presets that are written so on their unit. */
const aboutLabel = (show: Show, text: string): readonly Answer[] =>
  /\d/.test(text)
    ? show.units.flatMap((unit) => {
        const index = slotCount(unit.profile.plan) > 0 ? indexOfLabel(unit.profile.plan, text) : undefined;
        const named = index !== undefined && unit.slots.some((s) => s.index === index);
        // A number alone is a label of nearly every unit: only presets that have a name are meant.
        return index === undefined || (!named && /^\d+$/.test(text)) ? [] : [slotAnswer(show, unit, index)];
      })
    : [];

function slotAnswer(show: Show, unit: Unit, index: number): Answer {
  // What relay rules take a unit to counts as much as what a tone names.
  const toneIds = show.tones.filter((t) => toneAims(show, t).get(unit.id)?.slot === index).map((t) => t.id);
  return { kind: 'slot', unitId: unit.id, index, toneIds, songIds: songsWith(show, new Set(toneIds)) };
}

/** Songs that place one of some tones, or open with one. */
function songsWith(show: Show, toneIds: ReadonlySet<string>): readonly string[] {
  if (toneIds.size === 0) return [];
  return show.songs
    .filter((song) => {
      const opening = openingOf(show, song);
      if (opening !== null && toneIds.has(opening)) return true;
      return song.cues.some((c) => c.action.kind === 'tone' && toneIds.has(c.action.toneId));
    })
    .map((s) => s.id);
}

function aboutControl(show: Show, text: string): readonly Answer[] {
  const found = /^(?:cc|control)\s*(\d+)$/i.exec(text);
  if (!found) return [];
  const number = Number(found[1]);
  return show.units.flatMap(({ id: unitId, profile: { variants, controls } }): Answer[] => [
    ...(variants && controlNumberOf(variants.encoding) === number
      ? [{ kind: 'control', unitId, controlId: null } as const]
      : []),
    ...controls
      .filter((c) => controlNumberOf(c.encoding) === number)
      .map((c): Answer => ({ kind: 'control', unitId, controlId: c.id })),
  ]);
}

function aboutMessage(show: Show, text: string): readonly Answer[] {
  const bytes = /^[0-9a-f]{2}(\s*[0-9a-f]{2})+$/i.test(text) ? fromHex(text) : undefined;
  if (!bytes || bytes[0]! < 0x80) return [];
  return show.ports.flatMap((port): Answer[] => {
    const meanings = meant(show, port.id, bytes);
    return meanings.length === 0 ? [] : [{ kind: 'message', portId: port.id, bytes, meanings }];
  });
}

const meant = (show: Show, portId: string, bytes: Bytes): ReturnType<MessageReader['read']> =>
  new MessageReader(show).read('out', portId, bytes);

/** What has the text in its name, the names that begin so first. */
function aboutNames(show: Show, part: string): readonly Answer[] {
  if (part.length < SHORTEST) return [];
  const hits = <T>(list: readonly T[], nameOf: (of: T) => string): readonly T[] =>
    list
      .filter((of) => nameOf(of).toLowerCase().includes(part))
      .toSorted(
        (a, b) => Number(nameOf(b).toLowerCase().startsWith(part)) - Number(nameOf(a).toLowerCase().startsWith(part)),
      )
      .slice(0, OF_A_KIND);
  return [
    ...hits(show.tones, (t) => t.name).map((t): Answer => ({
      kind: 'tone',
      toneId: t.id,
      songIds: songsWith(show, new Set([t.id])),
    })),
    ...hits(show.songs, (s) => s.title).map((s) => songAnswer(show, s)),
    ...hits(show.units, (u) => `${u.name} ${u.monogram}`).map((u) => unitAnswer(show, u)),
    ...hits(show.players, (p) => p.name).map((p): Answer => ({
      kind: 'player',
      playerId: p.id,
      unitIds: show.units.filter((u) => u.playerId === p.id).map((u) => u.id),
    })),
    ...hits(show.ports, (p) => p.name).map((p): Answer => ({
      kind: 'port',
      portId: p.id,
      unitIds: hangOn(show, p.id),
    })),
    ...hits(
      show.units.flatMap((unit) => unit.slots.map((slot) => ({ unit, slot }))),
      ({ slot }) => slot.name,
    ).map(({ unit, slot }) => slotAnswer(show, unit, slot.index)),
    ...hits(
      show.units.flatMap((unit) => unit.profile.senders.map((sender) => ({ unit, sender }))),
      ({ unit, sender }) => `${sender.name} ${unit.name}`,
    ).map(({ unit, sender }) => switchAnswer(show, unit.id, sender.id)),
  ];
}

function songAnswer(show: Show, song: Song): Answer {
  const rows = setTimes(show).rows.filter((r) => r.entry.kind === 'song');
  const place = rows.findIndex((r) => r.entry.kind === 'song' && r.entry.songId === song.id);
  const next = rows[place + 1]?.entry;
  return {
    kind: 'song',
    songId: song.id,
    number: place < 0 ? null : place + 1,
    begins: rows[place]?.at ?? null,
    nextSongId: place >= 0 && next?.kind === 'song' ? next.songId : null,
  };
}

function unitAnswer(show: Show, unit: Unit): Answer {
  const left = changesFor(show, unit.id);
  return { kind: 'unit', unitId: unit.id, changes: left.reduce((sum, s) => sum + s.changes, 0), songs: left.length };
}

/** Units that a port reaches, directly or through others. */
function hangOn(show: Show, portId: string): readonly string[] {
  const { paths } = contextOf(show);
  return show.units.filter((u) => paths.get(u.id)?.portId === portId).map((u) => u.id);
}

function switchAnswer(show: Show, unitId: string, senderId: string): Answer {
  const feet = show.feet.find((f) => f.id === unitId);
  const layers = feet
    ? [{ pageId: null, layer: feet.everywhere }, ...feet.pages.map((p) => ({ pageId: p.id, layer: p }))]
    : [];
  const does = layers.flatMap(({ pageId, layer }) =>
    layer.switches
      .filter((s) => s.id === senderId)
      .flatMap((s) => s.doings.filter((d) => d.on === 'press').map((d) => ({ pageId, does: d.does }))),
  );
  return { kind: 'switch', unitId, senderId, does };
}
