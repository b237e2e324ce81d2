import { encodingClaims } from '../addressing';
import { LIMITS } from './limits';
import type { HouseNumber, Show, Unit } from './schema';

// What is offered for something new: the first that is not taken.

/** Control numbers below are the standard's own more often than not; above, they have fixed meanings (MIDI 1.0, table III). */
const FIRST_NUMBER = 20;
const LAST_NUMBER = 95;

function firstFree(taken: ReadonlySet<number>): number {
  for (let n = FIRST_NUMBER; n <= LAST_NUMBER; n++) if (!taken.has(n)) return n;
  return FIRST_NUMBER;
}

/** The control numbers that something of a unit is on, but for one control of it. */
const takenControls = ({ profile }: Unit, butFor: string | null): ReadonlySet<number> =>
  new Set(
    [profile.variants, ...profile.controls.filter((c) => c.id !== butFor)].flatMap((c) =>
      (c ? encodingClaims(c.encoding) : []).flatMap((claim) => (claim.on === 'control' ? [claim.number] : [])),
    ),
  );

/** The first control number that nothing of a unit is on. */
export const freeControlNumber = (unit: Unit): number => firstFree(takenControls(unit, null));

/** Coarse control numbers of a pair, those first that the standard gives no meaning to (MIDI 1.0, table III). */
const COARSE: readonly number[] = (() => {
  const without = [20, 21, 22, 23, 24, 25, 26, 27, 28, 29, 30, 31, 3, 9, 14, 15];
  // 0 and 6 are bank and data entry.
  const rest = Array.from({ length: 31 }, (_, i) => i + 1).filter((n) => n !== 6 && !without.includes(n));
  return [...without, ...rest];
})();

/** The coarse number of the first pair for values of 14 bits of which nothing of a unit is on either half. */
export function freeControlPair(unit: Unit, butFor: string | null): number {
  const taken = takenControls(unit, butFor);
  return COARSE.find((n) => !taken.has(n) && !taken.has(n + 32)) ?? COARSE[0]!;
}

/** The first number that the house has no function for. */
export const freeHouseNumber = (house: readonly HouseNumber[]): number =>
  firstFree(new Set(house.map((h) => h.number)));

/** A name that no shared control number has yet. */
export function freeHouseName(house: readonly HouseNumber[]): string {
  for (let n = house.length + 1; ; n++) if (!house.some((h) => h.name === `Function ${n}`)) return `Function ${n}`;
}

/** The first channel that no unit is sent to on; 1 where all are taken. */
export function freeChannel({ units }: Pick<Show, 'units'>): number {
  const taken = new Set(units.map((u) => u.channel));
  for (let channel = 1; channel <= 16; channel++) if (!taken.has(channel)) return channel;
  return 1;
}

/**
 * Where a new unit is plugged in that is to hear a port: the port itself, or, where that is a 5-pin socket with a cable in
 * it, the thru of the last unit of its chain.
 */
export function freeInput({ ports, units }: Pick<Show, 'ports' | 'units'>, portId: string): NonNullable<Unit['input']> {
  const port = ports.find((p) => p.id === portId);
  const first = units.find((u) => u.input?.from === 'port' && u.input.portId === portId);
  if (!first || port?.cable !== 'din' || port.splitter) return { from: 'port', portId };
  const chain = [first.id];
  // Each of the chain is visited once: it grows while it is walked, and ends where nothing new hangs on the last.
  for (const id of chain) {
    const next = units.find(({ input }) => input?.from === 'unit' && input.thru && input.unitId === id);
    if (next && !chain.includes(next.id)) chain.push(next.id);
  }
  return { from: 'unit', unitId: chain.at(-1)!, thru: true };
}

/** A name that none of a list has, whatever its capitals: with a number behind it where it is taken. */
export function freeName(name: string, taken: readonly string[]): string {
  const known = new Set(taken.map((t) => t.trim().toLowerCase()));
  if (!known.has(name.trim().toLowerCase())) return name;
  for (let n = 2; ; n++) {
    const end = ` ${n}`;
    const next = `${name.slice(0, LIMITS.title - end.length)}${end}`;
    if (!known.has(next.toLowerCase())) return next;
  }
}
