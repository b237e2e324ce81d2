import fc from 'fast-check';
import type { Profile, Time, TimedThing } from '../addressing';
import type { TimedBytes } from '../midi';
import { acceptsAgainAfter, effectAfter, type Called, type UnitSpec } from '../rig';
import type { Show } from '../show';
import type { Micros } from '../time';
import { randomShow, type RandomChoice } from './randomShow';

/** Shows whose times vary, and that keep more or less free around their changes; `show` gives the rest. */
export const varied = <T extends { readonly show: Show }>(shows: fc.Arbitrary<T>): fc.Arbitrary<T> =>
  fc
    .tuple(
      shows,
      fc.record({
        margin: fc.constantFrom(0, 1, 5, 12),
        guard: fc.constantFrom(0, 1, 3, 8),
        spreads: fc.array(fc.constantFrom(0, 0.5, 2, 6, 20), { minLength: 6, maxLength: 6 }),
        slow: fc.option(fc.nat(19), { nil: null }),
        delay: fc.constantFrom(0, 0, 0.4, 3),
      }),
    )
    .map(([drawn, { margin, guard, spreads, slow, delay }]) => {
      let next = 0;
      const spread = (time: Time): Time => ({ ...time, worst: time.typical + spreads[next++ % spreads.length]! });
      const times = (profile: Profile): Profile['times'] => {
        const list = Object.entries(profile.times) as [TimedThing, Time][];
        return Object.fromEntries(list.map(([thing, time]) => [thing, spread(time)])) as Profile['times'];
      };
      const { show } = drawn;
      const units = show.units.map((unit, i) => ({
        ...unit,
        profile: { ...unit.profile, times: { ...times(unit.profile), thru: unit.profile.times.thru } },
        slots: unit.slots.map((slot, k) =>
          i === 0 && k === slow
            ? { ...slot, recall: { ...unit.profile.times.recall, typical: 230, worst: 240 } }
            : slot,
        ),
      }));
      const ports = show.ports.map((port) => ({ ...port, delay: { ...port.delay, typical: delay, worst: delay * 2 } }));
      return { ...drawn, show: { ...show, margin, guard, units, ports } };
    });

/** Every time of every unit longer by so much. */
export const slowerBy = (by: Micros) => ({
  effect: (unit: UnitSpec, called: Called, slot?: number | null): Micros => effectAfter(unit, called, slot) + by,
  settle: (unit: UnitSpec): Micros => acceptsAgainAfter(unit) + by,
  thru: ({ pace }: UnitSpec): Micros => pace.thru,
});

/** Messages that leave later, each by its own time, in their order on each port. */
export function leaveLater(events: readonly TimedBytes[], by: (i: number) => Micros): Float64Array {
  const last = new Map<string, Micros>();
  return Float64Array.from(events, ({ portId, at }, i) => {
    const leaves = Math.max(at + by(i), last.get(portId) ?? Number.NEGATIVE_INFINITY);
    last.set(portId, leaves);
    return leaves;
  });
}

/** Random shows, of which every second has times that vary, and keeps something free. */
export const anyShow = (choice: number | RandomChoice): ReturnType<typeof randomShow> =>
  fc.oneof(randomShow(choice), varied(randomShow(choice)));
