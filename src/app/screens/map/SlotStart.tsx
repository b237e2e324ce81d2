import { X } from 'lucide-react';
import styled from 'styled-components';
import { fitsRange, valueRange, type Control, isTap } from '../../../core/addressing';
import { setSlotField, type Slot, type Unit } from '../../../core/show';
import { valueWords } from '../../../wording';
import { SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';

const Box = styled.details`
  & > summary {
    cursor: pointer;
    font-weight: 600;
  }
  & > div {
    display: grid;
    gap: 8px;
    margin-top: 8px;
  }
`;

const Row = styled.div`
  display: flex;
  align-items: end;
  gap: 6px;
  & > :first-child {
    flex: 1;
  }
`;

const UNKNOWN = 'unknown';
/** The most options of a list that are picked by name. */
const PICKED_OPTIONS = 40;

interface Props {
  readonly unit: Unit;
  readonly index: number;
  readonly slot: Slot | undefined;
}

/** What a preset brings along when it is recalled, as far as somebody wrote it down: its variant, and how its switches stand. */
export function SlotStart({ unit, index, slot }: Props) {
  const show = useShow();
  const { variants, controls } = unit.profile;
  const known = slot?.startControls ?? [];
  const open = controls.filter((c) => !isTap(c.encoding) && !known.some((k) => k.controlId === c.id));
  const setVariant = (id: string): void => {
    const value = id === UNKNOWN ? null : Number(id);
    perform(setSlotField(show, unit.id, index, 'startVariant', value, newId()), 'describe a preset');
  };
  const setControl = (controlId: string, value: number | null): void => {
    const rest = known.filter((k) => k.controlId !== controlId);
    const next = value === null ? rest : [...rest, { controlId, value }];
    perform(setSlotField(show, unit.id, index, 'startControls', next, newId()), 'describe a preset');
  };
  const count = known.length + (slot && slot.startVariant !== null ? 1 : 0);
  return (
    <Box>
      <summary>
        What this preset switches on: <Soft>{count === 0 ? 'not noted' : `${count} noted`}</Soft>
      </summary>
      <div>
        {variants && (
          <Pick
            label={`It starts with the ${variants.word}`}
            value={slot && slot.startVariant !== null ? String(slot.startVariant) : UNKNOWN}
            onPick={setVariant}
            choices={[
              { id: UNKNOWN, name: 'not known' },
              ...variants.names.map((name, i) => ({ id: String(i), name: name || String(i + 1) })),
            ]}
          />
        )}
        {known.map(({ controlId, value }) => {
          const control = controls.find((c) => c.id === controlId);
          return (
            control && (
              <Row key={controlId}>
                <StartValue control={control} value={value} onValue={(v) => setControl(controlId, v)} />
                <SignButton aria-label={`Forget ${control.name}`} onPress={() => setControl(controlId, null)}>
                  <X size={15} />
                </SignButton>
              </Row>
            )
          );
        })}
        {open.length > 0 && (
          <Pick
            label="Write down how it has"
            value={UNKNOWN}
            choices={[{ id: UNKNOWN, name: 'a control …' }, ...open]}
            onPick={(id) => {
              const control = open.find((c) => c.id === id);
              if (control) setControl(id, control.rest ?? valueRange(control.encoding).low);
            }}
          />
        )}
      </div>
    </Box>
  );
}

interface ValueProps {
  readonly control: Control;
  readonly value: number;
  readonly onValue: (value: number) => void;
}

function StartValue({ control, value, onValue }: ValueProps) {
  const { low, high, step } = valueRange(control.encoding);
  if (step !== 0 && high - low < PICKED_OPTIONS) {
    const options = Array.from({ length: high - low + 1 }, (_, i) => low + i);
    return (
      <Pick
        label={control.name}
        value={String(value)}
        choices={options.map((v) => ({ id: String(v), name: valueWords(control, v) }))}
        onPick={(id) => onValue(Number(id))}
      />
    );
  }
  return (
    <DraftField
      label={control.name}
      value={String(value)}
      numeric
      commit={(text) => {
        const typed = Number(text);
        if (text.trim() === '' || !fitsRange(control.encoding, typed)) return `${low} to ${high}`;
        onValue(typed);
        return null;
      }}
    />
  );
}
