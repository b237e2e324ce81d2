import { dipShape, type dipOf, type Sweep } from '../../../core/show';
import { TICKS_PER_QUARTER, type Ticks } from '../../../core/time';
import { DraftField } from '../../widgets/DraftField';
import { Row } from './panelParts';

interface Props {
  readonly dip: NonNullable<ReturnType<typeof dipOf>>;
  readonly low: number;
  readonly high: number;
  /** Of the sweep. */
  readonly length: Ticks;
  readonly onShape: (shape: Sweep['shape']) => string | null;
}

const figure = (text: string): number => (text.trim() === '' ? Number.NaN : Number(text.replace(',', '.')));

/** A level that goes down or up for a while: from where, to where, and how fast. */
export function DipPart({ dip, low, high, length, onShape }: Props) {
  const level = (key: 'from' | 'to', label: string) => (
    <DraftField
      label={label}
      value={String(dip[key])}
      numeric
      commit={(text) => {
        const value = figure(text);
        if (!(value >= low && value <= high)) return `${low} to ${high}`;
        const next = { ...dip, [key]: value };
        return onShape(dipShape(length, next.from, next.to, next.ramp));
      }}
    />
  );
  return (
    <Row style={{ flexWrap: 'nowrap' }}>
      {level('from', 'From')}
      {level('to', 'goes to')}
      <DraftField
        label="within, beats"
        value={String(Math.round((dip.ramp / TICKS_PER_QUARTER) * 100) / 100)}
        numeric
        commit={(text) => {
          const ramp = Math.round(figure(text) * TICKS_PER_QUARTER);
          if (!(ramp >= 0 && ramp <= length / 2)) return `0 to ${length / 2 / TICKS_PER_QUARTER}`;
          return onShape(dipShape(length, dip.from, dip.to, ramp));
        }}
      />
    </Row>
  );
}
