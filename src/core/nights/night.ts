import type { Called, UnitSpec } from '../rig';
import { effectAfter } from '../rig';
import { leaderOf, type Leader } from '../meaning';
import type { TimedBytes } from '../midi';
import { indexShow, microsAt, songTime, ticksAt, type Show, type Song, type Unit } from '../show';
import type { Timing } from '../simulate';
import { TICKS_PER_QUARTER, type Micros } from '../time';
import { Chance, drawTime } from './draw';

/** Of so many messages one leaves this much later: the computer had something else to do. */
const HICCUP = 2000;
const HICCUP_MICROS: Micros = 15_000;

/** How far from its place whatever leads puts a beat: the deviation that the follower leaves of one that wobbles by 1 ms. */
const WOBBLES: Readonly<Record<Exclude<Leader, 'own'>, Micros>> = { clock: 250, code: 150 };

/** One song in so many has what leads it drop out, for up to so long. */
const DROP_OUT = 20;
const DROP_OUT_MICROS: Micros = 2_000_000;
/** By how much two machines' clocks run apart, as a share: what plays on by its own clock is so much further off each second. */
const APART = 50e-6;

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
 * night; now and then a hiccup. On each port they leave in their order. Where a clock or time code leads the song, each
 * beat has its wobble, and now and then what leads drops out: the song plays on by our own clock until it is back.
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
  const leader = leaderOf(show, song);
  const wobble =
    leader === 'own'
      ? null
      : wobblesOf(song, events, WOBBLES[leader], new Chance(`${seed} ${night} ${song.id} ${leader}`));
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
function wobblesOf(song: Song, events: readonly TimedBytes[], deviation: Micros, chance: Chance): Float64Array {
  const time = songTime(song);
  const end = microsAt(time, time.end);
  const drops = chance.once(DROP_OUT);
  const [from, length, apart] = [chance.next() * end, chance.next() * DROP_OUT_MICROS, chance.normal(APART)];
  const beats = new Map<number, Micros>();
  return Float64Array.from(events, ({ at }) => {
    const beat = Math.floor(ticksAt(time, at) / TICKS_PER_QUARTER);
    let off = beats.get(beat);
    if (off === undefined) beats.set(beat, (off = chance.normal(deviation)));
    return drops && at >= from && at < from + length ? off + (at - from) * apart : off;
  });
}
