import { catchUp, compileSong, stateAt, type PlayLine } from '../core/compile';
import { moments, rigSpec, routeTo, stopsOf } from '../core/meaning';
import { controlChange, fromHex, wholeMessages, type TimedBytes } from '../core/midi';
import type { RigState } from '../core/rig';
import {
  actionCue,
  indexShow,
  microsAt,
  newSong,
  setOf,
  songEntries,
  songTime,
  type Cue,
  type Show,
  type Song,
  type SongEntry,
} from '../core/show';
import type { Micros, Ticks } from '../core/time';

/** A song that was played, or plays, with clock times. */
export interface Played {
  readonly entryId: string | null;
  readonly songId: string;
  readonly title: string;
  readonly at: Micros;
  /** Null while it plays. */
  readonly until: Micros | null;
  readonly how: Start;
  /** The start was taken back: it does not count as played. */
  readonly struck: boolean;
}

/** What started a song: somebody, the song before it, a message, or time code. */
export type Start = 'asked' | 'follows' | 'launched' | 'code';

/** So many songs are remembered. */
const REMEMBERED = 200;

export const withStart = (history: readonly Played[], played: Played): readonly Played[] =>
  [...history, played].slice(-REMEMBERED);

/** The song that played is over. */
export const withEnd = (history: readonly Played[], now: Micros): readonly Played[] =>
  history.map((p) => (p.until === null ? { ...p, until: now } : p));

/** The last start was taken back. */
export const withStruck = (history: readonly Played[], now: Micros): readonly Played[] =>
  withEnd(history, now).map((p, i, all) => (i === all.length - 1 ? { ...p, struck: true } : p));

/** An entry of the set by its id, if it is a song. */
export function entryOf(show: Show, id: string | null): SongEntry | undefined {
  const entry = setOf(show).entries.find((e) => e.id === id);
  return entry?.kind === 'song' ? entry : undefined;
}

/** Where a song stands in the set: where the session is, if that is it; null where it is not in it. */
export function entryFor(
  { show, entryId }: { readonly show: Show | null; readonly entryId: string | null },
  songId: string,
): string | null {
  if (!show) return null;
  if (entryOf(show, entryId)?.songId === songId) return entryId;
  return songEntries(show).find((e) => e.songId === songId)?.id ?? null;
}

/** The song `by` places further in the set; from nowhere, the first. Breaks and notes are passed over. */
export function entryBy(show: Show, id: string | null, by: 1 | -1): SongEntry | undefined {
  const songs = setOf(show).entries.filter((e): e is SongEntry => e.kind === 'song');
  const at = songs.findIndex((e) => e.id === id);
  return at < 0 ? songs[0] : songs[at + by];
}

/** Places of a song at which something changes, in their order; the first is its start. */
export const changePlaces = (show: Show, song: Song): readonly Ticks[] => stopsOf(show, song).map((s) => s.at);

/** The change before or behind a place; the last and the first stay where they are. */
export function changeBy(show: Show, song: Song, from: Ticks, by: 1 | -1): Ticks {
  const places = changePlaces(show, song);
  // Who was in the count-in is at the start already.
  const at = Math.max(0, from);
  if (by > 0) return places.find((p) => p > at + 1) ?? places.at(-1)!;
  return places.findLast((p) => p < at - 1) ?? 0;
}

/** What brings the rig to a place of a song that does not run: its state there, and what is pressed just there. From 0 on. */
export function toPlace(show: Show, song: Song, at: Ticks, eventual: RigState): readonly TimedBytes[] {
  const place = microsAt(songTime(song), at);
  const { events, length } = catchUp(show, eventual, stateAt(show, song, at));
  const pressed = moments(show, song).flatMap(({ id, source, due, action }): TimedBytes[] => {
    if (source !== 'cue' || action.kind !== 'message' || Math.abs(due - place) > 1) return [];
    const unit = indexShow(show).units.get(action.unitId);
    const route = unit && routeTo(show, unit);
    if (!route) return [];
    return [{ at: length, portId: route.portId, bytes: fromHex(action.bytes)!, cueId: id, unitId: action.unitId }];
  });
  return [...events, ...pressed];
}

/** Messages that bring the rig to a tone from its eventual state, as soon as units accept them. Times from 0. */
export function toTone(show: Show, toneId: string, eventual: RigState): readonly TimedBytes[] {
  const song: Song = { ...newSong('bridge', 'Bridge', { bars: 1 }), openingToneId: toneId };
  const { events } = compileSong(show, song, eventual);
  const first = events[0]?.at ?? 0;
  return events.map((e) => ({ ...e, at: e.at - first }));
}

/** What a named action sends, done now. From 0 on. */
export function toMove(show: Show, moveId: string, eventual: RigState, bpm: number | null): readonly TimedBytes[] {
  const cue: Cue = { ...actionCue('move', 0, { kind: 'move', moveId }), landing: 'sent' };
  const song: Song = { ...newSong('move', 'Move', { bars: 16, ...(bpm === null ? {} : { bpm }) }), cues: [cue] };
  const { events } = compileSong(show, song, eventual);
  const first = events[0]?.at ?? 0;
  return events.map((e) => ({ ...e, at: e.at - first }));
}

/** MIDI 1.0, channel mode messages: all sound off, all notes off. */
const SILENCE = [120, 123] as const;

/** Nothing may sound on from any unit that is reached: what its map says, or all sound off and all notes off on its channel. */
export function silence(show: Show): readonly TimedBytes[] {
  const ports = new Set(rigSpec(show).ports.map((p) => p.id));
  return show.units.flatMap((unit) => {
    const route = routeTo(show, unit);
    if (!route || !ports.has(route.portId)) return [];
    const { portId } = route;
    const { usual, bytes } = unit.profile.silence;
    const messages = usual ? SILENCE.map((control) => controlChange(unit.channel, control, 0)) : [];
    const own = (wholeMessages(fromHex(bytes) ?? []) ?? []).concat(messages);
    return own.map((message) => ({ at: 0, portId, bytes: message, cueId: '', unitId: unit.id }));
  });
}

/** When a song that follows by itself begins, its own time before it counted: no sooner than its messages allow. */
export const zeroOf = (line: PlayLine, now: Micros, at: Micros | null): Micros =>
  Math.max(now - line.start, at ?? Number.NEGATIVE_INFINITY);
