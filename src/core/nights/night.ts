import type { Called, UnitSpec } from '../rig';
import { effectAfter } from '../rig';
import type { TimedBytes } from '../midi';
import { indexShow, songTime, ticksAt, type Show, type Song, type Unit } from '../show';
import type { Timing } from '../simulate';
import { TICKS_PER_QUARTER, type Micros } from '../time';
import { Chance, drawTime } from './draw';

/** Of so many messages one leaves this much later: the computer had something else to do. */
const HICCUP = 2000;
const HICCUP_MICROS: Micros = 15_000;

/** How far from its place a clock from outside puts a beat: the deviation that the follower leaves of a clock that wobbles by 1 ms. */
const WOBBLE: Micros = 250;

/** A night of a show: which it is of those that one seed gives. Nights count from 0. */
export interface NightName {
  readonly seed: number;
  readonly night: number;
}

/**
 * How long everything takes on one night of one song. What a unit is like on the day is the same in all songs of the
 * night; all else is drawn by song, so that an edit of one song leaves the others as they were.
 */
export function nightTiming(show: Show, song: Song, { seed, night }: NightName): Timing {
  const { units } = indexShow(show);
  const forms = new Map<string, number>();
  const chance = new Chance(`${seed} ${night} ${song.id} units`);
  const formOf = (id: string): number => {
    let form = forms.get(id);
    if (form === undefined) forms.set(id, (form = new Chance(`${seed} ${night} ${id} form`).next()));
    return form;
  };
  const slots = new Map<Unit, ReadonlyMap<number, Unit['slots'][number]>>();
  const ownOf = (unit: Unit, index: number): Unit['slots'][number]['recall'] => {
    let own = slots.get(unit);
    if (!own) slots.set(unit, (own = new Map(unit.slots.filter((s) => s.recall).map((s) => [s.index, s]))));
    return own.get(index)?.recall ?? null;
  };
  return {
    effect: (spec: UnitSpec, called: Called, slot?: number | null): Micros => {
      const unit = units.get(spec.id);
      if (!unit) return effectAfter(spec, called, slot);
      const own = called === 'recall' && typeof slot === 'number' ? ownOf(unit, slot) : null;
      return drawTime(own ?? unit.profile.times[called], formOf(spec.id), chance);
    },
    settle: (spec: UnitSpec): Micros => {
      const unit = units.get(spec.id);
      return unit ? drawTime(unit.profile.times.settle, formOf(spec.id), chance) : spec.pace.settle;
    },
    thru: (spec: UnitSpec): Micros => {
      const unit = units.get(spec.id);
      return unit ? drawTime(unit.profile.times.thru, formOf(spec.id), chance) : spec.pace.thru;
    },
  };
}

/**
 * When each message of a song leaves on a night, in microseconds of the song: as planned, and what its port adds that
 * night; now and then a hiccup. On each port they leave in their order. Where the song follows a clock from outside,
 * each beat has its wobble.
 */
export function nightLeaves(
  show: Show,
  song: Song,
  events: readonly TimedBytes[],
  { seed, night }: NightName,
): Float64Array {
  const chance = new Chance(`${seed} ${night} ${song.id} ports`);
  const { ports } = indexShow(show);
  const forms = new Map(show.ports.map(({ id }) => [id, new Chance(`${seed} ${night} ${id} port`).next()]));
  const wobble =
    song.followsPortId === null ? null : wobblesOf(song, events, new Chance(`${seed} ${night} ${song.id} clock`));
  const last = new Map<string, Micros>();
  const leaves = new Float64Array(events.length);
  for (let i = 0; i < events.length; i++) {
    const { portId, at } = events[i]!;
    const port = ports.get(portId);
    let late = port ? drawTime(port.delay, forms.get(portId)!, chance) : 0;
    if (chance.once(HICCUP)) late += HICCUP_MICROS;
    if (wobble) late += wobble[i]!;
    const leftAt = Math.max(at + late, last.get(portId) ?? Number.NEGATIVE_INFINITY);
    leaves[i] = leftAt;
    last.set(portId, leftAt);
  }
  return leaves;
}

/** By how much the beat of each message is away from its place. */
function wobblesOf(song: Song, events: readonly TimedBytes[], chance: Chance): Float64Array {
  const time = songTime(song);
  const beats = new Map<number, Micros>();
  return Float64Array.from(events, ({ at }) => {
    const beat = Math.floor(ticksAt(time, at) / TICKS_PER_QUARTER);
    let off = beats.get(beat);
    if (off === undefined) beats.set(beat, (off = chance.normal(WOBBLE)));
    return off;
  });
}
