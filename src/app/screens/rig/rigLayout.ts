import { indexShow, type Show, type Socket, type Unit } from '../../../core/show';

export interface Box {
  readonly id: string;
  readonly x: number;
  readonly y: number;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A cable of the drawing. */
export interface Cable {
  readonly unitId: string;
  readonly which: 'input' | 'returns';
  readonly from: Point;
  readonly to: Point;
  readonly usb: boolean;
  readonly thru: boolean;
}

export interface RigDrawing {
  readonly ports: readonly Box[];
  readonly units: readonly Box[];
  readonly cables: readonly Cable[];
  readonly width: number;
  readonly height: number;
}

export const PORT_WIDTH = 148;
export const UNIT_WIDTH = 194;
export const BOX_HEIGHT = 60;
const COLUMN = 256;
const ROW = 74;
const FIRST_COLUMN = 216;

/** Where a socket sits on its box. */
export function socketPoint(box: Box, { of, socket }: Pick<Socket, 'of' | 'socket'>): Point {
  if (of === 'port') return { x: box.x + PORT_WIDTH, y: box.y + (socket === 'out' ? 19 : 43) };
  if (socket === 'in') return { x: box.x, y: box.y + BOX_HEIGHT / 2 };
  return { x: box.x + UNIT_WIDTH, y: box.y + (socket === 'out' ? 19 : 43) };
}

/**
 * Places for ports in a column and behind each the units that it feeds, chains going to the
 * right. Units that hang on nothing stand at the end.
 */
export function layOutRig(show: Show): RigDrawing {
  const boxes = new Map<string, Box>();
  const ports: Box[] = [];
  let row = 0;
  let columns = 1;
  const behind = (unit: Unit): Unit[] =>
    show.units.filter((u) => u.input?.from === 'unit' && u.input.unitId === unit.id && !boxes.has(u.id));
  const put = (unit: Unit, column: number): void => {
    boxes.set(unit.id, { id: unit.id, x: FIRST_COLUMN + column * COLUMN, y: row * ROW });
    columns = Math.max(columns, column + 1);
    const next = behind(unit);
    if (next.length === 0) row += 1;
    for (const u of next) if (!boxes.has(u.id)) put(u, column + 1);
  };
  for (const port of show.ports) {
    const start = row;
    ports.push({ id: port.id, x: 0, y: start * ROW });
    for (const u of show.units) if (u.input?.from === 'port' && u.input.portId === port.id) put(u, 0);
    row = Math.max(row, start + 1);
  }
  // Controllers that only send stand beside the port that they send to, where there is room.
  for (const unit of show.units) {
    if (boxes.has(unit.id) || unit.input !== null) continue;
    const port = unit.returns && ports.find((p) => p.id === unit.returns!.portId);
    const free = port && ![...boxes.values()].some((b) => b.y === port.y);
    if (port && free) {
      boxes.set(unit.id, { id: unit.id, x: FIRST_COLUMN, y: port.y });
      columns = Math.max(columns, 1);
      for (const u of behind(unit)) put(u, 1);
    } else put(unit, 0);
  }
  for (const unit of show.units) if (!boxes.has(unit.id)) put(unit, 0);
  const units = show.units.map((u) => boxes.get(u.id)!);
  return {
    ports,
    units,
    cables: cablesOf(show, boxes, new Map(ports.map((p) => [p.id, p]))),
    width: FIRST_COLUMN + (columns - 1) * COLUMN + UNIT_WIDTH + 24,
    height: Math.max(row, ports.length) * ROW,
  };
}

function cablesOf(show: Show, boxes: ReadonlyMap<string, Box>, portBoxes: ReadonlyMap<string, Box>): Cable[] {
  const { ports } = indexShow(show);
  return show.units.flatMap((unit): Cable[] => {
    const own = boxes.get(unit.id)!;
    const found: Cable[] = [];
    const { input, returns } = unit;
    const taken = socketPoint(own, { of: 'unit', socket: 'in' });
    if (input?.from === 'port' && portBoxes.has(input.portId)) {
      const from = socketPoint(portBoxes.get(input.portId)!, { of: 'port', socket: 'out' });
      const usb = ports.get(input.portId)!.cable === 'usb';
      found.push({ unitId: unit.id, which: 'input', from, to: taken, usb, thru: false });
    }
    if (input?.from === 'unit' && boxes.has(input.unitId)) {
      const from = socketPoint(boxes.get(input.unitId)!, { of: 'unit', socket: input.thru ? 'thru' : 'out' });
      found.push({ unitId: unit.id, which: 'input', from, to: taken, usb: false, thru: input.thru });
    }
    if (returns && portBoxes.has(returns.portId)) {
      const from = socketPoint(own, { of: 'unit', socket: returns.thru ? 'thru' : 'out' });
      const to = socketPoint(portBoxes.get(returns.portId)!, { of: 'port', socket: 'in' });
      const usb = ports.get(returns.portId)!.cable === 'usb';
      found.push({ unitId: unit.id, which: 'returns', from, to, usb, thru: returns.thru });
    }
    return found;
  });
}

/** A cable as a curve that hangs a little, leaving and entering level; one that goes back runs under the boxes. */
export function cablePath({ from, to, which }: Pick<Cable, 'from' | 'to' | 'which'>): string {
  if (which === 'returns') {
    const low = Math.max(from.y, to.y) + 26;
    const out = from.x + 44;
    return `M${from.x} ${from.y} C${out} ${from.y} ${out} ${low} ${out - 50} ${low} L${to.x + 34} ${low} C${to.x + 14} ${low} ${to.x + 26} ${to.y} ${to.x} ${to.y}`;
  }
  const reach = Math.max(34, Math.abs(to.x - from.x) / 2);
  return `M${from.x} ${from.y} C${from.x + reach} ${from.y} ${to.x - reach} ${to.y} ${to.x} ${to.y}`;
}
