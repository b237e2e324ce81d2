import { LIMITS } from '../limits';
import { isContinuous, valueRange, type Control } from '../../addressing';
import type { Ticks } from '../../time';
import type { Edit } from '../edits';
import { indexShow } from '../find';
import type { Move, Show, Sweep, TempoTaps, Unit } from '../schema';
import { SWEEP_SPACING } from '../builders';
import { unlinked } from './unlinked';

/** Controls of the rig that can be swept: those without steps. */
export const sweepable = (show: Show): { readonly unit: Unit; readonly control: Control }[] =>
  show.units.flatMap((unit) =>
    unit.profile.controls.filter((c) => isContinuous(c.encoding)).map((control) => ({ unit, control })),
  );

/** A sweep over all that a control can do, rising once. */
export function newSweep(id: string, unit: Unit, control: Control, from: Ticks, to: Ticks): Sweep {
  const { low, high } = valueRange(control.encoding);
  return {
    id,
    unitId: unit.id,
    controlId: control.id,
    from,
    to,
    muted: false,
    shape: { kind: 'wave', form: 'rise', low, high, period: Math.max(60, to - from), steps: 8 },
    switchId: null,
    spacing: SWEEP_SPACING,
    after: control.rest === null ? 'hold' : 'rest',
  };
}

/** A level that goes somewhere for a while and comes back: over `ramp` ticks to `to`, and in as many back to `from`. */
export function dipShape(length: Ticks, from: number, to: number, ramp: Ticks): Sweep['shape'] {
  const slope = Math.max(1, Math.min(ramp, Math.floor(length / 2)));
  return {
    kind: 'line',
    points: [
      { at: 0, value: from },
      { at: slope, value: to },
      { at: length - slope, value: to },
      { at: length, value: from },
    ],
  };
}

/** What a shape is as a level that goes somewhere and comes back; undefined when it is something else. */
export function dipOf(
  shape: Sweep['shape'],
): { readonly from: number; readonly to: number; readonly ramp: Ticks } | undefined {
  if (shape.kind !== 'line' || shape.points.length !== 4) return undefined;
  const [a, b, c, d] = shape.points as [Point, Point, Point, Point];
  const even = a.value === d.value && b.value === c.value && Math.abs(b.at - (d.at - c.at)) < 1 && a.at === 0;
  return even ? { from: a.value, to: b.value, ramp: b.at } : undefined;
}

type Point = { readonly at: Ticks; readonly value: number };

/**
 * A sweep with another start or end: its shape stretches with it. A level that comes back keeps
 * how fast it goes and returns; a wave keeps its beat, unless one wave is all of it.
 */
export function stretchSweep(sweep: Sweep, from: Ticks, to: Ticks): Sweep {
  const [before, after] = [sweep.to - sweep.from, to - from];
  if (!(after > 0) || before === after) return { ...sweep, from, to };
  const { shape } = sweep;
  const dip = dipOf(shape);
  if (dip) return { ...sweep, from, to, shape: dipShape(after, dip.from, dip.to, dip.ramp) };
  if (shape.kind === 'line') {
    const points = shape.points.map((p) => ({ ...p, at: (p.at * after) / before }));
    return { ...sweep, from, to, shape: { ...shape, points } };
  }
  const whole = Math.abs(shape.period - before) < 1;
  return { ...sweep, from, to, shape: whole ? { ...shape, period: after } : shape };
}

/** Adds a sweep, or puts it in the place of the one with its id. Null where it ends before it begins, or its control cannot be swept. */
export function putSweep(show: Show, songId: string, sweep: Sweep): Edit | null {
  const { songs, units } = indexShow(show);
  const song = songs.get(songId);
  const control = units.get(sweep.unitId)?.profile.controls.find((c) => c.id === sweep.controlId);
  if (!song || !control || !isContinuous(control.encoding) || !(sweep.to > sweep.from) || sweep.from < 0) return null;
  const before = song.sweeps.find((s) => s.id === sweep.id);
  if (before && JSON.stringify(before) === JSON.stringify(sweep)) return null;
  const after = [...song.sweeps.filter((s) => s !== before), sweep].sort((a, b) => a.from - b.from);
  return { kind: 'set', path: ['songs', { id: songId }, 'sweeps'], before: song.sweeps, after };
}

/** Removes a sweep. Null where it is not there. */
export function removeSweep(show: Show, songId: string, sweepId: string): Edit | null {
  const song = indexShow(show).songs.get(songId);
  const index = song?.sweeps.findIndex((s) => s.id === sweepId) ?? -1;
  if (!song || index < 0) return null;
  return { kind: 'remove', path: ['songs', { id: songId }, 'sweeps'], index, value: song.sweeps[index] };
}

/** Has a unit tapped at the start of a song and at each change of tempo, or, with null, no longer. */
export function setTaps(show: Show, songId: string, unitId: string, taps: TempoTaps | null): Edit | null {
  const song = indexShow(show).songs.get(songId);
  if (!song) return null;
  const rest = song.taps.filter((t) => t.unitId !== unitId);
  const after = taps ? [...rest, taps] : rest;
  if (JSON.stringify(after) === JSON.stringify(song.taps)) return null;
  return { kind: 'set', path: ['songs', { id: songId }, 'taps'], before: song.taps, after };
}

/** Adds a named move, or puts it in the place of the one with its id. Null while it has no name or nothing to do. */
export function putMove(show: Show, move: Move): Edit | null {
  const name = move.name.trim().slice(0, LIMITS.title);
  if (name === '' || move.steps.length === 0) return null;
  const value = { ...move, name };
  const index = show.moves.findIndex((m) => m.id === move.id);
  if (index < 0) return { kind: 'insert', path: ['moves'], index: show.moves.length, value };
  if (JSON.stringify(show.moves[index]) === JSON.stringify(value)) return null;
  return { kind: 'set', path: ['moves'], before: show.moves, after: show.moves.with(index, value) };
}

/** Takes a move away. Null while a song uses it. */
export function removeMove(show: Show, moveId: string): Edit | null {
  const index = show.moves.findIndex((m) => m.id === moveId);
  const used = show.songs.some((s) => s.cues.some((c) => c.action.kind === 'move' && c.action.moveId === moveId));
  if (index < 0 || used) return null;
  const remove: Edit = { kind: 'remove', path: ['moves'], index, value: show.moves[index] };
  const left = new Set(show.moves.filter((m) => m.id !== moveId).map((m) => m.id));
  const links = unlinked(show, { kind: 'moves', left });
  return links.length > 0 ? { kind: 'group', edits: [...links, remove] } : remove;
}
