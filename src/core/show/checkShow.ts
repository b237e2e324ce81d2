import { append } from '../groups';
import { fitsRange, isContinuous, slotCount, valueRange, type Control, type Profile } from '../addressing';
import { problem, type Place, type Problem } from '../problems';
import { profileProblems } from './profileProblems';
import type { Show, ShowSet, Song, Sweep, Tone, Unit } from './schema';

type PathPart = string | number;

const at = (...path: PathPart[]): Place => ({ in: 'show', path });

/**
 * What a show's shape alone does not say: that ids are there once, that what is referred
 * to exists, that marks are in order and numbers in range.
 */
export function checkShow(show: Show): Problem[] {
  const problems: Problem[] = [];
  const ids = (what: string, list: readonly { readonly id: string }[], ...path: PathPart[]): Set<string> => {
    const found = list.map((x) => x.id);
    append(problems, once(what, found, ...path));
    return new Set(found);
  };
  const known: Known = {
    house: ids('house number', show.house, 'house'),
    players: ids('player', show.players, 'players'),
    ports: ids('port', show.ports, 'ports'),
    units: ids('unit', show.units, 'units'),
    tones: ids('tone', show.tones, 'tones'),
    moves: ids('move', show.moves, 'moves'),
    songs: ids('song', show.songs, 'songs'),
    audio: ids('sound', show.audio, 'audio'),
    unitById: new Map(show.units.map((u) => [u.id, u])),
    slotIds: new Map(show.units.map((u) => [u.id, new Set([...u.slots, ...u.lostSlots].map((s) => s.id))])),
  };
  for (const [i, unit] of show.units.entries()) {
    append(problems, checkUnit(unit, i, known));
  }
  for (const [i, tone] of show.tones.entries()) problems.push(...checkTone(tone, i, known));
  for (const [i, move] of show.moves.entries()) {
    for (const [k, step] of move.steps.entries()) problems.push(...checkValue(step, known, 'moves', i, 'steps', k));
  }
  if (show.openingToneId !== null && !known.tones.has(show.openingToneId)) {
    problems.push(missing('tone', show.openingToneId, 'openingToneId'));
  }
  for (const [i, id] of show.core.entries()) if (!known.tones.has(id)) problems.push(missing('tone', id, 'core', i));
  for (const [i, song] of show.songs.entries()) {
    ids('cue', song.cues, 'songs', i, 'cues');
    ids('section', song.sections, 'songs', i, 'sections');
    ids('sweep', song.sweeps, 'songs', i, 'sweeps');
    ids('taps', song.taps, 'songs', i, 'taps');
    ids('clock', song.clocks, 'songs', i, 'clocks');
    ids('track', song.tracks, 'songs', i, 'tracks');
    append(problems, checkSong(song, i, known));
  }
  ids('set', show.sets, 'sets');
  if (!show.sets.some((s) => s.id === show.setId)) problems.push(missing('set', show.setId, 'setId'));
  for (const [i, set] of show.sets.entries()) append(problems, checkSet(set, i, known));
  return problems;
}

function checkSet({ entries }: ShowSet, i: number, known: Known): Problem[] {
  const problems = once(
    'entry of the set',
    entries.map((e) => e.id),
    'sets',
    i,
    'entries',
  );
  for (const [j, entry] of entries.entries()) {
    if (entry.kind !== 'song') continue;
    const at = ['sets', i, 'entries', j] as const;
    const { songId, bridgeToneId, launch } = entry;
    if (!known.songs.has(songId)) problems.push(missing('song', songId, ...at, 'songId'));
    if (bridgeToneId !== null && !known.tones.has(bridgeToneId)) {
      problems.push(missing('tone', bridgeToneId, ...at, 'bridgeToneId'));
    }
    if (launch && !known.ports.has(launch.portId)) {
      problems.push(missing('port', launch.portId, ...at, 'launch', 'portId'));
    }
  }
  return problems;
}

interface Known {
  readonly house: ReadonlySet<string>;
  readonly players: ReadonlySet<string>;
  readonly ports: ReadonlySet<string>;
  readonly units: ReadonlySet<string>;
  readonly tones: ReadonlySet<string>;
  readonly moves: ReadonlySet<string>;
  readonly songs: ReadonlySet<string>;
  readonly audio: ReadonlySet<string>;
  readonly unitById: ReadonlyMap<string, Unit>;
  readonly slotIds: ReadonlyMap<string, ReadonlySet<string>>;
}

/** Each of some ids stands once: edits find what they are for by it. */
function once(what: string, ids: readonly string[], ...path: PathPart[]): Problem[] {
  const seen = new Set<string>();
  const problems: Problem[] = [];
  for (const [i, id] of ids.entries()) {
    if (seen.has(id)) problems.push(problem('show.twice', 'error', at(...path, i), { what, id }));
    seen.add(id);
  }
  return problems;
}

const missing = (what: string, id: string, ...path: PathPart[]): Problem =>
  problem('show.missing', 'error', at(...path), { what, id });

function checkUnit(unit: Unit, i: number, known: Known): Problem[] {
  const problems: Problem[] = [];
  if (unit.playerId !== null && !known.players.has(unit.playerId)) {
    problems.push(missing('player', unit.playerId, 'units', i, 'playerId'));
  }
  if (unit.input?.from === 'port' && !known.ports.has(unit.input.portId)) {
    problems.push(missing('port', unit.input.portId, 'units', i, 'input', 'portId'));
  }
  if (unit.input?.from === 'unit' && !known.units.has(unit.input.unitId)) {
    problems.push(missing('unit', unit.input.unitId, 'units', i, 'input', 'unitId'));
  }
  if (unit.returns && !known.ports.has(unit.returns.portId)) {
    problems.push(missing('port', unit.returns.portId, 'units', i, 'returns', 'portId'));
  }
  problems.push(...checkProfile(unit.name, unit.profile, known, 'units', i, 'profile'));
  for (const [k, version] of unit.versions.entries()) {
    problems.push(...checkProfile(unit.name, version, known, 'units', i, 'versions', k));
  }
  const slotIds = unit.slots.map((s) => s.id);
  append(problems, once('slot', slotIds, 'units', i, 'slots'));
  const kept = new Set(slotIds);
  for (const [k, { id }] of unit.lostSlots.entries()) {
    if (kept.has(id))
      problems.push(problem('show.twice', 'error', at('units', i, 'lostSlots', k), { what: 'slot', id }));
    kept.add(id);
  }
  append(
    problems,
    once(
      'relay',
      unit.relays.map((r) => r.id),
      'units',
      i,
      'relays',
    ),
  );
  const slots = slotCount(unit.profile.plan);
  const taken = new Set<number>();
  for (const [k, slot] of unit.slots.entries()) {
    if (slot.index >= slots) {
      const data = { unit: unit.name, index: slot.index, slots };
      problems.push(problem('show.slot-range', 'error', at('units', i, 'slots', k, 'index'), data));
    } else if (taken.has(slot.index)) {
      const data = { unit: unit.name, label: String(slot.index) };
      problems.push(problem('show.slot-shared', 'error', at('units', i, 'slots', k, 'index'), data));
    }
    taken.add(slot.index);
    problems.push(...checkVariant(unit, slot.startVariant, 'units', i, 'slots', k, 'startVariant'));
    problems.push(...checkValues(unit, slot.startControls, 'units', i, 'slots', k, 'startControls'));
  }
  for (const [k, relay] of unit.relays.entries()) {
    const path = ['units', i, 'relays', k] as const;
    if (relay.when.slotId !== null && !known.slotIds.get(unit.id)!.has(relay.when.slotId)) {
      problems.push(missing('slot', relay.when.slotId, ...path, 'when', 'slotId'));
    }
    if (!known.units.has(relay.toUnitId)) problems.push(missing('unit', relay.toUnitId, ...path, 'toUnitId'));
    else if (!known.slotIds.get(relay.toUnitId)!.has(relay.toSlotId)) {
      problems.push(missing('slot', relay.toSlotId, ...path, 'toSlotId'));
    }
  }
  return problems;
}

/** What a profile's shape alone does not say. */
function checkProfile(unit: string, profile: Profile, known: Known, ...path: PathPart[]): Problem[] {
  const problems = profileProblems(unit, profile, (...rest) => at(...path, ...rest));
  const { controls, effects, engage, senders } = profile;
  const idsOf = (list: readonly { readonly id: string }[]): string[] => list.map((x) => x.id);
  append(problems, once('control', idsOf(controls), ...path, 'controls'));
  append(problems, once('effect', idsOf(effects), ...path, 'effects'));
  append(problems, once('sender', idsOf(senders), ...path, 'senders'));
  const ids = new Set(idsOf(controls));
  for (const [k, effect] of effects.entries()) {
    for (const id of [effect.cut, effect.ring]) {
      if (id !== null && !ids.has(id)) problems.push(missing('control', id, ...path, 'effects', k));
    }
  }
  if (engage !== null && !ids.has(engage)) problems.push(missing('control', engage, ...path, 'engage'));
  for (const [k, { houseId }] of controls.entries()) {
    if (houseId !== null && !known.house.has(houseId)) {
      problems.push(missing('house number', houseId, ...path, 'controls', k, 'houseId'));
    }
  }
  return problems;
}

/** A variant that something names is one the unit has. */
function checkVariant(unit: Unit, variant: number | null, ...path: PathPart[]): Problem[] {
  const { variants } = unit.profile;
  const count = variants?.names.length ?? 0;
  if (variant === null || variant < count) return [];
  const data = { unit: unit.name, word: variants?.word ?? 'variant', value: variant, count };
  return [problem('show.variant-range', 'error', at(...path), data)];
}

/** Values of a unit's controls, as a tone or a preset has them. */
function checkValues(
  unit: Unit,
  values: readonly { readonly controlId: string; readonly value: number }[],
  ...path: PathPart[]
): Problem[] {
  const problems: Problem[] = [];
  for (const [c, { controlId, value }] of values.entries()) {
    const control = unit.profile.controls.find((x) => x.id === controlId);
    if (!control) problems.push(missing('control', controlId, ...path, c, 'controlId'));
    else if (!fitsRange(control.encoding, value)) {
      const { low, high } = valueRange(control.encoding);
      const data = { unit: unit.name, control: control.name, value, low, high };
      problems.push(problem('show.value-range', 'error', at(...path, c, 'value'), data));
    }
  }
  return problems;
}

function checkTone(tone: Tone, i: number, known: Known): Problem[] {
  const problems = once(
    'part',
    tone.parts.map((p) => p.unitId),
    'tones',
    i,
    'parts',
  );
  for (const [k, part] of tone.parts.entries()) {
    const path = ['tones', i, 'parts', k] as const;
    const unit = known.unitById.get(part.unitId);
    if (!unit) {
      problems.push(missing('unit', part.unitId, ...path, 'unitId'));
      continue;
    }
    const { profile } = unit;
    if (part.slotId !== null && !known.slotIds.get(unit.id)!.has(part.slotId)) {
      problems.push(missing('slot', part.slotId, ...path, 'slotId'));
    }
    problems.push(...checkVariant(unit, part.variant, ...path, 'variant'));
    problems.push(...checkValues(unit, part.controls, ...path, 'controls'));
    append(
      problems,
      once(
        'control',
        part.controls.map((c) => c.controlId),
        ...path,
        'controls',
      ),
    );
    append(
      problems,
      once(
        'effect',
        part.effects.map((e) => e.effectId),
        ...path,
        'effects',
      ),
    );
    for (const [e, { effectId }] of part.effects.entries()) {
      if (!profile.effects.some((x) => x.id === effectId)) {
        problems.push(missing('effect', effectId, ...path, 'effects', e, 'effectId'));
      }
    }
  }
  return problems;
}

function checkSong(song: Song, i: number, known: Known): Problem[] {
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
  for (const [k, track] of song.tracks.entries()) sound(track.audioId, 'tracks', k);
  for (const [k, clock] of song.clocks.entries()) {
    if (!known.ports.has(clock.portId)) problems.push(missing('port', clock.portId, 'songs', i, 'clocks', k, 'portId'));
  }
  return problems;
}

interface OfControl {
  readonly unitId: string;
  readonly controlId: string;
}

const controlOf = (known: Known, { unitId, controlId }: OfControl): Control | undefined =>
  known.unitById.get(unitId)?.profile.controls.find((c) => c.id === controlId);

/** One value of one unit's control, outside of a tone. */
function checkValue(set: OfControl & { readonly value: number }, known: Known, ...path: PathPart[]): Problem[] {
  const unit = known.unitById.get(set.unitId);
  if (!unit) return [missing('unit', set.unitId, ...path, 'unitId')];
  return checkValues(unit, [set], ...path);
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
