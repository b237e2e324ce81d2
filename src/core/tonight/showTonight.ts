import { applyEdit, setOf, withoutControls, type Show, type Song, type Tone, type Tonight, type Unit } from '../show';
import { asOther, matchOther, partTonight, stillThere, type OtherUnit } from './otherUnit';

declare const tonight: unique symbol;

/**
 * A show as the night has it. Whatever is proven, played, checked or printed takes this type, not a show as it is
 * written: so the compiler finds who forgot to ask for the night.
 */
export type ShowTonight = Show & { readonly [tonight]: true };

const made = new WeakMap<Show, ShowTonight>();
const written = new WeakMap<Show, Show>();

/** Members as they were made before from the same ones: what did not change stays the same object. */
function keeper<T extends object>(): (of: T, key: string, make: () => T) => T {
  const kept = new WeakMap<T, { readonly key: string; readonly value: T }>();
  return (of, key, make) => {
    const before = kept.get(of);
    if (before?.key === key) return before.value;
    const value = make();
    kept.set(of, { key, value });
    return value;
  };
}

const songs = keeper<Song>();
const tones = keeper<Tone>();
const units = keeper<Unit>();

/**
 * The show as it is played tonight: of a unit that is off nothing is wanted, and nothing reaches it; a spare
 * listens on its own channel, and works as the firmware that it has; another unit in the place of one is sent what
 * stands in its map for what tones want. The set that is played from says so.
 */
export function tonightOf(show: Show): ShowTonight {
  const { tonight } = setOf(show);
  if (tonight.length === 0) return show as ShowTonight;
  const kept = made.get(show);
  if (kept) return kept;
  const others = tonight.filter((t): t is OtherUnit => t.how === 'other');
  const result = others.reduce(withOther, withoutUnits(show, tonight)) as ShowTonight;
  made.set(show, result);
  written.set(result, show);
  // Of what is made for tonight nothing more has to be made.
  made.set(result, result);
  return result;
}

/** The show with what is off and what is replaced by its spare. */
function withoutUnits(show: Show, tonight: readonly Tonight[]): Show {
  const off = new Set(tonight.filter((t) => t.how === 'off').map((t) => t.unitId));
  const key = [...off].sort().join();
  const away = new Map(tonight.map((t) => [t.unitId, t]));
  const moves = show.moves.flatMap((m) => {
    const steps = m.steps.filter((s) => !off.has(s.unitId));
    return steps.length === m.steps.length ? [m] : steps.length === 0 ? [] : [{ ...m, steps }];
  });
  const named = new Set(moves.map((m) => m.id));
  const gone = show.moves.filter((m) => !named.has(m.id)).map((m) => m.id);
  return {
    ...show,
    units: show.units.map((u) => {
      const how = away.get(u.id);
      // Relay rules that call a unit that is off go nowhere.
      return units(u, JSON.stringify([how ?? null, key]), () => withoutRelays(how ? changed(u, how) : u, off));
    }),
    tones: off.size === 0 ? show.tones : show.tones.map((t) => tones(t, key, () => withoutParts(t, off))),
    moves: off.size === 0 ? show.moves : moves,
    songs:
      off.size === 0
        ? show.songs
        : show.songs.map((s) => songs(s, `${key}|${gone.join()}`, () => without(s, off, gone))),
  };
}

const numbers = new WeakMap<OtherUnit, number>();
let count = 0;
/** A number for each choice of another unit: the same choice is the same object as long as it is not edited. */
function numberOf(other: OtherUnit): number {
  let number = numbers.get(other);
  if (number === undefined) numbers.set(other, (number = count++));
  return number;
}

const otherUnits = keeper<Unit>();
const otherTones = keeper<Tone>();

/** The show with another unit in the place of one: what stands for what is looked for once a show. */
function withOther(show: Show, other: OtherUnit): Show {
  const unit = show.units.find((u) => u.id === other.unitId);
  if (!unit) return show;
  const match = matchOther(show, unit, other);
  const key = `${numberOf(other)} ${JSON.stringify([...match.slots].map(([id, s]) => [id, s?.id]))}`;
  const replaced = otherUnits(unit, key, () => asOther(unit, other, match));
  const tones = show.tones.map((tone) =>
    tone.parts.some((p) => p.unitId === unit.id)
      ? otherTones(tone, key, () => ({
          ...tone,
          parts: tone.parts.map((p) => (p.unitId === unit.id ? partTonight(unit, p, other, match) : p)),
        }))
      : tone,
  );
  const edits = withoutControls(show, unit.id, stillThere(match));
  const left = edits.length === 0 ? show : applyEdit(show, { kind: 'group', edits });
  return { ...left, tones, units: show.units.map((u) => (u === unit ? replaced : u)) };
}

/** The show as it is written, of one that was made for the night here; the same where nothing differs tonight. */
export const writtenOf = (show: Show | ShowTonight): Show => written.get(show) ?? show;

/** Units that are off tonight, by id. */
export const unitsOff = (show: ShowTonight): ReadonlySet<string> =>
  new Set(setOf(show).tonight.flatMap((t) => (t.how === 'off' ? [t.unitId] : [])));

function changed(unit: Unit, how: Tonight): Unit {
  if (how.how === 'off') return { ...unit, input: null, returns: null };
  if (how.how === 'other') return unit;
  const { channel, firmware } = how;
  const all = firmware === '' ? [] : [unit.profile, ...unit.versions];
  const profile = all.find((v) => v.firmware === firmware) ?? unit.profile;
  return { ...unit, channel, listens: channel, profile, answered: null };
}

function withoutRelays(unit: Unit, off: ReadonlySet<string>): Unit {
  const relays = unit.relays.filter((r) => !off.has(r.toUnitId));
  return relays.length === unit.relays.length ? unit : { ...unit, relays };
}

function withoutParts(tone: Tone, off: ReadonlySet<string>): Tone {
  const parts = tone.parts.filter((p) => !off.has(p.unitId));
  return parts.length === tone.parts.length ? tone : { ...tone, parts };
}

function without(song: Song, off: ReadonlySet<string>, goneMoves: readonly string[]): Song {
  const cues = song.cues.filter(({ action }) =>
    action.kind === 'tone'
      ? true
      : action.kind === 'move'
        ? !goneMoves.includes(action.moveId)
        : !off.has(action.unitId),
  );
  const sweeps = song.sweeps.filter((s) => !off.has(s.unitId));
  const taps = song.taps.filter((t) => !off.has(t.unitId));
  const same =
    cues.length === song.cues.length && sweeps.length === song.sweeps.length && taps.length === song.taps.length;
  return same ? song : { ...song, cues, sweeps, taps };
}

/** The songs of the set that want something of a unit, each with how many changes would not be heard if it were off. */
export function changesFor(
  show: Show,
  unitId: string,
): readonly { readonly songId: string; readonly changes: number }[] {
  const { entries } = setOf(show);
  const inSet = new Set(entries.flatMap((e) => (e.kind === 'song' ? [e.songId] : [])));
  const wanting = new Set(show.tones.filter((t) => t.parts.some((p) => p.unitId === unitId)).map((t) => t.id));
  const moving = new Set(show.moves.filter((m) => m.steps.some((s) => s.unitId === unitId)).map((m) => m.id));
  return show.songs.flatMap((song) => {
    if (!inSet.has(song.id)) return [];
    const cues = song.cues.filter(({ action }) =>
      action.kind === 'tone'
        ? wanting.has(action.toneId)
        : action.kind === 'move'
          ? moving.has(action.moveId)
          : action.unitId === unitId,
    ).length;
    const sweeps = song.sweeps.filter((s) => s.unitId === unitId).length;
    return cues + sweeps > 0 ? [{ songId: song.id, changes: cues + sweeps }] : [];
  });
}
