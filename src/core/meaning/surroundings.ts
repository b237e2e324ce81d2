import { wireText, type RigSpec, type UnitSpec } from '../rig';
import { openingOf, type Move, type Port, type Show, type Song, type Tone, type Unit } from '../show';
import { rigSpec } from './rigOf';

/** All of a show that a song's messages, and what is said of them, depend on beside the song itself. */
export type Surroundings = Pick<
  Show,
  'units' | 'ports' | 'tones' | 'moves' | 'openingToneId' | 'tolerance' | 'margin' | 'guard'
> & {
  readonly rig: RigSpec;
};

/** The parts of a show that decide what a song sends. Compared by identity in `sameSurroundings`. */
export const surroundingsOf = (show: Show): Surroundings => {
  const { units, ports, tones, moves, openingToneId, tolerance, margin, guard } = show;
  return { units, ports, tones, moves, openingToneId, tolerance, margin, guard, rig: rigSpec(show) };
};

/** Whether all that is said of a song under the one, names too, holds under the other: shows share what an edit did not touch. */
export const sameSurroundings = (a: Surroundings, b: Omit<Surroundings, 'rig'>): boolean =>
  a.units === b.units &&
  a.ports === b.ports &&
  a.tones === b.tones &&
  a.moves === b.moves &&
  a.openingToneId === b.openingToneId &&
  a.tolerance === b.tolerance &&
  a.margin === b.margin &&
  a.guard === b.guard;

/**
 * Whether a song comes out as the same bytes, wanting the same of the same units, under both:
 * names, notes and colours may differ, and so may tones and moves that the song does not use.
 */
export function sameToWires(song: Song, a: Surroundings, b: Surroundings): boolean {
  if (sameSurroundings(a, b)) return true;
  if (!alike(a.ports, b.ports, portText) || !alike(a.units, b.units, unitText)) return false;
  if (a.rig !== b.rig && !alike(a.rig.units, b.rig.units, wireText)) return false;
  return sameWishes(song, a, b);
}

/**
 * Whether a song's units are sent the same under both. What only one of them has, a unit, a port, a preset or a control,
 * the song does not call: else it would be another song, or have other tones. Bytes as they stand may call any of it.
 */
export function sendsAlike(song: Song, a: Surroundings, b: Surroundings): boolean {
  if (sameSurroundings(a, b)) return true;
  // Bytes go on through a unit to what hangs behind it, and that cable may be the slowest.
  if (hasOthersBehind(a.rig.units, b.rig.units) || hasOthersBehind(b.rig.units, a.rig.units)) return false;
  const raw = song.cues.some((c) => c.action.kind === 'message');
  const opening = openingOf(a, song);
  const called = new Set(
    [...usedBy(song).tones, ...(opening === null ? [] : [opening])].flatMap((id) =>
      (byId(a.tones).get(id)?.parts ?? []).flatMap((p) => p.slotId ?? []),
    ),
  );
  const shared = <T extends Known>(list: readonly T[], other: readonly T[]): readonly T[] => {
    if (raw || list === other) return list;
    const known = byId(other);
    return list.filter((item) => known.has(item.id) || called.has(item.id));
  };
  const unit = (one: Unit, other: Unit): Unit => ({ ...one, slots: shared(one.slots, other.slots) });
  const spec = (one: UnitSpec, other: UnitSpec): UnitSpec => {
    const controls = shared(one.profile.controls, other.profile.controls);
    return { ...one, profile: { ...one.profile, controls } };
  };
  return (
    alikeInBoth(a.ports, b.ports, portText) &&
    alikeInBoth(a.units, b.units, unitText, unit) &&
    alikeInBoth(a.rig.units, b.rig.units, wireText, spec) &&
    sameWishes(song, a, b)
  );
}

/** Whether a song asks the same of its tones, its moves and its opening under both, and is judged alike. */
function sameWishes(song: Song, a: Surroundings, b: Surroundings): boolean {
  if (a.tolerance.after !== b.tolerance.after || a.tolerance.before !== b.tolerance.before) return false;
  if (a.margin !== b.margin || a.guard !== b.guard) return false;
  if (openingOf(a, song) !== openingOf(b, song)) return false;
  const used = usedBy(song);
  const opening = openingOf(a, song);
  const tones = opening === null ? used.tones : new Set([...used.tones, opening]);
  return (
    alikeWhere(tones, byId(a.tones), byId(b.tones), toneText) &&
    alikeWhere(used.moves, byId(a.moves), byId(b.moves), moveText)
  );
}

/** What a text leaves out does not count. */
function alike<T extends object>(a: readonly T[], b: readonly T[], text: (item: T) => string): boolean {
  return a === b || (a.length === b.length && a.every((item, i) => item === b[i] || text(item) === text(b[i]!)));
}

/** Whether there are units behind other units that are not among the second ones. */
const hasOthersBehind = (units: readonly UnitSpec[], others: readonly UnitSpec[]): boolean =>
  units !== others && units.some((u) => u.input?.from === 'unit' && !byId(others).has(u.id));

interface Known {
  readonly id: string;
}

/** Whether those that are in both are alike, as far as each is compared with the other. */
function alikeInBoth<T extends Known>(
  a: readonly T[],
  b: readonly T[],
  text: (item: T) => string,
  comparable: (one: T, other: T) => T = (one) => one,
): boolean {
  if (a === b) return true;
  const later = byId(b);
  return a.every((was) => {
    const now = later.get(was.id);
    return now === undefined || now === was || text(comparable(now, was)) === text(comparable(was, now));
  });
}

function alikeWhere<T extends object>(
  ids: ReadonlySet<string>,
  a: ReadonlyMap<string, T>,
  b: ReadonlyMap<string, T>,
  text: (item: T) => string,
): boolean {
  if (a === b) return true;
  for (const id of ids) {
    const [one, other] = [a.get(id), b.get(id)];
    if (one === other) continue;
    if (!one || !other || text(one) !== text(other)) return false;
  }
  return true;
}

/** A function of an object that is worked out once an object. */
function once<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const made = new WeakMap<K, V>();
  return (key) => {
    let value = made.get(key);
    if (value === undefined) made.set(key, (value = make(key)));
    return value;
  };
}

const portText = once(({ id, cable, active, softThru, delay }: Port) =>
  JSON.stringify([id, cable, active, softThru, delay.typical, delay.worst]),
);

/** What the map adds to what wires know: the channel that it sends on, what is kept free, and which slot lies where. */
const unitText = once(({ id, channel, margin, guard, slots }: Unit) =>
  JSON.stringify([id, channel, margin, guard, slots.map((s) => [s.id, s.index, s.startVariant, s.startControls])]),
);

const toneText = once(({ parts }: Tone) => JSON.stringify(parts));
const moveText = once(({ steps }: Move) => JSON.stringify(steps));

const maps = new WeakMap<object, ReadonlyMap<string, unknown>>();

function byId<T extends { readonly id: string }>(list: readonly T[]): ReadonlyMap<string, T> {
  let map = maps.get(list) as ReadonlyMap<string, T> | undefined;
  if (!map) maps.set(list, (map = new Map(list.map((item) => [item.id, item]))));
  return map;
}

const usedBy = once((song: Song) => {
  const tones = new Set<string>();
  const moves = new Set<string>();
  for (const { action } of song.cues) {
    if (action.kind === 'tone') tones.add(action.toneId);
    else if (action.kind === 'move') moves.add(action.moveId);
  }
  return { tones, moves };
});
