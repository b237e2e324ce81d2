import simplify from 'simplify-js';
import { Trash2, X } from 'lucide-react';
import { useRef, useState, type PointerEvent } from 'react';
import styled from 'styled-components';
import { valueRange } from '../../../core/addressing';
import {
  indexShow,
  playedSweeps,
  putSweep,
  removeSweep,
  songTime,
  sweepValue,
  sweepable,
  type Show,
  type Song,
  type Sweep,
} from '../../../core/show';
import { TICKS_PER_QUARTER, formatPosition, parsePosition } from '../../../core/time';
import { sweepWords } from '../../../wording';
import { Check } from '../../components/Check';
import { Button, SignButton, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { LanternMark, lanternWords } from '../../components/LanternMark';
import { Pick } from '../../components/Pick';
import { perform } from '../../state/desk';
import { useCueMark } from '../../state/marks';
import { desk } from '../../theme/tokens';

const Panel = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 16px;
  & h2 {
    font-size: 19px;
  }
`;

const Top = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  & > div {
    flex: 1;
    min-width: 0;
  }
`;

const Row = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: end;
`;

const Pad = styled.svg`
  display: block;
  width: 100%;
  height: 120px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px;
  background: #fff;
  cursor: crosshair;
  touch-action: none;
`;

const WIDTH = 250;
const HEIGHT = 120;
/** What is drawn by hand is simplified to within this share of the control's range. */
const DRAWN_ERROR = 0.01;

const FORMS = [
  { id: 'line', name: 'drawn, by points' },
  { id: 'rise', name: 'rising' },
  { id: 'fall', name: 'falling' },
  { id: 'triangle', name: 'up and down' },
  { id: 'sine', name: 'sine' },
  { id: 'steps', name: 'in steps' },
] as const;

const PERIODS = [
  { id: '0.5', name: 'half a beat' },
  { id: '1', name: 'a beat' },
  { id: '2', name: '2 beats' },
  { id: '4', name: '4 beats' },
  { id: 'all', name: 'all of it' },
];

const NONE = 'none';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly sweep: Sweep;
  readonly onClose: () => void;
}

/** One sweep: what it moves, from where to where, in which shape, and how it is left. */
export function SweepPanel({ show, song, sweep, onClose }: Props) {
  const mark = useCueMark(song.id, sweep.id);
  const { bars } = songTime(song);
  const unit = indexShow(show).units.get(sweep.unitId);
  const control = unit?.profile.controls.find((c) => c.id === sweep.controlId);
  const put = (part: Partial<Sweep>, label: string): string | null => {
    const edit = putSweep(show, song.id, { ...sweep, ...part });
    perform(edit, label);
    return edit ? null : 'an end after the start';
  };
  if (!unit || !control) return null;
  const { low, high } = valueRange(control.encoding);
  const { shape } = sweep;
  const place = (text: string): number | undefined => {
    const at = parsePosition(bars, text, song.bars);
    return at.ok ? at.ticks : undefined;
  };
  const form = (id: string): void => {
    if (id === 'line') {
      const length = sweep.to - sweep.from;
      const points = [0, 0.5, 1].map((s) => ({ at: s * length, value: sweepValue(sweep, sweep.from + s * length) }));
      put({ shape: { kind: 'line', points } }, 'draw a sweep');
      return;
    }
    const wave =
      shape.kind === 'wave' ? shape : { kind: 'wave' as const, low, high, period: sweep.to - sweep.from, steps: 8 };
    put({ shape: { ...wave, form: id as 'rise' } }, 'shape a sweep');
  };
  const figure = (key: 'low' | 'high', label: string) =>
    shape.kind === 'wave' && (
      <DraftField
        label={label}
        value={String(Math.round(shape[key] * 100) / 100)}
        numeric
        commit={(text) => {
          const value = Number(text.replace(',', '.'));
          if (text.trim() === '' || !(value >= low && value <= high)) return `${low} to ${high}`;
          return put({ shape: { ...shape, [key]: value } }, 'change a sweep');
        }}
      />
    );
  const switches = unit.profile.controls.filter((c) => c.encoding.kind === 'set-switch');
  const sent = playedSweeps(show, song).find((s) => s.sweep.id === sweep.id)?.points.length ?? 0;
  return (
    <Panel aria-label="Chosen sweep">
      <Top>
        <LanternMark mark={sweep.muted ? 'hollow' : mark} size={34} silent />
        <div>
          <h2>{sweepWords(show, sweep)}</h2>
          <Soft>{sweep.muted ? 'muted' : `${lanternWords(mark)}, ${sent} values`}</Soft>
        </div>
        <SignButton aria-label="Close" onPress={onClose}>
          <X size={17} />
        </SignButton>
      </Top>
      <Pick
        label="Moves"
        value={`${sweep.unitId} ${sweep.controlId}`}
        choices={sweepable(show).map((s) => ({
          id: `${s.unit.id} ${s.control.id}`,
          name: `${s.unit.name}: ${s.control.name}`,
        }))}
        onPick={(id) => {
          const next = sweepable(show).find((s) => `${s.unit.id} ${s.control.id}` === id)!;
          const range = valueRange(next.control.encoding);
          const wave = { kind: 'wave', form: 'rise', ...range, period: sweep.to - sweep.from, steps: 8 } as const;
          const { kind, form: f, low: l, high: h, period, steps } = wave;
          put(
            {
              unitId: next.unit.id,
              controlId: next.control.id,
              switchId: null,
              shape: { kind, form: f, low: l, high: h, period, steps },
            },
            'sweep another control',
          );
        }}
      />
      <Row>
        <DraftField
          label="From bar|beat"
          value={formatPosition(bars, sweep.from, song.bars)}
          commit={(text) => {
            const from = place(text);
            return from === undefined ? 'bar|beat' : put({ from }, 'move the start of a sweep');
          }}
        />
        <DraftField
          label="To bar|beat"
          value={formatPosition(bars, sweep.to, song.bars)}
          commit={(text) => {
            const to = place(text);
            return to === undefined ? 'bar|beat' : put({ to }, 'move the end of a sweep');
          }}
        />
      </Row>
      <Pick label="Shape" value={shape.kind === 'line' ? 'line' : shape.form} choices={FORMS} onPick={form} />
      {shape.kind === 'wave' ? (
        <>
          <Row>
            {figure('low', 'Low end')}
            {figure('high', 'High end')}
          </Row>
          <Row>
            <Pick
              label="One wave lasts"
              value={PERIODS.find((p) => Number(p.id) * TICKS_PER_QUARTER === shape.period)?.id ?? 'all'}
              choices={PERIODS}
              onPick={(id) =>
                put(
                  {
                    shape: { ...shape, period: id === 'all' ? sweep.to - sweep.from : Number(id) * TICKS_PER_QUARTER },
                  },
                  'change a sweep',
                )
              }
            />
            {shape.form === 'steps' && (
              <DraftField
                label="Steps"
                value={String(shape.steps)}
                numeric
                commit={(text) => {
                  const steps = Number(text);
                  if (!Number.isInteger(steps) || steps < 2 || steps > 64) return '2 to 64';
                  return put({ shape: { ...shape, steps } }, 'change a sweep');
                }}
              />
            )}
          </Row>
        </>
      ) : (
        <DraftField
          label="Points: beats from the start, and value"
          value={shape.points.map((p) => `${round(p.at / TICKS_PER_QUARTER)} ${round(p.value)}`).join(', ')}
          commit={(text) => {
            const points = pointsOf(text);
            if (!points || points.some((p) => p.value < low || p.value > high)) {
              return `pairs in order, as in "0 ${low}, 4 ${high}", values from ${low} to ${high}`;
            }
            return put({ shape: { kind: 'line', points } }, 'draw a sweep');
          }}
        />
      )}
      <DrawPad
        sweep={sweep}
        low={low}
        high={high}
        onDraw={(points) => void put({ shape: { kind: 'line', points } }, 'draw a sweep')}
      />
      <Pick
        label="Switch it on while it is swept"
        value={sweep.switchId ?? NONE}
        choices={[{ id: NONE, name: 'no switch' }, ...switches]}
        onPick={(id) => put({ switchId: id === NONE ? null : id }, 'change the switch of a sweep')}
      />
      <Pick
        label="Afterwards"
        value={sweep.after}
        choices={[
          { id: 'rest', name: control.rest === null ? 'to its rest (it has none)' : `to its rest, ${control.rest}` },
          { id: 'hold', name: 'stays where it is' },
        ]}
        onPick={(id) => put({ after: id as Sweep['after'] }, 'change how a sweep ends')}
      />
      <Row>
        <Check
          isSelected={sweep.muted}
          onChange={(muted) => void put({ muted }, muted ? 'mute a sweep' : 'unmute a sweep')}
        >
          Muted
        </Check>
        <Button
          onPress={() => {
            perform(removeSweep(show, song.id, sweep.id), 'remove a sweep');
            onClose();
          }}
        >
          <Trash2 size={15} aria-hidden /> Remove
        </Button>
      </Row>
    </Panel>
  );
}

const round = (value: number): number => Math.round(value * 100) / 100;

/** Points of a line as somebody types them; undefined where they are none, or out of order. */
function pointsOf(text: string): { at: number; value: number }[] | undefined {
  const points = text.split(/[,;]/).map((pair) => {
    const [beats, value] = pair.trim().split(/\s+/).map(Number);
    return { at: Math.round((beats ?? Number.NaN) * TICKS_PER_QUARTER), value: value ?? Number.NaN };
  });
  const sound = points.every(
    (p, i) => Number.isFinite(p.at) && Number.isFinite(p.value) && p.at >= (points[i - 1]?.at ?? 0),
  );
  return sound && points.length >= 2 ? points : undefined;
}

interface PadProps {
  readonly sweep: Sweep;
  readonly low: number;
  readonly high: number;
  readonly onDraw: (points: readonly { readonly at: number; readonly value: number }[]) => void;
}

/** The sweep as a curve; what is drawn over it by hand takes its place, simplified to within a hundredth of the range. */
function DrawPad({ sweep, low, high, onDraw }: PadProps) {
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
      const points = simplify(whole, DRAWN_ERROR, true);
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
