import { encodeValue, isTap } from '../addressing';
import { toHex } from '../midi';
import { TICKS_PER_QUARTER, type Micros, type Millis, type Ticks } from '../time';
import {
  type Cue,
  cuesInOrder,
  indexShow,
  microsAt,
  openingOf,
  type Show,
  type Song,
  songTime,
  type Unit,
} from '../show';
import { sameToWires, surroundingsOf, type Surroundings } from './surroundings';
import { playedSweeps, type PlayedSweep } from './sweeps';

/** Id of the cue that a song's opening counts as. */
export const OPENING_CUE = 'opening';

/** What happens at a moment: a tone, values of one unit's controls, or bytes as they stand. */
export type MomentAction =
  | { readonly kind: 'tone'; readonly toneId: string; readonly reload: boolean }
  | { readonly kind: 'values'; readonly unitId: string; readonly values: Readonly<Record<string, number>> }
  | { readonly kind: 'message'; readonly unitId: string; readonly bytes: string };

/** One thing that a song does at one place. A cue may be several moments; they share its id. */
export interface Moment {
  /** Of the cue, the sweep or the taps that it belongs to. */
  readonly id: string;
  readonly source: 'opening' | 'cue' | 'sweep' | 'taps';
  readonly at: Ticks;
  readonly shift: Millis;
  /** Place and shift as time from tick 0, whole nanoseconds: what is due at once has one figure. */
  readonly due: Micros;
  readonly landing: Cue['landing'];
  readonly action: MomentAction;
}

interface Kept {
  readonly under: Surroundings;
  readonly moments: readonly Moment[];
}

const kept = new WeakMap<Song, Kept>();

/** What is said of a moment before its time is known. */
type Placed = Omit<Moment, 'due'>;

/**
 * All that a song does, in the order in which it is due: the opening, cues, taps, and the
 * values of sweeps. What is muted, and what refers to something that the show has not, is
 * left out. What is due at once stays in the order of the song; at one place sweeps that end
 * there come first and those that begin there last.
 */
export function moments(show: Show, song: Song): readonly Moment[] {
  const known = kept.get(song);
  if (known && sameToWires(song, known.under, surroundingsOf(show))) return known.moments;
  const made = madeMoments(show, song);
  kept.set(song, { under: surroundingsOf(show), moments: made });
  return made;
}

function madeMoments(show: Show, song: Song): readonly Moment[] {
  const { tones } = indexShow(show);
  const time = songTime(song);
  const dueOf = ({ at, shift }: Placed): Micros => Math.round((microsAt(time, at) + shift * 1000) * 1000) / 1000;
  const cues: Placed[] = [];
  const toneId = openingOf(show, song);
  if (toneId !== null && tones.has(toneId)) {
    const action = { kind: 'tone', toneId, reload: false } as const;
    cues.push({ id: OPENING_CUE, source: 'opening', at: 0, shift: 0, landing: 'complete', action });
  }
  for (const cue of cuesInOrder(song)) if (!cue.muted) cues.push(...cueMoments(show, song, cue));
  const sweeps = song.sweeps.length > 0 ? playedSweeps(show, song).flatMap(sweepMoments) : [];
  const ends = sweeps.filter((m) => m.ends).map((m) => m.moment);
  const others = sweeps.filter((m) => !m.ends).map((m) => m.moment);
  // A stable sort: of what stands at one place, this order holds.
  const placed = inOrder([...ends, ...cues, ...tapMoments(show, song), ...others], (m) => m.at);
  return inOrder(
    placed.map((m): Moment => {
      const { id, source, at, shift, landing, action } = m;
      return { id, source, at, shift, due: dueOf(m), landing, action };
    }),
    (m) => m.due,
  );
}

function inOrder<T>(list: readonly T[], of: (item: T) => number): readonly T[] {
  return list.every((m, i) => i === 0 || of(list[i - 1]!) <= of(m)) ? list : list.toSorted((a, b) => of(a) - of(b));
}

function cueMoments(show: Show, song: Song, cue: Cue): Placed[] {
  const { id, at, shift, landing, action } = cue;
  const placed = (action: MomentAction, later: Ticks = 0): Placed => ({
    id,
    source: 'cue',
    at: at + later,
    shift,
    landing,
    action,
  });
  const { tones, units } = indexShow(show);
  switch (action.kind) {
    case 'tone':
      return tones.has(action.toneId) ? [placed(action)] : [];
    case 'message':
      return [placed(action)];
    case 'control': {
      const { unitId, controlId, value } = action;
      return units.has(unitId) ? [placed({ kind: 'values', unitId, values: { [controlId]: value } })] : [];
    }
    case 'move': {
      const move = show.moves.find((m) => m.id === action.moveId);
      return (move?.steps ?? []).flatMap(({ unitId, controlId, value }) => {
        const unit = units.get(unitId);
        const bytes = unit && pressOf(unit, controlId, value);
        if (!bytes) return [];
        const beat = beatAt(song, at);
        return bytes.map(({ hex, beats }) => placed({ kind: 'message', unitId, bytes: hex }, beats * beat));
      });
    }
  }
}

/** Ticks of the beat that the tempo counts at a place. */
const beatAt = (song: Song, at: Ticks): Ticks =>
  (song.tempo.findLast((m) => m.at <= at) ?? song.tempo[0]!).beat * TICKS_PER_QUARTER;

/** The messages of one step of a move, each with the beats after the first. It is sent whatever the unit is on: a press is a press. */
function pressOf(unit: Unit, controlId: string, value: number): { hex: string; beats: number }[] | undefined {
  const control = unit.profile.controls.find((c) => c.id === controlId);
  if (!control) return undefined;
  const hex = (v: number): string[] => encodeValue(control.encoding, unit.channel, v).map((m) => toHex(m));
  if (!isTap(control.encoding)) return hex(value).map((h) => ({ hex: h, beats: 0 }));
  return Array.from({ length: Math.max(1, value) }, (_, i) => hex(i).map((h) => ({ hex: h, beats: i }))).flat();
}

/** One run of taps: at one tempo, with how many of them there is room for. */
export interface TapRun {
  readonly tapsId: string;
  readonly unitId: string;
  readonly at: Ticks;
  /** Ticks from tap to tap. */
  readonly beat: Ticks;
  readonly count: number;
  /** Whether the tempo stays; on a ramp no taps can give it. */
  readonly steady: boolean;
}

/** All runs of taps in a song: at its start and after each change of tempo. */
export function tapRuns(show: Show, song: Song): TapRun[] {
  const { units } = indexShow(show);
  const { end } = songTime(song);
  return song.taps.flatMap(({ id, unitId, count }) =>
    units.has(unitId)
      ? song.tempo.map((mark, k) => {
          const beat = mark.beat * TICKS_PER_QUARTER;
          const room = Math.ceil(((song.tempo[k + 1]?.at ?? end) - mark.at) / beat);
          const steady = mark.rampTo === null;
          return { tapsId: id, unitId, at: mark.at, beat, count: Math.max(0, Math.min(count, room)), steady };
        })
      : [],
  );
}

/** Taps at the start and after each change of tempo, as many as there is room for before the next change. */
function tapMoments(show: Show, song: Song): Placed[] {
  const { units } = indexShow(show);
  const { end } = songTime(song);
  return song.taps.flatMap(({ id, unitId, controlId, count }) => {
    const unit = units.get(unitId);
    if (!unit) return [];
    return song.tempo.flatMap((mark, k) => {
      const until = song.tempo[k + 1]?.at ?? end;
      const beat = mark.beat * TICKS_PER_QUARTER;
      return (pressOf(unit, controlId, count) ?? []).flatMap(({ hex, beats }): Placed[] => {
        const at = mark.at + beats * beat;
        if (at >= until) return [];
        const action = { kind: 'message', unitId, bytes: hex } as const;
        return [{ id, source: 'taps', at, shift: 0, landing: 'sent', action }];
      });
    });
  });
}

/** The effect's switch on, the values, the switch off, and the control at rest. */
function sweepMoments({ sweep, unit, control, points }: PlayedSweep): { moment: Placed; ends: boolean }[] {
  const at = (tick: Ticks, values: Readonly<Record<string, number>>): Placed => ({
    id: sweep.id,
    source: 'sweep',
    at: tick,
    shift: 0,
    landing: 'complete',
    action: { kind: 'values', unitId: unit.id, values },
  });
  const { switchId, from, to, after } = sweep;
  const rests = after === 'rest' && control.rest !== null;
  // A last value that the rest takes the place of at once is not worth a message.
  const list = points
    .filter((p) => !rests || p.at < to)
    .map((p) => ({ moment: at(p.at, { [control.id]: p.value }), ends: p.at >= to }));
  if (switchId !== null) {
    list.unshift({ moment: at(from, { [switchId]: 1 }), ends: false });
    list.push({ moment: at(to, { [switchId]: 0 }), ends: true });
  }
  if (rests) list.push({ moment: at(to, { [control.id]: control.rest }), ends: true });
  return list;
}
