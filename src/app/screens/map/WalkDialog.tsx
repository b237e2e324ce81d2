import { Footprints } from 'lucide-react';
import { useState, type RefObject } from 'react';
import { Form } from 'react-aria-components';
import {
  indexOfLabel,
  labelOf,
  keepsOf,
  slotCount,
  valueRange,
  type Variants,
  type Control,
} from '../../../core/addressing';
import type { UnitAim } from '../../../core/rig';
import { indexShow } from '../../../core/show';
import { Choices } from '../../widgets/Choices';
import { DialogButton } from '../../widgets/DialogButton';
import { Button, FormProblem, Field, Input, Label, MainButton } from '../../widgets/controls';
import { Last, Pair, Rows } from '../../widgets/dialogParts';
import { Pick } from '../../widgets/Pick';
import { stopWalk, walk } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import type { Run } from './useSlotSheet';

/** Steps that a walk through a continuous control takes. */
const VALUE_STEPS = 8;

/** Sends one thing after the other, every so many seconds, so that the hands stay on the instrument. */
export function WalkDialog({ unitId, run }: { readonly unitId: string; readonly run: RefObject<Run> }) {
  const walking = useNews((s) => (s.news.walk?.unitId === unitId ? s.news.walk : null));
  const [from, setFrom] = useState<Run>({ first: 0, count: 1 });
  if (walking) {
    return (
      <Button onPress={() => void stopWalk()} aria-label={`Stop the walk, ${walking.at + 1} of ${walking.count}`}>
        <Footprints size={16} aria-hidden /> Stop, {walking.at + 1}/{walking.count}
      </Button>
    );
  }
  return (
    <DialogButton
      face={
        <>
          <Footprints size={16} aria-hidden /> Walk
        </>
      }
      title="Step through presets"
      onOpen={() => setFrom(run.current)}
    >
      {(close) => <WalkForm unitId={unitId} run={from} close={close} />}
    </DialogButton>
  );
}

const slotAims = (a: number, b: number): UnitAim[] =>
  Array.from({ length: Math.abs(b - a) + 1 }, (_, i) => ({ slot: a <= b ? a + i : a - i, controls: {} }));

const variantAims = (variants: Variants | null): UnitAim[] =>
  (variants?.names ?? []).map((_, variant) => ({ variant, controls: {} }));

/** The values of a control, from its lowest to its highest. */
function valueAims(control: Control | undefined): UnitAim[] {
  if (!control) return [];
  const { low, high, step } = valueRange(control.encoding);
  const count = step === 0 ? VALUE_STEPS + 1 : Math.min(128, high - low + 1);
  return Array.from({ length: count }, (_, i) => ({
    controls: { [control.id]: step === 0 ? low + (i * (high - low)) / VALUE_STEPS : low + i },
  }));
}

function WalkForm({ unitId, run, close }: { readonly unitId: string; readonly run: Run; readonly close: () => void }) {
  const unit = indexShow(useShow()).units.get(unitId)!;
  const { plan, variants } = unit.profile;
  const controls = unit.profile.controls.filter((c) => keepsOf(c.encoding) === 'value');
  const end = run.count > 1 ? run.first + run.count - 1 : Math.min(run.first + 7, slotCount(plan) - 1);
  const [what, setWhat] = useState<'slots' | 'variants' | 'control'>('slots');
  const [from, setFrom] = useState(labelOf(plan, run.first));
  const [to, setTo] = useState(labelOf(plan, end));
  const [controlId, setControlId] = useState(controls[0]?.id ?? '');
  const [seconds, setSeconds] = useState('3');
  const first = indexOfLabel(plan, from);
  const last = indexOfLabel(plan, to);
  const every = Number(seconds);
  const wrong =
    what === 'slots' && (first === undefined || last === undefined)
      ? `Slots are written like ${labelOf(plan, 0)}.`
      : !(every >= 0.2 && every <= 600)
        ? 'Every 0.2 to 600 seconds.'
        : null;
  const start = (): void => {
    if (wrong !== null) return;
    const control = controls.find((c) => c.id === controlId);
    const aims =
      what === 'slots' ? slotAims(first!, last!) : what === 'variants' ? variantAims(variants) : valueAims(control);
    void walk({ unitId: unit.id, aims, everyMillis: every * 1000 });
    close();
  };
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        start();
      }}
    >
      <Rows>
        <ThroughChoice what={what} setWhat={setWhat} variants={variants} controls={controls} />
        {what === 'slots' && (
          <SlotRange from={from} setFrom={setFrom} first={first} to={to} setTo={setTo} last={last} />
        )}
        {what === 'control' && <Pick label="Control" choices={controls} value={controlId} onPick={setControlId} />}
        <Field value={seconds} onChange={setSeconds} style={{ width: 130 }}>
          <Label>Seconds for each</Label>
          <Input inputMode="decimal" />
        </Field>
        {wrong !== null && <FormProblem>{wrong}</FormProblem>}
        <Last>
          <Button onPress={close}>Cancel</Button>
          <MainButton type="submit" isDisabled={wrong !== null}>
            Start
          </MainButton>
        </Last>
      </Rows>
    </Form>
  );
}

interface ThroughChoiceProps {
  readonly what: 'variants' | 'control' | 'slots';
  readonly setWhat: (value: 'variants' | 'control' | 'slots') => void;
  readonly variants: Variants | null;
  readonly controls: Control[];
}

/** What is walked through. */
function ThroughChoice({ what, setWhat, variants, controls }: ThroughChoiceProps) {
  return (
    <Choices
      label="Through"
      value={what}
      onPick={setWhat}
      choices={[
        { id: 'slots', name: 'slots' },
        ...(variants ? [{ id: 'variants' as const, name: `${variants.word}s of the preset that is on` }] : []),
        ...(controls.length > 0 ? [{ id: 'control' as const, name: 'the values of a control' }] : []),
      ]}
    />
  );
}

interface SlotRangeProps {
  readonly from: string;
  readonly setFrom: (value: string) => void;
  readonly first: number | undefined;
  readonly to: string;
  readonly setTo: (value: string) => void;
  readonly last: number | undefined;
}

/** From which slot to which. */
function SlotRange({ from, setFrom, first, to, setTo, last }: SlotRangeProps) {
  return (
    <Pair>
      <Field value={from} onChange={setFrom} isInvalid={first === undefined}>
        <Label>From</Label>
        <Input />
      </Field>
      <Field value={to} onChange={setTo} isInvalid={last === undefined}>
        <Label>To</Label>
        <Input />
      </Field>
    </Pair>
  );
}
