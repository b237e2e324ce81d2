import { Trash2, X } from 'lucide-react';
import styled from 'styled-components';
import { valueRange } from '../../../core/addressing';
import {
  dipOf,
  dipShape,
  indexShow,
  putSweep,
  removeSweep,
  songTime,
  stretchSweep,
  sweepable,
  type Show,
  type Song,
  type Sweep,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import { playedSweeps, sweepValue } from '../../../core/meaning';
import { TICKS_PER_QUARTER, formatPosition, parsePosition, type Ticks } from '../../../core/time';
import { sweepWords } from '../../../wording';
import { Check } from '../../components/Check';
import { Button, SignButton, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { FindingList } from '../../components/FindingList';
import { LanternMark, lanternWords } from '../../components/LanternMark';
import { Pick } from '../../components/Pick';
import { perform } from '../../state/desk';
import { findingsOf, useSongFindings } from '../../state/findings';
import { useCueMark } from '../../state/marks';
import { DipPart } from './DipPart';
import { DrawPad } from './DrawPad';
import { RecordPart } from './RecordPart';

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
  const found = findingsOf(useSongFindings(show, song), sweep.id);
  const { bars } = songTime(song);
  const unit = indexShow(show).units.get(sweep.unitId);
  const control = unit?.profile.controls.find((c) => c.id === sweep.controlId);
  const put = (part: Partial<Sweep>, label: string): string | null => {
    const edit = putSweep(show, song.id, { ...sweep, ...part });
    perform(edit, label);
    return edit ? null : 'an end after the start';
  };
  const stretch = (from: Ticks, to: Ticks): string | null => {
    const edit = putSweep(show, song.id, stretchSweep(sweep, from, to));
    perform(edit, 'change a sweep');
    return edit ? null : 'an end after the start';
  };
  if (!unit || !control) return null;
  const { low, high } = valueRange(control.encoding);
  const { shape } = sweep;
  const dip = dipOf(shape);
  const place = (text: string): number | undefined => {
    const at = parsePosition(bars, text, song.bars);
    return at.ok ? at.ticks : undefined;
  };
  const form = (id: string): void => {
    if (id === 'dip') {
      const length = sweep.to - sweep.from;
      const from = control.rest ?? high;
      const to = from > (low + high) / 2 ? low + (from - low) * 0.6 : from + (high - from) * 0.4;
      put(
        { shape: dipShape(length, from, Math.round(to * 100) / 100, Math.min(TICKS_PER_QUARTER, length / 4)) },
        'shape a sweep',
      );
      return;
    }
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
      {found.length > 0 && <FindingList findings={found} well="" inSong />}
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
            return from === undefined ? 'bar|beat' : stretch(from, sweep.to);
          }}
        />
        <DraftField
          label="To bar|beat"
          value={formatPosition(bars, sweep.to, song.bars)}
          commit={(text) => {
            const to = place(text);
            return to === undefined ? 'bar|beat' : stretch(sweep.from, to);
          }}
        />
      </Row>
      <Pick
        label="Shape"
        value={shape.kind === 'wave' ? shape.form : dip ? 'dip' : 'line'}
        choices={FORMS}
        onPick={form}
      />
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
      ) : dip ? (
        <DipPart
          dip={dip}
          low={low}
          high={high}
          length={sweep.to - sweep.from}
          onShape={(next) => put({ shape: next }, 'change a sweep')}
        />
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
      <RecordPart
        show={show}
        song={song}
        sweep={sweep}
        onRecorded={(points) =>
          void put(
            {
              shape: {
                kind: 'line',
                points: points.map((p) => ({ at: p.at, value: low + p.share * (high - low) })),
              },
            },
            'record a sweep',
          )
        }
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
      <DraftField
        label="Milliseconds between values, at least"
        value={String(sweep.spacing)}
        numeric
        commit={(text) => {
          const spacing = figureIn(RANGES.spacingMillis, text);
          if (spacing === undefined) return rangeWords(RANGES.spacingMillis);
          return put({ spacing }, 'thin a sweep');
        }}
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
