import { isContinuous, isOnOff, valueRange } from '../../../../core/addressing';
import type { Reaction, Show } from '../../../../core/show';
import { FADER } from '../../../state/mix';

export type Does = Reaction['does'];

/** Kinds of what a reaction does, in the order in which they are offered. */
export const KINDS: Readonly<Record<Does['kind'], string>> = {
  session: 'Play, stop, step',
  song: 'A song',
  tone: 'A tone',
  move: 'A move',
  sample: 'A sound',
  level: 'A level, along a fader',
  turn: 'The click, or a sound, on and off',
  part: 'A missing player’s part',
  control: 'A control, along a pedal',
  switch: 'A switch, thrown by a pedal',
  message: 'Another message',
};

/** Controls that a pedal can move, and those that it can throw, by unit. */
export const controlsOf = (show: Show, kind: 'control' | 'switch') =>
  show.units.flatMap((u) =>
    u.profile.controls
      .filter((c) => (kind === 'control' ? isContinuous(c.encoding) : isOnOff(c.encoding)))
      .map((c) => ({ id: `${u.id}/${c.id}`, name: `${u.name}: ${c.name}`, unitId: u.id, control: c })),
  );

/** What a kind of reaction does to begin with; null where the show has nothing for it. */
export function beginning(show: Show, kind: Does['kind']): Does | null {
  const [tone, move, song, port] = [show.tones[0], show.moves[0], show.songs[0], show.ports[0]];
  const curve = { from: 0, to: 127, bend: 'straight' } as const;
  switch (kind) {
    case 'session':
      return { kind, act: 'next-change' };
    case 'song':
      return song ? { kind, songId: song.id, how: 'start' } : null;
    case 'tone':
      return tone ? { kind, toneId: show.core[0] ?? tone.id } : null;
    case 'move':
      return move ? { kind, moveId: move.id } : null;
    case 'sample':
      return show.audio[0] ? { kind, audioId: show.audio[0].id, gain: 0 } : null;
    case 'level':
      return { kind, of: 'click', from: FADER[0], to: FADER[1] };
    case 'turn':
      return { kind, of: 'click', how: 'flip' };
    case 'part':
      return show.players[0] ? { kind, playerId: show.players[0].id, how: 'flip' } : null;
    case 'message':
      return port ? { kind, portId: port.id, channel: null, number: null, curve } : null;
    case 'control': {
      const first = controlsOf(show, kind)[0];
      if (!first) return null;
      const { low, high } = valueRange(first.control.encoding);
      return { kind, unitId: first.unitId, controlId: first.control.id, curve: { ...curve, from: low, to: high } };
    }
    case 'switch': {
      const first = controlsOf(show, kind)[0];
      return first
        ? { kind, unitId: first.unitId, controlId: first.control.id, above: 8, below: 2, millis: 120 }
        : null;
    }
  }
}

/** Why a kind cannot be chosen where the show has nothing for it. */
export const MISSING: Readonly<Partial<Record<Does['kind'], string>>> = {
  song: 'The show has no song yet.',
  tone: 'There is no tone yet.',
  move: 'There is no move yet.',
  part: 'There is no player yet.',
  message: 'The rig has no port yet.',
  control: 'No unit has a control that a pedal can move.',
  switch: 'No unit has a switch with an on and an off of its own.',
};
