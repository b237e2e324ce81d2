import { valueRange, type Control } from '../../../core/addressing';
import { linePoints, reshaped } from '../../../core/meaning';
import { dipOf, figureIn, type Sweep } from '../../../core/show';
import { TICKS_PER_QUARTER } from '../../../core/time';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { DipPart } from './DipPart';
import { Halves } from './panelParts';

const FORMS = [
  { id: 'line', name: 'drawn, by points' },
  { id: 'dip', name: 'a level that comes back' },
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

interface Props {
  readonly sweep: Sweep;
  readonly control: Control;
  /** Takes another shape; gives what was expected where it cannot be. */
  readonly onShape: (shape: Sweep['shape'], label: string) => string | null;
}

const round = (value: number): number => Math.round(value * 100) / 100;

/** The form of a sweep, and what there is to set of that form. */
export function SweepShape({ sweep, control, onShape }: Props) {
  const { shape } = sweep;
  const dip = dipOf(shape);
  const { low, high } = valueRange(control.encoding);
  const drawn = (text: string): string | null => {
    const points = linePoints(text);
    if (!points || points.some((p) => p.value < low || p.value > high)) {
      return `pairs in order, as in "0 ${low}, 4 ${high}", values from ${low} to ${high}`;
    }
    return onShape({ kind: 'line', points }, 'draw a sweep');
  };
  return (
    <>
      <Pick
        label="Shape"
        value={shape.kind === 'wave' ? shape.form : dip ? 'dip' : 'line'}
        choices={FORMS}
        onPick={(form) => {
          onShape(reshaped(sweep, control, form), form === 'line' ? 'draw a sweep' : 'shape a sweep');
        }}
      />
      {shape.kind === 'wave' ? (
        <WaveFields sweep={sweep} shape={shape} control={control} onShape={onShape} />
      ) : dip ? (
        <DipPart
          dip={dip}
          low={low}
          high={high}
          length={sweep.to - sweep.from}
          onShape={(next) => onShape(next, 'change a sweep')}
        />
      ) : (
        <DraftField
          label="Points: beats from the start, and value"
          value={shape.points.map((p) => `${round(p.at / TICKS_PER_QUARTER)} ${round(p.value)}`).join(', ')}
          commit={drawn}
        />
      )}
    </>
  );
}

interface WaveProps extends Props {
  readonly shape: Extract<Sweep['shape'], { kind: 'wave' }>;
}

function WaveFields({ sweep, shape, control, onShape }: WaveProps) {
  const { low, high } = valueRange(control.encoding);
  const put = (part: Partial<typeof shape>): string | null => onShape({ ...shape, ...part }, 'change a sweep');
  const end = (key: 'low' | 'high', label: string) => (
    <DraftField
      label={label}
      value={String(round(shape[key]))}
      numeric
      commit={(text) => {
        const value = figureIn([low, high], text);
        return value === undefined ? `${low} to ${high}` : put({ [key]: value });
      }}
    />
  );
  return (
    <>
      <Halves>
        {end('low', 'Low end')}
        {end('high', 'High end')}
      </Halves>
      <Halves>
        <Pick
          label="One wave lasts"
          value={PERIODS.find((p) => Number(p.id) * TICKS_PER_QUARTER === shape.period)?.id ?? 'all'}
          choices={PERIODS}
          onPick={(id) => put({ period: id === 'all' ? sweep.to - sweep.from : Number(id) * TICKS_PER_QUARTER })}
        />
        {shape.form === 'steps' && (
          <DraftField
            label="Steps"
            value={String(shape.steps)}
            numeric
            commit={(text) => {
              const steps = Number(text);
              return Number.isInteger(steps) && steps >= 2 && steps <= 64 ? put({ steps }) : '2 to 64';
            }}
          />
        )}
      </Halves>
    </>
  );
}
