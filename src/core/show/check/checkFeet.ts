import { isContinuous } from '../../addressing';
import { problem, type Problem } from '../../problems';
import type { Doing, Feet, FootPedal } from '../schema';
import { at, checkValue, checkValues, controlOf, isSource, missing, once, type Known, type PathPart } from './known';

/** What is programmed into a controller names things that are there, and switches and pages that it has. */
export function checkFeet(feet: Feet, i: number, known: Known): Problem[] {
  const here = ['feet', i] as const;
  const unit = known.unitById.get(feet.id);
  if (!unit) return [missing('unit', feet.id, ...here, 'id')];
  const senders = new Set(unit.profile.senders.map((s) => s.id));
  const pages = new Set(feet.pages.map((p) => p.id));
  const problems = once(
    'page',
    feet.pages.map((p) => p.id),
    ...here,
    'pages',
  );
  const checkLayer = ({ switches, pedals }: Feet['everywhere'], ...path: PathPart[]): void => {
    problems.push(
      ...onceById('switch', switches, ...path, 'switches'),
      ...onceById('pedal', pedals, ...path, 'pedals'),
    );
    for (const [k, { id, doings }] of switches.entries()) {
      if (!senders.has(id)) problems.push(missing('switch', id, ...path, 'switches', k, 'id'));
      for (const [n, { does }] of doings.entries()) {
        problems.push(...checkDoing(does, pages, known, ...path, 'switches', k, 'doings', n, 'does'));
      }
    }
    for (const [k, pedal] of pedals.entries()) {
      if (!senders.has(pedal.id)) problems.push(missing('pedal', pedal.id, ...path, 'pedals', k, 'id'));
      problems.push(...checkPedal(pedal, known, ...path, 'pedals', k, 'does'));
    }
  };
  checkLayer(feet.everywhere, ...here, 'everywhere');
  for (const [k, page] of feet.pages.entries()) {
    if (!known.slotIds.get(unit.id)!.has(page.id)) problems.push(missing('slot', page.id, ...here, 'pages', k, 'id'));
    if (page.songId !== null && !known.songs.has(page.songId)) {
      problems.push(missing('song', page.songId, ...here, 'pages', k, 'songId'));
    }
    checkLayer(page, ...here, 'pages', k);
  }
  problems.push(...onceById('unit', feet.boat, ...here, 'boat'), ...onceById('file', feet.dumps, ...here, 'dumps'));
  for (const [k, { id, from }] of feet.boat.entries()) {
    for (const unitId of [id, from]) {
      if (!known.units.has(unitId)) problems.push(missing('unit', unitId, ...here, 'boat', k));
    }
  }
  return problems;
}

const onceById = (what: string, list: readonly { readonly id: string }[], ...path: PathPart[]): Problem[] =>
  once(
    what,
    list.map((x) => x.id),
    ...path,
  );

function checkDoing(does: Doing, pages: ReadonlySet<string>, known: Known, ...path: PathPart[]): Problem[] {
  const there = (ids: ReadonlySet<string>, what: string, id: string): Problem[] =>
    ids.has(id) ? [] : [missing(what, id, ...path)];
  switch (does.kind) {
    case 'session':
    case 'message':
      return [];
    case 'tone':
      return there(known.tones, 'tone', does.toneId);
    case 'move':
      return there(known.moves, 'move', does.moveId);
    case 'song':
      return there(known.songs, 'song', does.songId);
    case 'sample':
      return there(known.audio, 'sound', does.audioId);
    case 'turn':
      return isSource(known, does.of) ? [] : [missing('stem', does.of, ...path)];
    case 'part':
      return there(known.players, 'player', does.playerId);
    case 'control':
      return checkValue(does, known, ...path);
    case 'page':
      return typeof does.to === 'string' ? [] : there(pages, 'page', does.to.pageId);
  }
}

function checkPedal({ does }: FootPedal, known: Known, ...path: PathPart[]): Problem[] {
  if (does.kind === 'number') return [];
  const unit = known.unitById.get(does.unitId);
  if (!unit) return [missing('unit', does.unitId, ...path, 'unitId')];
  const control = controlOf(known, does);
  if (!control) return [missing('control', does.controlId, ...path, 'controlId')];
  if (!isContinuous(control.encoding)) {
    const data = { unit: unit.name, control: control.name };
    return [problem('show.sweep-selector', 'error', at(...path, 'controlId'), data)];
  }
  const ends = [does.from, does.to].map((value) => ({ controlId: does.controlId, value }));
  return checkValues(unit, ends, ...path);
}
