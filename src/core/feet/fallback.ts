import { OPENING_CUE } from '../meaning';
import { cuesInOrder, indexShow, microsAt, openingOf, songTime, type Doing, type Show, type Song } from '../show';
import type { Micros, Ticks } from '../time';
import { footWays, pageOfSong, wayTo, type FootWays, type Press } from './ways';

/** From one press to the next, a foot takes so long. */
export const PRESS_TIME: Micros = 500_000;

/** One change of a song, done by foot. */
export interface FallbackStep {
  readonly cueId: string;
  readonly at: Ticks;
  readonly due: Micros;
  readonly does: Doing;
  /** What is pressed, in order; the last does it. Null where no switch does. */
  readonly presses: readonly Press[] | null;
  /** Time from the change before; null for the first. */
  readonly since: Micros | null;
}

/** A song, played by foot alone. */
export interface Fallback {
  readonly songId: string;
  readonly unitId: string;
  /** The page to be on before it begins. */
  readonly startPageId: string | null;
  readonly steps: readonly FallbackStep[];
  /** Cues and sweeps that no switch can do. */
  readonly left: { readonly controls: number; readonly messages: number; readonly sweeps: number };
}

/**
 * A song's changes as presses of a foot controller: each tone and each named action by the fewest presses from where the one before
 * left off. What is on already is not pressed again. Null where the unit is no foot controller.
 */
export function fallbackOf(show: Show, unitId: string, song: Song): Fallback | null {
  const ways = footWays(show, unitId);
  return ways && fallbackBy(show, ways, song);
}

interface Kept {
  readonly ways: FootWays;
  readonly opening: string | null;
  readonly fallback: Fallback;
}

const kept = new WeakMap<Song, Kept>();

/**
 * The steps by which a song is played by foot alone, from the page that it starts on. Kept for as long as song, ways
 * and opening are the same.
 */
export function fallbackBy(show: Show, ways: FootWays, song: Song): Fallback {
  const named = openingOf(show, song);
  const opening = named !== null && indexShow(show).tones.has(named) ? named : null;
  const known = kept.get(song);
  if (known?.ways === ways && known.opening === opening) return known.fallback;
  const fallback = makeFallback(ways, song, opening);
  kept.set(song, { ways, opening, fallback });
  return fallback;
}

function makeFallback(ways: FootWays, song: Song, opening: string | null): Fallback {
  const time = songTime(song);
  const start = pageOfSong(ways, song.id);
  const left = { controls: 0, messages: 0, sweeps: song.sweeps.filter((s) => !s.muted).length };
  const changes: { cueId: string; at: Ticks; due: Micros; does: Doing; again: boolean }[] = [];
  if (opening !== null) {
    changes.push({ cueId: OPENING_CUE, at: 0, due: 0, does: { kind: 'tone', toneId: opening }, again: false });
  }
  for (const { id, at, shift, muted, action } of cuesInOrder(song)) {
    if (muted) continue;
    const cue = { cueId: id, at, due: microsAt(time, at) + shift * 1000 };
    if (action.kind === 'tone')
      changes.push({ ...cue, does: { kind: 'tone', toneId: action.toneId }, again: action.reload });
    else if (action.kind === 'move')
      changes.push({ ...cue, does: { kind: 'move', moveId: action.moveId }, again: true });
    else if (action.kind === 'message') left.messages += 1;
    else {
      const { unitId, controlId, value } = action;
      const does: Doing = { kind: 'control', unitId, controlId, value };
      if (start && wayTo(ways, start.id, does)) changes.push({ ...cue, does, again: true });
      else left.controls += 1;
    }
  }
  // A stable sort: what is due at once stays in the order of the song.
  changes.sort((a, b) => a.due - b.due);
  const steps: FallbackStep[] = [];
  let at = start?.id;
  let on: string | null = null;
  let before: Micros | null = null;
  for (const { cueId, at: place, due, does, again } of changes) {
    if (does.kind === 'tone') {
      if (does.toneId === on && !again) continue;
      on = does.toneId;
    } else on = null;
    const way = at === undefined ? null : wayTo(ways, at, does);
    if (way) at = way.to;
    steps.push({
      cueId,
      at: place,
      due,
      does,
      presses: way?.presses ?? null,
      since: before === null ? null : due - before,
    });
    before = due;
  }
  return { songId: song.id, unitId: ways.unitId, startPageId: start?.id ?? null, steps, left };
}

/** Whether a foot has the time for a step: presses ahead of the last one have to be done since the change before. */
export const inTime = ({ presses, since }: FallbackStep): boolean =>
  presses === null || since === null || (presses.length - 1) * PRESS_TIME <= since;

/** How far a tone is from a foot. */
export interface Reach {
  readonly toneId: string;
  /** The song in which it takes most presses. */
  readonly songId: string;
  /** Null where no switch calls it. */
  readonly presses: number | null;
  /** Seconds that the foot has for it there, and that it needs. */
  readonly has: number | null;
  readonly needs: number;
}

/** Every tone of some songs: by how many presses, where it takes most, and in what time. */
export function reachOf(show: Show, unitId: string, songs: readonly Song[]): readonly Reach[] {
  const ways = footWays(show, unitId);
  if (!ways) return [];
  const worst = new Map<string, Reach>();
  for (const song of songs) {
    for (const { does, presses, since } of fallbackBy(show, ways, song).steps) {
      if (does.kind !== 'tone') continue;
      const needs = (Math.max(1, presses?.length ?? 1) - 1) * (PRESS_TIME / 1e6);
      const has = since === null ? null : since / 1e6;
      const reach = { toneId: does.toneId, songId: song.id, presses: presses?.length ?? null, has, needs };
      const was = worst.get(does.toneId);
      if (!was || farther(reach, was)) worst.set(does.toneId, reach);
    }
  }
  return [...worst.values()];
}

const UNREACHED = Number.POSITIVE_INFINITY;

/** More presses are farther; of as many, those for which there is less time. */
function farther(a: Reach, b: Reach): boolean {
  const [one, other] = [a.presses ?? UNREACHED, b.presses ?? UNREACHED];
  if (one !== other) return one > other;
  return (a.has ?? UNREACHED) - a.needs < (b.has ?? UNREACHED) - b.needs;
}
