import { indexShow, type Show, type Unit } from '../show';

/** A place that a message passes on its way through the rig. */
export type WirePoint =
  | { readonly at: 'port-out'; readonly id: string }
  | { readonly at: 'port-in'; readonly id: string }
  | { readonly at: 'unit'; readonly id: string };

const key = (p: WirePoint): string => `${p.at} ${p.id}`;

/** Where a message that is at a point goes on by itself: along thru sockets and soft thru, not by relay rules. */
function onward(show: Show, point: WirePoint): WirePoint[] {
  const { ports, units } = indexShow(show);
  if (point.at === 'port-in') {
    return ports.get(point.id)?.softThru ? [{ at: 'port-out', id: point.id }] : [];
  }
  const fed = show.units.filter(({ input }) => {
    if (point.at === 'port-out') return input?.from === 'port' && input.portId === point.id;
    return input?.from === 'unit' && input.unitId === point.id && input.thru;
  });
  const next: WirePoint[] = fed.map((u) => ({ at: 'unit', id: u.id }));
  const returns = point.at === 'unit' ? units.get(point.id)?.returns : undefined;
  if (returns?.thru && ports.has(returns.portId)) next.push({ at: 'port-in', id: returns.portId });
  return next;
}

/** Ways on which a message comes back to where it started; each once, ports that are switched off left out. */
export function wireLoops(show: Show): readonly (readonly WirePoint[])[] {
  const { ports } = indexShow(show);
  const starts: WirePoint[] = [
    ...show.ports.map((p): WirePoint => ({ at: 'port-out', id: p.id })),
    ...show.units.map((u): WirePoint => ({ at: 'unit', id: u.id })),
  ];
  const loops: WirePoint[][] = [];
  const done = new Set<string>();
  const visit = (point: WirePoint, way: readonly WirePoint[]): void => {
    if (point.at !== 'unit' && ports.get(point.id)?.active === false) return;
    const again = way.findIndex((p) => key(p) === key(point));
    if (again >= 0) {
      loops.push(way.slice(again));
      return;
    }
    if (done.has(key(point))) return;
    for (const next of onward(show, point)) visit(next, [...way, point]);
    done.add(key(point));
  };
  for (const start of starts) visit(start, []);
  return loops;
}

/** Units that receive what leaves a port, the nearest first. */
export function hearers(show: Show, portId: string): Unit[] {
  const found: Unit[] = [];
  const seen = new Set<string>();
  let points: WirePoint[] = [{ at: 'port-out', id: portId }];
  while (points.length > 0) {
    points = points.flatMap((p) => onward(show, p)).filter((p) => p.at === 'unit' && !seen.has(p.id));
    for (const { id } of points) {
      if (seen.has(id)) continue;
      seen.add(id);
      found.push(indexShow(show).units.get(id)!);
    }
  }
  return found;
}

/** Ports on whose in side what is sent out of a port comes back by itself. */
export function returnsTo(show: Show, portId: string): string[] {
  const { ports } = indexShow(show);
  const found = new Set<string>();
  const seen = new Set<string>();
  let points: WirePoint[] = [{ at: 'port-out', id: portId }];
  while (points.length > 0) {
    points = points.flatMap((p) => onward(show, p)).filter((p) => p.at !== 'port-out' && !seen.has(key(p)));
    for (const p of points) {
      seen.add(key(p));
      if (p.at === 'port-in' && ports.get(p.id)?.active) found.add(p.id);
    }
    points = points.filter((p) => p.at === 'unit');
  }
  return [...found];
}

/** A cable of the stage, as the patch sheet lists it. */
export interface PatchRow {
  readonly number: number;
  readonly from: string;
  readonly fromSocket: 'out' | 'thru';
  readonly to: string;
  readonly toSocket: 'in';
  readonly cable: 'din' | 'usb';
  /** Channel that the unit at the end has to be set to; null for a cable back to the computer. */
  readonly channel: number | null;
  readonly listens: number | 'all' | null;
  readonly player: string;
  /** The cable leaves a splitter in the socket, not the socket itself. */
  readonly splitter: boolean;
  /** What is used instead when the cable or the unit at its end fails. */
  readonly spare: string;
}

/** Every cable of the rig, numbered port by port in the order of the chains. */
export function patchSheet(show: Show): PatchRow[] {
  const { players, ports, units } = indexShow(show);
  const rows: Omit<PatchRow, 'number'>[] = [];
  const listed = new Set<string>();
  const player = (u: Unit): string => (u.playerId === null ? '' : (players.get(u.playerId)?.name ?? ''));
  const spare = (...texts: string[]): string => texts.filter((t) => t !== '').join('; ');
  const back = (unit: Unit): void => {
    const port = unit.returns && ports.get(unit.returns.portId);
    if (!port || !unit.returns) return;
    const own = { channel: null, listens: null, player: player(unit), spare: spare(unit.spare, port.spare) } as const;
    const fromSocket = unit.returns.thru ? 'thru' : 'out';
    rows.push({
      from: unit.name,
      fromSocket,
      to: port.name,
      toSocket: 'in',
      cable: port.cable,
      splitter: false,
      ...own,
    });
  };
  const behind = (unit: Unit): void => {
    for (const next of show.units) {
      if (next.input?.from === 'unit' && next.input.unitId === unit.id && !listed.has(next.id)) {
        listed.add(next.id);
        rows.push({
          from: unit.name,
          fromSocket: next.input.thru ? 'thru' : 'out',
          to: next.name,
          toSocket: 'in',
          cable: 'din',
          splitter: unit.splitter,
          channel: next.channel,
          listens: next.listens,
          player: player(next),
          spare: next.spare,
        });
        behind(next);
        back(next);
      }
    }
  };
  for (const port of show.ports) {
    for (const unit of show.units) {
      if (unit.input?.from !== 'port' || unit.input.portId !== port.id) continue;
      listed.add(unit.id);
      rows.push({
        from: port.name,
        fromSocket: 'out',
        to: unit.name,
        toSocket: 'in',
        cable: port.cable,
        splitter: port.splitter,
        channel: unit.channel,
        listens: unit.listens,
        player: player(unit),
        spare: spare(unit.spare, port.spare),
      });
      behind(unit);
      back(unit);
    }
  }
  for (const unit of show.units) {
    if (listed.has(unit.id)) continue;
    if (unit.input === null) behind(unit);
    back(unit);
  }
  // Chains that run in a circle begin nowhere; their cables are listed all the same.
  for (const unit of units.values()) {
    if (unit.input?.from === 'unit' && !listed.has(unit.id)) behind(units.get(unit.input.unitId) ?? unit);
  }
  return rows.map((row, i) => ({ number: i + 1, ...row }));
}
