import { isContinuous, linear, newController, type Controller, type Profile, type Sender } from '../../addressing';
import { indexShow } from '../find';
import type { Show } from '../schema';
import { changeProfile, type ProfileChange } from './profiles';

/** The most that a floor is long and wide, in switches. */
const SIDE = 16;

type Placed = Controller['switches'][number];

/** A number that no sender uses yet, from one on; the last where all are taken. */
function freeNumber(senders: readonly Sender[], from: number): number {
  const used = new Set(senders.flatMap((s) => ('number' in s.encoding ? [s.encoding.number] : [])));
  for (let n = from; n < 120; n++) if (!used.has(n)) return n;
  return 119;
}

/** A sender under a name and id of its own: "Switch 11", "Pedal 3". */
function fresh(senders: readonly Sender[], word: 'Switch' | 'Pedal', channel: number): Sender {
  const taken = new Set(senders.flatMap((s) => [s.id, s.name]));
  let n = 1;
  while (taken.has(`${word} ${n}`) || taken.has(`${word.toLowerCase()}-${n}`)) n += 1;
  const base = { id: `${word.toLowerCase()}-${n}`, name: `${word} ${n}`, channel };
  if (word === 'Pedal') return { ...base, encoding: linear(freeNumber(senders, 11), 0, 100, '%') };
  return { ...base, encoding: { kind: 'momentary', number: freeNumber(senders, 102), press: 127, release: 0 } };
}

/** A change of a unit's floor; nothing where the unit has none, or what is asked cannot be. */
function change(
  show: Show,
  unitId: string,
  next: (profile: Profile, floor: Controller) => Profile | null,
): ProfileChange {
  const profile = indexShow(show).units.get(unitId)?.profile;
  const after = profile?.controller ? next(profile, profile.controller) : null;
  return after ? changeProfile(show, unitId, after) : { ok: true, edit: null, dropped: [] };
}

const channelOf = ({ senders }: Profile, floor: Controller): number => senders[0]?.channel ?? floor.call.channel;

/** The first place of a row that is free; null in a full one. */
const freeIn = (switches: readonly Placed[], row: number): number | null => {
  const taken = new Set(switches.filter((s) => s.row === row).map((s) => s.column));
  const free = Array.from({ length: SIDE }, (_, i) => i).find((i) => !taken.has(i));
  return free ?? null;
};

/** Lays out a floor for any unit: of the switches and pedals that it has, or of four new switches. */
export function layOutFloor(show: Show, unitId: string): ProfileChange {
  const unit = indexShow(show).units.get(unitId);
  if (!unit || unit.profile.controller) return { ok: true, edit: null, dropped: [] };
  const senders = [...unit.profile.senders];
  if (!senders.some((s) => !isContinuous(s.encoding))) {
    for (let i = 0; i < 4; i++) senders.push(fresh(senders, 'Switch', unit.channel));
  }
  return changeProfile(show, unitId, { ...unit.profile, senders, controller: newController(senders) });
}

/** Adds a switch to a row, counted from the far side, in its first free place. Nothing where the row is full. */
export const addSwitch = (show: Show, unitId: string, row: number): ProfileChange =>
  change(show, unitId, (profile, floor) => {
    const column = freeIn(floor.switches, row);
    if (column === null || row < 0 || row >= SIDE) return null;
    const sender = fresh(profile.senders, 'Switch', channelOf(profile, floor));
    const switches = [...floor.switches, { id: sender.id, row, column }];
    return { ...profile, senders: [...profile.senders, sender], controller: { ...floor, switches } };
  });

/** Adds a row of switches at the feet, as long as the one before it. Nothing where there is no room for one. */
export const addRow = (show: Show, unitId: string): ProfileChange =>
  change(show, unitId, (profile, floor) => {
    const last = Math.max(...floor.switches.map((s) => s.row));
    if (last + 1 >= SIDE) return null;
    const senders = [...profile.senders];
    const switches = [...floor.switches];
    for (const { column } of floor.switches.filter((s) => s.row === last)) {
      const sender = fresh(senders, 'Switch', channelOf(profile, floor));
      senders.push(sender);
      switches.push({ id: sender.id, row: last + 1, column });
    }
    return { ...profile, senders, controller: { ...floor, switches } };
  });

/** Adds an expression pedal to a unit's floor. Nothing happens where there is no room for one more. */
export const addPedal = (show: Show, unitId: string): ProfileChange =>
  change(show, unitId, (profile, floor) => {
    if (floor.pedals.length >= SIDE) return null;
    const sender = fresh(profile.senders, 'Pedal', channelOf(profile, floor));
    const pedals = [...floor.pedals, sender.id];
    return { ...profile, senders: [...profile.senders, sender], controller: { ...floor, pedals } };
  });

/** Takes a switch or pedal off the floor, and what pages have on it. The last switch stays. */
export const removeFromFloor = (show: Show, unitId: string, senderId: string): ProfileChange =>
  change(show, unitId, (profile, floor) => {
    const switches = floor.switches.filter((s) => s.id !== senderId);
    if (switches.length === 0) return null;
    const pedals = floor.pedals.filter((id) => id !== senderId);
    const senders = profile.senders.filter((s) => s.id !== senderId);
    return { ...profile, senders, controller: { ...floor, switches, pedals } };
  });

/** Moves a switch by rows and columns; one that lies there already goes to where it came from. Nothing beyond the floor's edge. */
export const moveSwitch = (
  show: Show,
  unitId: string,
  switchId: string,
  by: { readonly rows: number; readonly columns: number },
): ProfileChange =>
  change(show, unitId, (profile, floor) => {
    const own = floor.switches.find((s) => s.id === switchId);
    if (!own) return null;
    const [row, column] = [own.row + by.rows, own.column + by.columns];
    if (row < 0 || row >= SIDE || column < 0 || column >= SIDE) return null;
    const switches = floor.switches.map((s) =>
      s === own
        ? { ...s, row, column }
        : s.row === row && s.column === column
          ? { ...s, row: own.row, column: own.column }
          : s,
    );
    return { ...profile, controller: { ...floor, switches } };
  });
