import { Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { valueRange, isFigure } from '../../../core/addressing';
import { pedalOn, storedPedal } from '../../../core/feet';
import {
  feetOf,
  figureIn,
  indexShow,
  putFootPedal,
  type FootPedal,
  type LayerId,
  type Show,
  type Unit,
} from '../../../core/show';
import { SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';

const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(390px, 1fr));
  gap: 12px;
`;

const Card = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 56px 56px 98px;
  align-items: end;
  gap: 8px;
  padding: 9px 12px 11px;
  border: 1.5px solid ${desk.line};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > h2 {
    grid-column: 1 / -1;
    font: 700 15px/1.2 ${font.display};
  }
`;

const NOTHING = 'nothing';
const NUMBER = 'number';
const BENDS = [
  { id: 'straight', name: 'straight' },
  { id: 'slow', name: 'slow at first' },
  { id: 'fast', name: 'fast at first' },
] as const;

/** Controls that a pedal of a controller can move: figures on one control number. */
const movable = (show: Show) =>
  show.units
    .filter((u) => u.profile.controller === null)
    .flatMap((u) =>
      u.profile.controls
        .filter((c) => isFigure(c.encoding))
        .map((c) => ({ id: `${u.id}/${c.id}`, name: `${u.name}: ${c.name}`, unitId: u.id, control: c })),
    );

interface Props {
  readonly unit: Unit;
  readonly layerId: LayerId;
}

/** The expression inputs of a page: what each moves, from where to where, along which curve. */
export function Pedals({ unit, layerId }: Props) {
  const { controller, senders } = unit.profile;
  if (controller!.pedals.length === 0) return null;
  return (
    <Row role="group" aria-label="Pedals">
      {controller!.pedals.map((id) => (
        <PedalCard
          key={`${layerId ?? ''}/${id}`}
          unit={unit}
          layerId={layerId}
          pedalId={id}
          name={senders.find((s) => s.id === id)?.name ?? id}
        />
      ))}
    </Row>
  );
}

function PedalCard({ unit, layerId, pedalId, name }: Props & { readonly pedalId: string; readonly name: string }) {
  const show = useShow();
  const feet = feetOf(show, unit.id);
  const page = feet.pages.find((p) => p.id === layerId) ?? null;
  const pedal = pedalOn(feet, page, pedalId);
  const own = layerId === null || page?.pedals.some((p) => p.id === pedalId) === true;
  const controls = movable(show);
  const put = (next: FootPedal | null): void =>
    void perform(putFootPedal(show, unit.id, layerId, pedalId, next), 'set a pedal');
  const pick = (id: string): void => {
    if (id === NOTHING) return put(null);
    if (id === NUMBER) {
      const does = { kind: 'number', channel: unit.channel, number: 11, from: 0, to: 127 } as const;
      return put({ id: pedalId, does, bend: pedal?.bend ?? 'straight' });
    }
    const { unitId, control } = controls.find((c) => c.id === id)!;
    const { low, high } = valueRange(control.encoding);
    const does = { kind: 'control', unitId, controlId: control.id, from: low, to: high } as const;
    put({ id: pedalId, does, bend: pedal?.bend ?? 'straight' });
  };
  const does = pedal?.does;
  const range = does?.kind === 'control' ? rangeOf(show, does) : ([0, 127] as const);
  const end = (which: 'from' | 'to', label: string) =>
    pedal && <EndField label={label} which={which} range={range} pedal={pedal} put={put} />;
  const stored = storedPedal(show, pedal);
  return (
    <Card aria-label={name}>
      <PedalHead name={name} pedal={pedal} own={own} stored={stored} />
      <Pick
        label="Moves"
        value={does ? (does.kind === 'number' ? NUMBER : `${does.unitId}/${does.controlId}`) : NOTHING}
        choices={[{ id: NOTHING, name: 'nothing' }, { id: NUMBER, name: 'a control number' }, ...controls]}
        onPick={pick}
      />
      {pedal && (
        <>
          {end('from', 'Heel')}
          {end('to', 'Toe')}
          <Pick label="Curve" value={pedal.bend} choices={BENDS} onPick={(bend) => put({ ...pedal, bend: bend })} />
          {own && layerId !== null && (
            <SignButton aria-label={`Clear ${name}`} onPress={() => put(null)}>
              <Trash2 size={16} aria-hidden />
            </SignButton>
          )}
          {does?.kind === 'number' && <PedalNumber does={does} put={put} pedal={pedal} />}
        </>
      )}
    </Card>
  );
}

interface EndFieldProps {
  readonly label: string;
  readonly which: 'from' | 'to';
  readonly range: readonly [number, number];
  readonly pedal: FootPedal;
  readonly put: (next: FootPedal | null) => void;
}

/** What the pedal sends at one of its ends. */
function EndField({ label, which, range, pedal, put }: EndFieldProps) {
  const { does } = pedal;
  return (
    <DraftField
      label={label}
      numeric
      value={String(does[which])}
      commit={(text) => {
        const value = figureIn(range, text);
        if (value === undefined || (does.kind === 'number' && !Number.isInteger(value)))
          return `${range[0]} to ${range[1]}`;
        put({ ...pedal, does: { ...does, [which]: value } });
        return null;
      }}
    />
  );
}

interface PedalHeadProps {
  readonly name: string;
  readonly pedal: FootPedal | null;
  readonly own: boolean;
  readonly stored: ReturnType<typeof storedPedal>;
}

/** The name of the pedal, and where it is from. */
function PedalHead({ name, pedal, own, stored }: PedalHeadProps) {
  return (
    <h2>
      {name}{' '}
      <Soft style={{ font: `500 13px ${font.text}` }}>
        {[
          pedal && !own ? 'on every page' : '',
          stored ? `control ${stored.number}, channel ${stored.channel}, ${stored.from} to ${stored.to}` : '',
        ]
          .filter((x) => x !== '')
          .join('; ')}
      </Soft>
    </h2>
  );
}

interface PedalNumberProps {
  readonly does: {
    readonly kind: 'number';
    readonly channel: number;
    readonly number: number;
    readonly from: number;
    readonly to: number;
  };
  readonly put: (next: FootPedal | null) => void;
  readonly pedal: FootPedal;
}

/** The control number and channel that a pedal sends. */
function PedalNumber({ does, put, pedal }: PedalNumberProps) {
  return (
    <>
      <DraftField
        label="Number, from 0"
        numeric
        value={String(does.number)}
        commit={(text) => {
          const number = figureIn([0, 119], text);
          if (number === undefined || !Number.isInteger(number)) return '0 to 119';
          put({ ...pedal, does: { ...does, number } });
          return null;
        }}
      />
      <DraftField
        label="Channel"
        numeric
        value={String(does.channel)}
        commit={(text) => {
          const channel = figureIn([1, 16], text);
          if (channel === undefined || !Number.isInteger(channel)) return '1 to 16';
          put({ ...pedal, does: { ...does, channel } });
          return null;
        }}
      />
    </>
  );
}

function rangeOf(show: Show, does: Extract<FootPedal['does'], { kind: 'control' }>): readonly [number, number] {
  const control = indexShow(show)
    .units.get(does.unitId)
    ?.profile.controls.find((c) => c.id === does.controlId);
  if (!control) return [0, 127];
  const { low, high } = valueRange(control.encoding);
  return [low, high];
}
