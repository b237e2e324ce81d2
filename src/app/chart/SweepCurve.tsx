import { type Control, valueRange } from '../../core/addressing';
import { sweepValue } from '../../core/meaning';
import type { Sweep } from '../../core/show';
import { xOf, type ChartLine } from './layout';

interface Props {
  readonly sweep: Sweep;
  readonly control: Control;
  readonly line: ChartLine;
  readonly top: number;
  readonly height: number;
  readonly colour: string;
}

/** Pixels between two places that are drawn. */
const STEP = 3;

/** The part of a sweep that lies in a line, as a small curve in its unit's lane. */
export function SweepCurve({ sweep, control, line, top, height, colour }: Props) {
  const from = Math.max(sweep.from, line.tick);
  const to = Math.min(sweep.to, line.end);
  if (to <= from) return null;
  const { low, high } = valueRange(control.encoding);
  const [x0, x1] = [xOf(line, from), xOf(line, to)];
  const count = Math.max(1, Math.ceil((x1 - x0) / STEP));
  const path = Array.from({ length: count + 1 }, (_, i) => {
    const at = from + ((to - from) * i) / count;
    const share = (sweepValue(sweep, at) - low) / (high - low || 1);
    return `${i === 0 ? 'M' : 'L'}${(x0 + ((x1 - x0) * i) / count).toFixed(1)} ${(top + height - share * height).toFixed(1)}`;
  }).join('');
  return (
    <path
      d={path}
      fill="none"
      stroke={colour}
      strokeWidth={1.8}
      strokeLinejoin="round"
      opacity={sweep.muted ? 0.35 : 1}
    />
  );
}
