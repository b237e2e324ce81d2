import { valueRange } from '../../addressing';
import { extent } from '../../groups';
import { barAt, barOfTick, type Ticks } from '../../time';
import { toneCue } from '../builders';
import type { Edit } from '../edits';
import { indexShow, openingOf } from '../find';
import { sectionBars } from '../frame';
import type { Cue, Show, Song } from '../schema';
import { songTime } from '../songTime';

function setCues(song: Song, cues: readonly Cue[]): Edit | null {
  const after = cues.toSorted((a, b) => a.at - b.at);
  if (after.length === song.cues.length && after.every((c, i) => c === song.cues[i])) return null;
  return { kind: 'set', path: ['songs', { id: song.id }, 'cues'], before: song.cues, after };
}

/** Moves cues by so many ticks; none goes before the start. Null when nothing would move. */
export function shiftCues(show: Show, songId: string, ids: ReadonlySet<string>, by: Ticks): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const moved = song?.cues.filter((c) => ids.has(c.id)) ?? [];
  if (!song || moved.length === 0) return null;
  const least = Math.max(by, -extent(moved.map((c) => c.at))[0]);
  if (least === 0) return null;
  return setCues(
    song,
    song.cues.map((c) => (ids.has(c.id) ? { ...c, at: c.at + least } : c)),
  );
}

/** A tone that was pressed while a song ran, and where. */
export interface Press {
  readonly at: Ticks;
  readonly toneId: string;
}

/**
 * Puts tones that were pressed while the song ran into it. Where a tone stands already it gives way to
 * the one that was pressed, and of two that were pressed for one place the later counts. Null without any.
 */
export function writeTones(show: Show, songId: string, presses: readonly Press[], newId: () => string): Edit | null {
  const { songs, tones } = indexShow(show);
  const song = songs.get(songId);
  const pressed = new Map(presses.filter((p) => tones.has(p.toneId)).map((p) => [p.at, p.toneId]));
  if (!song || pressed.size === 0) return null;
  const gives = (c: Cue): boolean => c.action.kind === 'tone' && pressed.has(c.at);
  const written = [...pressed].map(([at, toneId]) => toneCue(newId(), at, toneId));
  return setCues(song, [...song.cues.filter((c) => !gives(c)), ...written]);
}

/** Removes several cues at once. Null where the song is missing or none of them is in it. */
export function removeCues(show: Show, songId: string, ids: ReadonlySet<string>): Edit | null {
  const song = indexShow(show).songs.get(songId);
  return song
    ? setCues(
        song,
        song.cues.filter((c) => !ids.has(c.id)),
      )
    : null;
}

/** Mutes several cues, or lets them sound again. Null where nothing would change. */
export function muteCues(show: Show, songId: string, ids: ReadonlySet<string>, muted: boolean): Edit | null {
  const song = indexShow(show).songs.get(songId);
  return song
    ? setCues(
        song,
        song.cues.map((c) => (ids.has(c.id) && c.muted !== muted ? { ...c, muted } : c)),
      )
    : null;
}

/** Puts copies of cues into a song, the first at `at` and the others as far from it as they were. */
export function pasteCues(
  show: Show,
  songId: string,
  cues: readonly Cue[],
  at: Ticks,
  newId: () => string,
): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song || cues.length === 0) return null;
  const [first] = extent(cues.map((c) => c.at));
  return setCues(song, [...song.cues, ...cues.map((c) => ({ ...c, id: newId(), at: c.at - first + at }))]);
}

/**
 * Exchanges what cues do, where they stand: place, shift, landing and whether they are muted stay, and
 * a tone in place of a tone is loaded again where the other was. Null when nothing would change.
 */
export function exchangeActions(
  show: Show,
  songId: string,
  ids: ReadonlySet<string>,
  action: Cue['action'],
): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song) return null;
  const inPlaceOf = (old: Cue['action']): Cue['action'] =>
    action.kind === 'tone' && old.kind === 'tone' ? { ...action, reload: old.reload } : action;
  return setCues(
    song,
    song.cues.map((c) => {
      if (!ids.has(c.id)) return c;
      const after = { ...c, action: inPlaceOf(c.action) };
      return sameAction(c, after) ? c : after;
    }),
  );
}

/** Changes the values that cues set by so many steps of their control, as far as its range goes. Null when none would change. */
export function stepValues(show: Show, songId: string, ids: ReadonlySet<string>, steps: number): Edit | null {
  const { songs, units } = indexShow(show);
  const song = songs.get(songId);
  if (!song) return null;
  const stepped = (action: Cue['action']): Cue['action'] => {
    if (action.kind !== 'control') return action;
    const control = units.get(action.unitId)?.profile.controls.find((c) => c.id === action.controlId);
    if (!control) return action;
    const { low, high, step } = valueRange(control.encoding);
    // A line without steps goes by figures as one says them: by ones, or by hundredths of a short range.
    const by = step || (high - low >= 20 ? 1 : (high - low) / 100);
    const value = Math.round((action.value + steps * by) * 1e6) / 1e6;
    return { ...action, value: Math.max(low, Math.min(high, value)) };
  };
  return setCues(
    song,
    song.cues.map((c) => {
      if (!ids.has(c.id)) return c;
      const after = { ...c, action: stepped(c.action) };
      return sameAction(c, after) ? c : after;
    }),
  );
}

/** The tone cues that stand on a place and sound: what is put there besides them changes the same units. */
export const tonesOn = (song: Song, at: Ticks): readonly Cue[] =>
  song.cues.filter((c) => c.at === at && c.action.kind === 'tone' && !c.muted);

/** Puts one tone in the place of another, in one song or in all; openings too. */
export function replaceTone(show: Show, fromId: string, toId: string, songId: string | null): Edit | null {
  if (fromId === toId || !indexShow(show).tones.has(toId)) return null;
  const edits: Edit[] = [];
  for (const song of show.songs) {
    if (songId !== null && song.id !== songId) continue;
    const cues = song.cues.map((c): Cue => {
      const { action } = c;
      return action.kind === 'tone' && action.toneId === fromId ? { ...c, action: { ...action, toneId: toId } } : c;
    });
    const edit = setCues(song, cues);
    if (edit) edits.push(edit);
    if (song.openingToneId === fromId) {
      edits.push({ kind: 'set', path: ['songs', { id: song.id }, 'openingToneId'], before: fromId, after: toId });
    }
  }
  if (songId === null && show.openingToneId === fromId) {
    edits.push({ kind: 'set', path: ['openingToneId'], before: fromId, after: toId });
  }
  return edits.length === 0 ? null : { kind: 'group', edits };
}

/**
 * Copies a song's changes to another by section: what stands in a section of the one comes
 * into the section of the same name in the other (the second of a name into the second), at
 * the same bar and beat of it. What the other has already at that place stays alone; an
 * opening is taken over where it has none.
 */
export function copyBySection(show: Show, fromId: string, toId: string, newId: () => string): Edit | null {
  const { songs } = indexShow(show);
  const from = songs.get(fromId);
  const to = songs.get(toId);
  if (!from || !to || fromId === toId) return null;
  const added: Cue[] = [];
  for (const { source, target } of samePlaces(from, to)) {
    for (const cue of source.cues) {
      const at = placeIn(from, source.first, to, target, cue.at);
      if (at === undefined || to.cues.some((c) => c.at === at && sameAction(c, cue))) continue;
      added.push({ ...cue, id: newId(), at });
    }
  }
  const edits: Edit[] = [];
  const cues = setCues(to, [...to.cues, ...added]);
  if (cues) edits.push(cues);
  if (openingOf(show, to) === null && from.openingToneId !== null) {
    edits.push({
      kind: 'set',
      path: ['songs', { id: toId }, 'openingToneId'],
      before: to.openingToneId,
      after: from.openingToneId,
    });
    if (to.opening === 'show') {
      edits.push({ kind: 'set', path: ['songs', { id: toId }, 'opening'], before: 'show', after: 'own' });
    }
  }
  return edits.length === 0 ? null : { kind: 'group', edits };
}

const sameAction = (a: Cue, b: Cue): boolean => JSON.stringify(a.action) === JSON.stringify(b.action);

interface Bars {
  readonly first: number;
  readonly count: number;
}

/** Sections of two songs that have the same name, the first with the first, with the cues of the one. */
function samePlaces(from: Song, to: Song): { source: Bars & { cues: readonly Cue[] }; target: Bars }[] {
  const named = (song: Song, name: string) =>
    song.sections.filter((s) => s.name.trim().toLowerCase() === name.trim().toLowerCase());
  return from.sections.flatMap((section) => {
    const source = sectionBars(from, section.id);
    const twin = named(to, section.name)[named(from, section.name).indexOf(section)];
    const target = twin && sectionBars(to, twin.id);
    if (!source || !target) return [];
    const { bars } = songTime(from);
    const start = barAt(bars, source.first).tick;
    const end = barAt(bars, source.first + source.count).tick;
    return [{ source: { ...source, cues: from.cues.filter((c) => c.at >= start && c.at < end) }, target }];
  });
}

/** The same bar and beat of another section; undefined where that section or bar is too short. */
function placeIn(from: Song, first: number, to: Song, target: Bars, at: Ticks): Ticks | undefined {
  const old = barOfTick(songTime(from).bars, at);
  const into = old.bar - first;
  if (into >= target.count) return undefined;
  const now = barAt(songTime(to).bars, target.first + into);
  const offset = at - old.tick;
  return offset < now.length ? now.tick + offset : undefined;
}
