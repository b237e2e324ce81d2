import { newPort, type Show, type Unit, feetOf, indexShow } from '../show';

/** The one port of a rig whose computer is gone: what leaves the controller's out socket. */
export const BOAT_PORT = 'boat';

type Wired = Pick<Show, 'units' | 'ports'>;

/** Rigs as they are wired then, by the units that they are made of: most edits leave units alone. */
const wired = new WeakMap<Show['units'], Map<string, Wired>>();

const boats = new WeakMap<Show, Map<string, Show>>();

/**
 * The show as it is wired when the computer is gone: a controller feeds the units that the emergency wiring plugs in
 * behind it, over one 5-pin cable after the other. Cables between units stay, but where another is plugged in;
 * what hung on the computer's ports hangs on nothing.
 */
export function boatShow(show: Show, controllerId: string): Show {
  let made = boats.get(show);
  if (!made) boats.set(show, (made = new Map<string, Show>()));
  const kept = made.get(controllerId);
  if (kept) return kept;
  const boat: Show = { ...show, ...wiredThen(show, controllerId), reactions: [], feet: [] };
  made.set(controllerId, boat);
  return boat;
}

function wiredThen(show: Show, controllerId: string): Wired {
  let made = wired.get(show.units);
  if (!made) wired.set(show.units, (made = new Map<string, Wired>()));
  const { boat } = feetOf(show, controllerId);
  const key = JSON.stringify([controllerId, boat]);
  let found = made.get(key);
  if (!found) {
    const plugs = new Map(boat.map((b) => [b.id, b.from]));
    const name = indexShow(show).units.get(controllerId)?.name ?? 'Controller';
    const units = show.units.map((u) => ({ ...u, input: boatInput(u, controllerId, plugs), returns: null }));
    made.set(key, (found = { ports: [newPort(BOAT_PORT, name, 'din')], units }));
  }
  return found;
}

function boatInput(unit: Unit, controllerId: string, plugs: ReadonlyMap<string, string>): Unit['input'] {
  if (unit.id === controllerId) return null;
  const from = plugs.get(unit.id);
  if (from === controllerId) return { from: 'port', portId: BOAT_PORT };
  if (from !== undefined) return { from: 'unit', unitId: from, thru: true };
  return unit.input?.from === 'unit' ? unit.input : null;
}
