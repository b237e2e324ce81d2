import { encodeValue, sameOnTheWire, type Control } from '../addressing';
import { DIN_BYTE_MICROS } from '../midi';
import { TICKS_PER_QUARTER, secondsToTicks, ticksToSeconds, type Millis, type TempoMap, type Ticks } from '../time';
import { LIMITS, SWEEP_SPACING, indexShow, songTime, type Show, type Song, type Sweep, type Unit } from '../show';
import { routeTo } from './rigOf';

/** A value of a swept control and its place. */
export interface SweepPoint {
  readonly at: Ticks;
  readonly value: number;
}

/** The drawn value at a place; before the sweep its first, after it its last. */
export function sweepValue(sweep: Sweep, at: Ticks): number {
  const into = Math.min(Math.max(at, sweep.from), sweep.to) - sweep.from;
  const { shape } = sweep;
  if (shape.kind === 'line') return lineValue(shape.points, into);
  const { form, low, high, period, steps } = shape;
  const whole = Math.floor(into / period);
  // The very end belongs to the period that it closes, so that a ramp reaches its top.
  const closed = into > 0 && into === whole * period && at >= sweep.to;
  const share = closed ? 1 : into / period - whole;
  return low + reachOf(form, share, steps) * (high - low);
}

/** How high a wave is, from 0 to 1, at a share of its period. */
function reachOf(form: Extract<Sweep['shape'], { kind: 'wave' }>['form'], share: number, steps: number): number {
  switch (form) {
    case 'rise':
      return share;
    case 'fall':
      return 1 - share;
    case 'triangle':
      return 1 - Math.abs(2 * share - 1);
    case 'sine':
      return (1 - Math.cos(2 * Math.PI * share)) / 2;
    case 'steps':
      return Math.min(steps - 1, Math.floor(share * steps)) / (steps - 1);
  }
}

function lineValue(points: readonly SweepPoint[], into: Ticks): number {
  const next = points.findIndex((p) => p.at > into);
  if (next < 0) return points.at(-1)!.value;
  const b = points[next]!;
  const a = points[next - 1];
  return a ? a.value + ((b.value - a.value) * (into - a.at)) / (b.at - a.at) : b.value;
}

/** Places where a sweep turns or jumps: they are met exactly. */
function corners({ from, to, shape }: Sweep): Ticks[] {
  const found = [from, to];
  if (shape.kind === 'line') found.push(...shape.points.map((p) => from + p.at));
  else {
    const { form, period, steps } = shape;
    const step = period / (form === 'steps' ? steps : form === 'triangle' || form === 'sine' ? 2 : 1);
    for (let k = 1; from + k * step < to; k++) found.push(Math.round(from + k * step));
  }
  return [...new Set(found.filter((at) => at >= from && at <= to))].sort((a, b) => a - b);
}

/**
 * The values to send for a sweep, on whole ticks: at most one every `spacing` ms, those that
 * the wire cannot tell from the one before left out, the first and the last exact.
 */
export function sweepPoints(tempo: TempoMap, sweep: Sweep, control: Control, spacing: Millis): SweepPoint[] {
  const places: Ticks[] = [];
  const marks = corners(sweep);
  for (let i = 0; i < marks.length; i++) {
    const start = marks[i]!;
    places.push(start);
    const end = marks[i + 1];
    if (end === undefined) break;
    const [a, b] = [ticksToSeconds(tempo, start), ticksToSeconds(tempo, end)];
    const count = Math.floor(((b - a) * 1000) / spacing);
    for (let k = 1; k < count; k++) places.push(Math.round(secondsToTicks(tempo, a + ((b - a) * k) / count)));
  }
  const points: SweepPoint[] = [];
  let lastAt = Number.NEGATIVE_INFINITY;
  for (const at of places) {
    const value = sweepValue(sweep, at);
    const before = points.at(-1);
    const seconds = ticksToSeconds(tempo, at);
    const end = at === sweep.to;
    if (before && sameOnTheWire(control.encoding, before.value, value)) continue;
    // Corners nearer to each other than the spacing: the later counts, the end always.
    if (before && !end && (seconds - lastAt) * 1000 < spacing - 1e-6) continue;
    if (before && end && (seconds - lastAt) * 1000 < spacing - 1e-6 && points.length > 1) points.pop();
    points.push({ at, value });
    lastAt = seconds;
  }
  return points;
}

/** Milliseconds that one value of a sweep keeps its port busy; 0 where the cable is fast. */
function loadOf(show: Show, unit: Unit, control: Control): Millis {
  const route = routeTo(show, unit);
  const port = route && indexShow(show).ports.get(route.portId);
  if (port?.cable !== 'din') return 0;
  const bytes = encodeValue(control.encoding, unit.channel, control.rest ?? firstValue(control));
  return (bytes.reduce((n, m) => n + m.length, 0) * DIN_BYTE_MICROS) / 1000;
}

const firstValue = ({ encoding }: Control): number => ('low' in encoding ? Math.min(encoding.low, encoding.high) : 0);

/** A sweep that is played, with the unit and control that it moves and how far apart its values are. */
export interface PlayedSweep {
  readonly sweep: Sweep;
  readonly unit: Unit;
  readonly control: Control;
  readonly points: readonly SweepPoint[];
}

/** So many ticks behind the end of its song a sweep is still sent. */
const FAR_BEHIND: Ticks = 1000 * TICKS_PER_QUARTER;

/**
 * A song's sweeps as they are sent. Those that run at once on one port share half of it, so
 * that other changes find room: the more there are, the further apart their values.
 */
export function playedSweeps(show: Show, song: Song): PlayedSweep[] {
  const { units } = indexShow(show);
  const { tempo, end } = songTime(song);
  const heard = song.sweeps.flatMap((sweep) => {
    const unit = units.get(sweep.unitId);
    const control = unit?.profile.controls.find((c) => c.id === sweep.controlId);
    if (sweep.muted || !unit || !control || !(sweep.to > sweep.from)) return [];
    return [{ sweep, unit, control, portId: routeTo(show, unit)?.portId, load: loadOf(show, unit, control) }];
  });
  return heard.map(({ sweep, unit, control, portId }) => {
    const together = heard.filter((o) => o.portId === portId && o.sweep.from < sweep.to && sweep.from < o.sweep.to);
    // What lies far behind the song is told by the checks; its values would be without number.
    const sent = { ...sweep, to: Math.min(sweep.to, Math.max(end, sweep.from) + FAR_BEHIND) };
    const length = (ticksToSeconds(tempo, sent.to) - ticksToSeconds(tempo, sent.from)) * 1000;
    const share = 2 * together.reduce((sum, o) => sum + o.load, 0);
    const spacing = Math.max(SWEEP_SPACING, sweep.spacing, share, length / LIMITS.sweepValues);
    return { sweep, unit, control, points: sweepPoints(tempo, sent, control, spacing) };
  });
}
