import { valueRange, type Control } from '../addressing';
import { dipShape, type Sweep, type Unit } from '../show';
import { TICKS_PER_QUARTER } from '../time';
import { sweepValue } from './sweeps';

/** What a sweep can be shaped as: a line that is drawn, a level that comes back, or one of the waves. */
export type SweepForm = 'line' | 'dip' | Extract<Sweep['shape'], { kind: 'wave' }>['form'];

/** A dip goes so much of the way to the far end of what the control can do. */
const DIP_DOWN = 0.6;
const LIFT_UP = 0.4;

/** The same stretch of the same control in another form, as near to what it was as that form can be. */
export function reshaped(sweep: Sweep, control: Control, form: SweepForm): Sweep['shape'] {
  const { low, high } = valueRange(control.encoding);
  const length = sweep.to - sweep.from;
  if (form === 'dip') {
    const from = control.rest ?? high;
    const to = from > (low + high) / 2 ? low + (from - low) * DIP_DOWN : from + (high - from) * LIFT_UP;
    return dipShape(length, from, Math.round(to * 100) / 100, Math.min(TICKS_PER_QUARTER, length / 4));
  }
  if (form === 'line') {
    const points = [0, 0.5, 1].map((s) => ({ at: s * length, value: sweepValue(sweep, sweep.from + s * length) }));
    return { kind: 'line', points };
  }
  const { shape } = sweep;
  return shape.kind === 'wave' ? { ...shape, form } : { kind: 'wave', form, low, high, period: length, steps: 8 };
}

/** What a sweep becomes when it moves another control: that one from end to end, no switch with it. */
export function sweptOn(sweep: Sweep, unit: Unit, control: Control): Partial<Sweep> {
  const { low, high } = valueRange(control.encoding);
  const shape = { kind: 'wave', form: 'rise', low, high, period: sweep.to - sweep.from, steps: 8 } as const;
  return { unitId: unit.id, controlId: control.id, switchId: null, shape };
}

/** Points of a line as somebody types them, beats from the start and value, "0 20, 4 80"; undefined where they are none, or out of order. */
export function linePoints(text: string): { at: number; value: number }[] | undefined {
  const points = text.split(/[,;]/).map((pair) => {
    const [beats, value] = pair.trim().split(/\s+/).map(Number);
    return { at: Math.round((beats ?? Number.NaN) * TICKS_PER_QUARTER), value: value ?? Number.NaN };
  });
  const sound = points.every(
    (p, i) => Number.isFinite(p.at) && Number.isFinite(p.value) && p.at >= (points[i - 1]?.at ?? 0),
  );
  return sound && points.length >= 2 ? points : undefined;
}
