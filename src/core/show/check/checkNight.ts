import { append } from '../../groups';
import { problem, type Problem } from '../../problems';
import type { Reaction, ShowSet } from '../schema';
import { at, type PathPart, type Known, once, isSource, missing, checkValues, controlOf } from './known';

/** Entries of a set, and who and what it says is missing, are there. */
export function checkSet({ entries, missing: players, tonight }: ShowSet, i: number, known: Known): Problem[] {
  const problems: Problem[] = once(
    'entry of the set',
    entries.map((e) => e.id),
    'sets',
    i,
    'entries',
  );
  for (const [j, entry] of entries.entries()) {
    const here = ['sets', i, 'entries', j] as const;
    if (entry.kind === 'sound' && !known.audio.has(entry.audioId)) {
      problems.push(missing('sound', entry.audioId, ...here, 'audioId'));
    }
    if (entry.kind !== 'song') continue;
    const { songId, bridgeToneId, launch } = entry;
    if (!known.songs.has(songId)) problems.push(missing('song', songId, ...here, 'songId'));
    if (bridgeToneId !== null && !known.tones.has(bridgeToneId)) {
      problems.push(missing('tone', bridgeToneId, ...here, 'bridgeToneId'));
    }
    if (launch && !known.ports.has(launch.portId)) {
      problems.push(missing('port', launch.portId, ...here, 'launch', 'portId'));
    }
  }
  for (const [j, id] of players.entries()) {
    if (!known.players.has(id)) problems.push(missing('player', id, 'sets', i, 'missing', j));
  }
  const away = tonight.map((t) => t.unitId);
  append(problems, once('unit', away, 'sets', i, 'tonight'));
  for (const [j, id] of away.entries()) {
    if (!known.units.has(id)) problems.push(missing('unit', id, 'sets', i, 'tonight', j, 'unitId'));
    const how = tonight[j]!;
    if (how.how === 'other' && how.portId !== null && !known.ports.has(how.portId)) {
      problems.push(missing('port', how.portId, 'sets', i, 'tonight', j, 'portId'));
    }
  }
  return problems;
}

/** What a reaction names is there, its ranges are ranges, and what it switches is a switch. */
export function checkReaction({ songId, hears, does }: Reaction, i: number, known: Known): Problem[] {
  const problems: Problem[] = [];
  const here = ['reactions', i] as const;
  const there = (ids: ReadonlySet<string>, what: string, id: string | null, ...path: PathPart[]): void => {
    if (id !== null && !ids.has(id)) problems.push(missing(what, id, ...here, ...path));
  };
  there(known.songs, 'song', songId, 'songId');
  there(known.ports, 'port', hears.portId, 'hears', 'portId');
  if (hears.low > hears.high) {
    problems.push(problem('show.range', 'error', at(...here, 'hears'), hears));
  }
  switch (does.kind) {
    case 'session':
      break;
    case 'song':
      there(known.songs, 'song', does.songId, 'does', 'songId');
      break;
    case 'tone':
      there(known.tones, 'tone', does.toneId, 'does', 'toneId');
      break;
    case 'move':
      there(known.moves, 'move', does.moveId, 'does', 'moveId');
      break;
    case 'sample':
      there(known.audio, 'sound', does.audioId, 'does', 'audioId');
      break;
    case 'level':
    case 'turn':
      if (!isSource(known, does.of)) problems.push(missing('stem', does.of, ...here, 'does', 'of'));
      break;
    case 'part':
      there(known.players, 'player', does.playerId, 'does', 'playerId');
      break;
    case 'message':
      there(known.ports, 'port', does.portId, 'does', 'portId');
      break;
    case 'control':
    case 'switch': {
      const unit = known.unitById.get(does.unitId);
      const control = controlOf(known, does);
      if (!unit) problems.push(missing('unit', does.unitId, ...here, 'does', 'unitId'));
      else if (!control) problems.push(missing('control', does.controlId, ...here, 'does', 'controlId'));
      else if (does.kind === 'control') {
        const ends = [does.curve.from, does.curve.to].map((value) => ({ controlId: control.id, value }));
        problems.push(...checkValues(unit, ends, ...here, 'does', 'curve'));
      }
      if (does.kind === 'switch' && does.below >= does.above) {
        const range = { low: does.below, high: does.above };
        problems.push(problem('show.range', 'error', at(...here, 'does'), range));
      }
    }
  }
  return problems;
}
