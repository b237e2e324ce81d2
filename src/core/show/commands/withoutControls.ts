import type { Edit } from '../edits';
import type { Doing, FootPedal, Reaction, Show, Song, Sweep } from '../schema';
import { changedLayers, keptLayer } from './unlinked';

/** What of a unit is there after a change. */
export interface StillThere {
  readonly unit: boolean;
  /** Whether the unit has the control, and it takes the value. */
  readonly value: (controlId: string, value: number) => boolean;
  /** Whether the unit has the control, and it can be swept. */
  readonly swept: (controlId: string) => boolean;
}

/** A unit that is gone. */
export const NOTHING_LEFT: StillThere = { unit: false, value: () => false, swept: () => false };

/**
 * Takes out of moves and songs what they do with controls of a unit that are gone, or with
 * values that a control does not take: sweeps, taps, single values, steps of moves, reactions, foot switches and pedals.
 * A move with nothing left goes, and its cues and reactions with it. `onDrop` is told of each thing by name.
 */
export function withoutControls(
  show: Show,
  unitId: string,
  left: StillThere,
  onDrop: (where: string, controlId: string) => void = () => undefined,
): Edit[] {
  const edits: Edit[] = [];
  const moves = show.moves.flatMap((move) => {
    const steps = move.steps.filter((s) => s.unitId !== unitId || left.value(s.controlId, s.value));
    if (steps.length === move.steps.length) return [move];
    onDrop(move.name, move.steps.find((s) => !steps.includes(s))!.controlId);
    return steps.length > 0 ? [{ ...move, steps }] : [];
  });
  if (moves.length < show.moves.length || moves.some((m, i) => m !== show.moves[i])) {
    edits.push({ kind: 'set', path: ['moves'], before: show.moves, after: moves });
  }
  const named = new Set(moves.map((m) => m.id));
  const reactions = show.reactions.filter((r) => {
    const { does } = r;
    if (does.kind === 'move') return named.has(does.moveId);
    if ((does.kind !== 'control' && does.kind !== 'switch') || does.unitId !== unitId || reacts(does, left))
      return true;
    onDrop(r.name || 'a reaction', does.controlId);
    return false;
  });
  if (reactions.length < show.reactions.length) {
    edits.push({ kind: 'set', path: ['reactions'], before: show.reactions, after: reactions });
  }
  const feet = show.feet.map((f) =>
    changedLayers(f, (layer) =>
      keptLayer(
        layer,
        (doing) => keepsDoing(doing) || drops(show, f.id, doing),
        (pedal) => keepsPedal(pedal) || drops(show, f.id, pedal.does),
      ),
    ),
  );
  if (JSON.stringify(feet) !== JSON.stringify(show.feet)) {
    edits.push({ kind: 'set', path: ['feet'], before: show.feet, after: feet });
  }
  function keepsDoing(doing: Doing): boolean {
    if (doing.kind === 'move') return named.has(doing.moveId);
    return doing.kind !== 'control' || doing.unitId !== unitId || left.value(doing.controlId, doing.value);
  }
  function keepsPedal({ does }: FootPedal): boolean {
    if (does.kind !== 'control' || does.unitId !== unitId) return true;
    return left.swept(does.controlId) && left.value(does.controlId, does.from) && left.value(does.controlId, does.to);
  }
  function drops({ units }: Show, id: string, does: { readonly kind: string; readonly controlId?: string }): false {
    if (does.controlId !== undefined) onDrop(units.find((u) => u.id === id)?.name ?? 'a foot switch', does.controlId);
    return false;
  }
  for (const song of show.songs) {
    const drop = (controlId: string): boolean => {
      onDrop(song.title, controlId);
      return false;
    };
    const cues = song.cues.filter(({ action }) => {
      if (action.kind === 'move') return named.has(action.moveId);
      if (action.kind === 'tone' || action.unitId !== unitId) return true;
      if (action.kind === 'message') return left.unit;
      return left.value(action.controlId, action.value) || drop(action.controlId);
    });
    const sweeps = song.sweeps.filter((s) => s.unitId !== unitId || sweepFits(s, left) || drop(s.controlId));
    const taps = song.taps.filter((t) => t.unitId !== unitId || left.value(t.controlId, t.count) || drop(t.controlId));
    edits.push(...changed(song, 'cues', cues), ...changed(song, 'sweeps', sweeps), ...changed(song, 'taps', taps));
  }
  return edits;
}

const reacts = (does: Extract<Reaction['does'], { unitId: string }>, left: StillThere): boolean =>
  does.kind === 'switch'
    ? left.value(does.controlId, 1)
    : left.value(does.controlId, does.curve.from) && left.value(does.controlId, does.curve.to);

function sweepFits({ controlId, switchId, shape }: Sweep, left: StillThere): boolean {
  const values = shape.kind === 'line' ? shape.points.map((p) => p.value) : [shape.low, shape.high];
  if (!left.swept(controlId) || !values.every((v) => left.value(controlId, v))) return false;
  return switchId === null || left.value(switchId, 1);
}

function changed<K extends 'cues' | 'sweeps' | 'taps'>(song: Song, field: K, after: Song[K]): Edit[] {
  if (after.length === song[field].length) return [];
  return [{ kind: 'set', path: ['songs', { id: song.id }, field], before: song[field], after }];
}
