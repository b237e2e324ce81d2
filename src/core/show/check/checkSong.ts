import { isContinuous, valueRange } from '../../addressing';
import { problem, type Problem } from '../../problems';
import type { Song, Sweep } from '../schema';
import { type PathPart, at, type Known, missing, controlOf, checkValue } from './known';

/**
 * What the schema cannot say of a song: order, references, values within their ranges. `i` is its place in the show.
 */
export function checkSong(song: Song, i: number, known: Known): Problem[] {
  const problems: Problem[] = checkSound(song, i, known);
  const inOrder = (what: string, list: readonly number[], ...path: PathPart[]): void => {
    for (let k = 1; k < list.length; k++) {
      if (list[k]! <= list[k - 1]!) problems.push(problem('show.order', 'error', at('songs', i, ...path, k), { what }));
    }
  };
  inOrder(
    'tempo marks',
    song.tempo.map((m) => m.at),
    'tempo',
  );
  inOrder(
    'metre marks',
    song.metre.map((m) => m.bar),
    'metre',
  );
  inOrder(
    'printed bar numbers',
    song.printed.map((m) => m.bar),
    'printed',
  );
  const last = song.tempo.at(-1)!;
  if (last.rampTo !== null) {
    const place = at('songs', i, 'tempo', song.tempo.length - 1, 'rampTo');
    problems.push(problem('show.ramp-nowhere', 'error', place, { bpm: last.rampTo }));
  }
  if (song.openingToneId !== null && !known.tones.has(song.openingToneId)) {
    problems.push(missing('tone', song.openingToneId, 'songs', i, 'openingToneId'));
  }
  for (const [k, { action }] of song.cues.entries()) {
    const path = ['songs', i, 'cues', k, 'action'] as const;
    if (action.kind === 'tone' && !known.tones.has(action.toneId)) {
      problems.push(missing('tone', action.toneId, ...path, 'toneId'));
    }
    if (action.kind === 'move' && !known.moves.has(action.moveId)) {
      problems.push(missing('move', action.moveId, ...path, 'moveId'));
    }
    if (action.kind === 'control') problems.push(...checkValue(action, known, ...path));
    if (action.kind === 'message' && !known.units.has(action.unitId)) {
      problems.push(missing('unit', action.unitId, ...path, 'unitId'));
    }
  }
  for (const [k, sweep] of song.sweeps.entries()) problems.push(...checkSweep(sweep, known, 'songs', i, 'sweeps', k));
  for (const [k, taps] of song.taps.entries()) {
    const control = controlOf(known, taps);
    if (!control) problems.push(missing('control', taps.controlId, 'songs', i, 'taps', k, 'controlId'));
    else if (control.encoding.kind !== 'tap') {
      const data = { control: control.name, unit: known.unitById.get(taps.unitId)!.name };
      problems.push(problem('show.not-tapped', 'error', at('songs', i, 'taps', k), data));
    }
  }
  return problems;
}

/** What a song's sounds and clocks refer to. */
function checkSound(song: Song, i: number, known: Known): Problem[] {
  const problems: Problem[] = [];
  const sound = (id: string | null | undefined, ...path: PathPart[]): void => {
    if (id && !known.audio.has(id)) problems.push(missing('sound', id, 'songs', i, ...path, 'audioId'));
  };
  sound(song.announce?.audioId, 'announce');
  for (const [k, section] of song.sections.entries()) sound(section.call?.audioId, 'sections', k, 'call');
  for (const [k, { call }] of song.calls.entries()) sound(call.audioId, 'calls', k, 'call');
  for (const [k, track] of song.tracks.entries()) {
    sound(track.audioId, 'tracks', k);
    if (track.stemId !== null && !known.stems.has(track.stemId)) {
      problems.push(missing('stem', track.stemId, 'songs', i, 'tracks', k, 'stemId'));
    }
    if (track.playerId !== null && !known.players.has(track.playerId)) {
      problems.push(missing('player', track.playerId, 'songs', i, 'tracks', k, 'playerId'));
    }
  }
  if (song.followsPortId !== null && !known.ports.has(song.followsPortId)) {
    problems.push(missing('port', song.followsPortId, 'songs', i, 'followsPortId'));
  }
  for (const [k, clock] of song.clocks.entries()) {
    if (!known.ports.has(clock.portId)) problems.push(missing('port', clock.portId, 'songs', i, 'clocks', k, 'portId'));
  }
  return problems;
}

function checkSweep(sweep: Sweep, known: Known, ...path: PathPart[]): Problem[] {
  const unit = known.unitById.get(sweep.unitId);
  if (!unit) return [missing('unit', sweep.unitId, ...path, 'unitId')];
  const control = controlOf(known, sweep);
  if (!control) return [missing('control', sweep.controlId, ...path, 'controlId')];
  const problems: Problem[] = [];
  const names = { unit: unit.name, control: control.name };
  if (!isContinuous(control.encoding)) problems.push(problem('show.sweep-selector', 'error', at(...path), names));
  if (!(sweep.to > sweep.from)) problems.push(problem('show.sweep-empty', 'error', at(...path, 'to'), names));
  if (sweep.switchId !== null && !controlOf(known, { ...sweep, controlId: sweep.switchId })) {
    problems.push(missing('control', sweep.switchId, ...path, 'switchId'));
  }
  const { low, high } = valueRange(control.encoding);
  const { shape } = sweep;
  const values = shape.kind === 'line' ? shape.points.map((p) => p.value) : [shape.low, shape.high];
  const outside = values.find((v) => v < low || v > high);
  if (outside !== undefined) {
    problems.push(problem('show.value-range', 'error', at(...path, 'shape'), { ...names, value: outside, low, high }));
  }
  if (shape.kind === 'line' && shape.points.some((p, i) => i > 0 && p.at < shape.points[i - 1]!.at)) {
    problems.push(problem('show.order', 'error', at(...path, 'shape', 'points'), { what: 'points of a sweep' }));
  }
  return problems;
}
