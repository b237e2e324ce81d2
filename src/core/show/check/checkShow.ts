import { append } from '../../groups';
import type { Problem } from '../../problems';
import { SOURCES, type Show, type Tone } from '../schema';
import { type PathPart, type Known, isSource, once, missing, checkVariant, checkValues, checkValue } from './known';
import { checkFeet } from './checkFeet';
import { checkSet, checkReaction } from './checkNight';
import { checkUnit } from './checkUnit';
import { checkSong } from './checkSong';

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
    house: ids('shared control number', show.house, 'house'),
    players: ids('player', show.players, 'players'),
    ports: ids('port', show.ports, 'ports'),
    units: ids('unit', show.units, 'units'),
    tones: ids('tone', show.tones, 'tones'),
    moves: ids('move', show.moves, 'moves'),
    songs: ids('song', show.songs, 'songs'),
    audio: ids('sound', show.audio, 'audio'),
    stems: ids('stem', [...SOURCES.map((id) => ({ id })), ...show.stems], 'stems'),
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
  const { portId, sends } = show.timeCode;
  if (portId !== null && !known.ports.has(portId)) problems.push(missing('port', portId, 'timeCode', 'portId'));
  for (const [i, id] of sends.entries()) {
    if (!known.ports.has(id)) problems.push(missing('port', id, 'timeCode', 'sends', i));
  }
  append(problems, once('port', sends, 'timeCode', 'sends'));
  for (const [i, id] of show.core.entries()) if (!known.tones.has(id)) problems.push(missing('tone', id, 'core', i));
  for (const [i, song] of show.songs.entries()) {
    ids('cue', song.cues, 'songs', i, 'cues');
    ids('section', song.sections, 'songs', i, 'sections');
    ids('remark', song.remarks, 'songs', i, 'remarks');
    ids('call', song.calls, 'songs', i, 'calls');
    ids('sweep', song.sweeps, 'songs', i, 'sweeps');
    ids('taps', song.taps, 'songs', i, 'taps');
    ids('clock', song.clocks, 'songs', i, 'clocks');
    ids('track', song.tracks, 'songs', i, 'tracks');
    append(problems, checkSong(song, i, known));
  }
  ids('reaction', show.reactions, 'reactions');
  for (const [i, reaction] of show.reactions.entries()) append(problems, checkReaction(reaction, i, known));
  ids('controller', show.feet, 'feet');
  for (const [i, feet] of show.feet.entries()) append(problems, checkFeet(feet, i, known));
  ids('ear mix', show.ears, 'ears');
  for (const [i, { hears }] of show.ears.entries()) {
    const sources = hears.map((h) => h.of);
    append(problems, once('source', sources, 'ears', i, 'hears'));
    for (const [k, of] of sources.entries()) {
      if (!isSource(known, of)) problems.push(missing('stem', of, 'ears', i, 'hears', k, 'of'));
    }
  }
  ids('set', show.sets, 'sets');
  if (!show.sets.some((s) => s.id === show.setId)) problems.push(missing('set', show.setId, 'setId'));
  for (const [i, set] of show.sets.entries()) append(problems, checkSet(set, i, known));
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
