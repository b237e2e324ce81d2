import type { Port } from '../../core/show';
import type { RealPort } from '../adapters/realPorts';
import type { PortUse, RealName } from '../persistence/rows';

type Direction = RealPort['direction'];

const isAlike = (port: RealPort, { name, maker }: Pick<RealName, 'name' | 'maker'>, direction: Direction): boolean =>
  port.direction === direction && port.name === name && port.maker === maker;

/** A port as it is remembered: by the browser's key, by its name and maker, and by its place among those of the same name. */
export function nameOf(port: RealPort, ports: readonly RealPort[]): RealName {
  const alike = ports.filter((p) => isAlike(p, port, port.direction));
  const { key, name, maker } = port;
  return { key, name, maker, twins: alike.length, place: alike.findIndex((p) => p.key === key) };
}

/**
 * The real port that is remembered under a name: the very one, by the browser's key. Plugged in again it may
 * have another key: then the only one of its name, or, of twins, the one in its place once all of them are
 * there. Never another device, and none whose key is in `taken`. Undefined where it is not there.
 */
export function portNamed(
  ports: readonly RealPort[],
  named: RealName | null,
  direction: Direction,
  taken: ReadonlySet<string> = NONE,
): RealPort | undefined {
  if (!named) return undefined;
  const alike = ports.filter((p) => isAlike(p, named, direction));
  const same = alike.find((p) => p.key === named.key);
  if (same) return same;
  if (alike.length !== named.twins) return undefined;
  const found = alike[Math.max(0, named.place)];
  return found && !taken.has(found.key) ? found : undefined;
}

const NONE: ReadonlySet<string> = new Set();

/** Keys of ports that are there and that some port of the show is bound to by their very key. */
export function takenKeys(uses: Readonly<Record<string, PortUse>>, ports: readonly RealPort[]): ReadonlySet<string> {
  const there = new Set(ports.map((p) => p.key));
  const keys = Object.values(uses).flatMap(({ out, in: input }) => [out, input].flatMap((n) => (n ? [n.key] : [])));
  return new Set(keys.filter((k) => there.has(k)));
}

/**
 * The same uses with each name as its port is there now: under another key, or with a twin that was not
 * there before. Twins that are away for now are still counted. The same object where nothing changes.
 */
export function namesNow(
  uses: Readonly<Record<string, PortUse>>,
  ports: readonly RealPort[],
): Readonly<Record<string, PortUse>> {
  const taken = takenKeys(uses, ports);
  let changed = false;
  const now = (named: RealName | null, direction: Direction): RealName | null => {
    const port = portNamed(ports, named, direction, taken);
    if (!named || !port) return named;
    const found = nameOf(port, ports);
    if (found.key === named.key && found.twins <= named.twins) return named;
    changed = true;
    return found;
  };
  const next = Object.fromEntries(
    Object.entries(uses).map(([id, use]) => [id, { ...use, out: now(use.out, 'out'), in: now(use.in, 'in') }]),
  );
  return changed ? next : uses;
}

/** What a port is called on screen: twins are told apart by their place. */
export function shownName(port: RealPort, ports: readonly RealPort[]): string {
  const { name, twins, place } = nameOf(port, ports);
  return twins > 1 ? `${name} (${place + 1} of ${twins})` : name;
}

/** A port of the show that was bound to a real one of a name somewhere else, and is not bound here. */
export interface KnownPort {
  readonly port: Port;
  readonly direction: Direction;
  readonly name: string;
  /** Real ports here that are called so and that nothing is bound to. */
  readonly alike: readonly RealPort[];
}

/** Ports that were bound to real ones on another computer and are not on this one. */
export function knownElsewhere(
  ports: readonly Port[],
  uses: Readonly<Record<string, PortUse>>,
  real: readonly RealPort[],
): readonly KnownPort[] {
  const taken = takenKeys(uses, real);
  return ports.flatMap((port) =>
    (['out', 'in'] as const).flatMap((direction): KnownPort[] => {
      const name = port.known[direction];
      if (name === '' || uses[port.id]?.[direction]) return [];
      const alike = real.filter((r) => r.direction === direction && r.name === name && !taken.has(r.key));
      return [{ port, direction, name, alike }];
    }),
  );
}
