import simplify from 'simplify-js';
import { useRef, useState, type PointerEvent } from 'react';
import styled from 'styled-components';
import { sweepValue } from '../../../core/meaning';
import type { Sweep } from '../../../core/show';
import { desk } from '../../theme/tokens';
import { SWEEP_ERROR } from './sweepError';

const Pad = styled.svg`
  display: block;
  width: 100%;
  height: 120px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px;
  background: ${desk.field};
  cursor: crosshair;
  touch-action: none;
`;

const WIDTH = 250;
const HEIGHT = 120;
interface PadProps {
  readonly sweep: Sweep;
  readonly low: number;
  readonly high: number;
  readonly onDraw: (points: readonly { readonly at: number; readonly value: number }[]) => void;
}

/** The sweep as a curve; what is drawn over it by hand takes its place, simplified to within a hundredth of the range. */
export function DrawPad({ sweep, low, high, onDraw }: PadProps) {
  const [drawn, setDrawn] = useState<readonly { readonly x: number; readonly y: number }[]>([]);
  const drawing = useRef(false);
  const length = sweep.to - sweep.from;
  const curve = Array.from({ length: WIDTH / 2 + 1 }, (_, i) => {
    const value = sweepValue(sweep, sweep.from + (i * 2 * length) / WIDTH);
    return `${i === 0 ? 'M' : 'L'}${i * 2} ${(HEIGHT - ((value - low) / (high - low || 1)) * HEIGHT).toFixed(1)}`;
  }).join('');
  const spot = (event: PointerEvent<SVGSVGElement>): { x: number; y: number } => {
    const box = event.currentTarget.getBoundingClientRect();
    const share = (value: number): number => Math.min(1, Math.max(0, value));
    return { x: share((event.clientX - box.left) / box.width), y: share(1 - (event.clientY - box.top) / box.height) };
  };
  const end = (): void => {
    if (!drawing.current) return;
    drawing.current = false;
    // Hands go back now and then; time does not.
    const forward = drawn.filter((p, i) => i === 0 || p.x > drawn[i - 1]!.x);
    if (forward.length >= 2) {
      const [first, last] = [forward[0]!, forward.at(-1)!];
      const whole = [{ ...first, x: 0 }, ...forward, { ...last, x: 1 }];
      const points = simplify(whole, SWEEP_ERROR, true);
      onDraw(points.map((p) => ({ at: Math.round(p.x * length), value: low + p.y * (high - low) })));
    }
    setDrawn([]);
  };
  return (
    <Pad
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label="Curve of the sweep; draw over it with the pointer"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drawing.current = true;
        setDrawn([spot(event)]);
      }}
      onPointerMove={(event) => drawing.current && setDrawn([...drawn, spot(event)])}
      onPointerUp={end}
    >
      <path d={curve} fill="none" stroke={desk.tide} strokeWidth={2} />
      {drawn.length > 1 && (
        <path
          d={drawn.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x * WIDTH} ${HEIGHT - p.y * HEIGHT}`).join('')}
          fill="none"
          stroke={desk.lampDeep}
          strokeWidth={2.5}
        />
      )}
    </Pad>
  );
}
