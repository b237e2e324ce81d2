import { AudioLines, X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { encodeValue, indexOfLabel, labelOf, slotMessages, valueRange, type Control } from '../../../core/addressing';
import { toHex, type Bytes as MidiBytes } from '../../../core/midi';
import { aimOf, newPart, slotsById, type Slot, type TonePart, type Unit } from '../../../core/show';
import { Button, Bytes, Complaint, SignButton, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Find, type Found } from '../../components/Find';
import { Pick } from '../../components/Pick';
import { UnitBadge } from '../../components/UnitBadge';
import { audition } from '../../state/desk';
import { slotNumber, variantNumber } from '../../state/numbers';
import { useApp } from '../../state/store';
import { useDraft } from '../../state/useDraft';
import { desk } from '../../theme/tokens';

const Row = styled.section<{ $in: boolean }>`
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 34px;
  gap: 6px 16px;
  align-items: start;
  padding: 12px 16px 12px 14px;
  & + & {
    border-top: 1px solid ${desk.line};
  }
  ${(p) => !p.$in && 'align-items: center;'}
`;

const Who = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  font-weight: 700;
  line-height: 1.15;
  min-height: 34px;
`;

const Fields = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: end;
`;

const NOT_SET = 'none';

interface Props {
  readonly unit: Unit;
  readonly index: number;
  readonly part: TonePart | undefined;
  /** Slot that a relay rule of another unit brings this one to, where the tone does not name it. */
  readonly brought: number | undefined;
  readonly onPart: (part: TonePart | null, label: string) => void;
  /** Gives the id of the slot at a place, made where it had no entry yet. */
  readonly slotIdAt: (index: number) => string;
}

/** What one tone wants of one unit. */
export function PartRow({ unit, index, part, brought, onPart, slotIdAt }: Props) {
  const { profile } = unit;
  if (!part) {
    return (
      <Row $in={false} aria-label={unit.name}>
        <Who>
          <UnitBadge monogram={unit.monogram} index={index} />
          {unit.name}
        </Who>
        <Soft>{brought === undefined ? 'left as it is' : `brought to ${slotName(unit, brought)} by a relay rule`}</Soft>
        <div style={{ justifySelf: 'end' }}>
          <Button aria-label={`Include ${unit.name}`} onPress={() => onPart(newPart(unit.id), `include ${unit.name}`)}>
            Include
          </Button>
        </div>
      </Row>
    );
  }
  const setControl = (control: Control, value: number | null): void => {
    const rest = part.controls.filter((c) => c.controlId !== control.id);
    const next = value === null ? rest : [...rest, { controlId: control.id, value }];
    const order = new Map(profile.controls.map((c, i) => [c.id, i]));
    next.sort((a, b) => order.get(a.controlId)! - order.get(b.controlId)!);
    onPart({ ...part, controls: next }, `set ${control.name}`);
  };
  return (
    <Row $in aria-label={unit.name}>
      <Who>
        <UnitBadge monogram={unit.monogram} index={index} />
        {unit.name}
      </Who>
      <div>
        <Fields>
          <SlotField
            unit={unit}
            part={part}
            onSlot={(i) =>
              onPart({ ...part, slotId: i === null ? null : slotIdAt(i) }, `choose a slot of ${unit.name}`)
            }
          />
          {profile.variants && (
            <VariantField
              unit={unit}
              part={part}
              onVariant={(variant) => onPart({ ...part, variant }, `choose a ${profile.variants!.word}`)}
            />
          )}
          {profile.controls.map((control) => (
            <ControlField
              key={control.id}
              control={control}
              value={part.controls.find((c) => c.controlId === control.id)?.value ?? null}
              onValue={(value) => setControl(control, value)}
            />
          ))}
        </Fields>
        <Bytes>{partBytes(unit, part)}</Bytes>
      </div>
      <div>
        <SignButton aria-label={`Leave ${unit.name} out`} onPress={() => onPart(null, `leave ${unit.name} out`)}>
          <X size={17} />
        </SignButton>
        <SignButton aria-label={`Send to ${unit.name} now`} onPress={() => void audition(unit.id, aimOf(unit, part))}>
          <AudioLines size={17} />
        </SignButton>
      </div>
    </Row>
  );
}

function SlotField({
  unit,
  part,
  onSlot,
}: {
  readonly unit: Unit;
  readonly part: TonePart;
  readonly onSlot: (index: number | null) => void;
}) {
  const counting = useApp((s) => s.counting);
  const { plan } = unit.profile;
  const slot: Slot | undefined = part.slotId === null ? undefined : slotsById(unit).get(part.slotId);
  const shown = slot ? `${slotNumber(plan, slot.index, counting)} ${slot.name}`.trim() : '';
  const [text, setText, drop] = useDraft(shown);
  const [wrong, setWrong] = useState<string | null>(null);
  const search = (typed: string): Found[] => {
    const wanted = typed === shown ? '' : typed.trim().toLowerCase();
    const exact = indexOfLabel(plan, wanted);
    const named = unit.slots.filter(
      (s) => s.index !== exact && `${labelOf(plan, s.index)} ${s.name}`.toLowerCase().includes(wanted),
    );
    const list = named.slice(0, 40).map((s) => ({ id: String(s.index), name: s.name, aside: labelOf(plan, s.index) }));
    if (exact === undefined) return list;
    const name = unit.slots.find((s) => s.index === exact)?.name || 'no name yet';
    return [{ id: String(exact), name, aside: labelOf(plan, exact) }, ...list];
  };
  const enter = (): void => {
    if (text.trim() === shown) return;
    if (text.trim() === '') {
      setWrong(null);
      onSlot(null);
      return;
    }
    const [first] = search(text);
    setWrong(first ? null : `${unit.name} has no slot "${text.trim()}"`);
    if (first) {
      onSlot(Number(first.id));
      drop();
    }
  };
  return (
    <div style={{ width: 230 }}>
      <Find
        label="Slot"
        placeholder="label or name"
        text={text}
        onText={setText}
        search={search}
        onPick={(id) => {
          setWrong(null);
          onSlot(Number(id));
        }}
        onEnter={enter}
      />
      {wrong !== null && <Complaint>{wrong}</Complaint>}
    </div>
  );
}

function VariantField({
  unit,
  part,
  onVariant,
}: {
  readonly unit: Unit;
  readonly part: TonePart;
  readonly onVariant: (variant: number | null) => void;
}) {
  const counting = useApp((s) => s.counting);
  const { word, names } = unit.profile.variants!;
  const choices = [
    { id: NOT_SET, name: 'as it is' },
    ...names.map((_, i) => ({ id: String(i), name: variantNumber(names, i, counting) })),
  ];
  return (
    <Pick
      label={word.replace(/^./, (c) => c.toUpperCase())}
      width="118px"
      choices={choices}
      value={part.variant === null ? NOT_SET : String(part.variant)}
      onPick={(id) => onVariant(id === NOT_SET ? null : Number(id))}
    />
  );
}

function ControlField({
  control,
  value,
  onValue,
}: {
  readonly control: Control;
  readonly value: number | null;
  readonly onValue: (value: number | null) => void;
}) {
  const { encoding, name } = control;
  if (encoding.kind === 'set-switch') {
    return (
      <Pick
        label={name}
        width="96px"
        choices={[
          { id: NOT_SET, name: 'as it is' },
          { id: '0', name: 'off' },
          { id: '1', name: 'on' },
        ]}
        value={value === null ? NOT_SET : String(value)}
        onPick={(id) => onValue(id === NOT_SET ? null : Number(id))}
      />
    );
  }
  const range = valueRange(encoding);
  const commit = (text: string): string | null => {
    const typed = Number(text);
    const fits =
      text.trim() === '' ||
      (typed >= range.low && typed <= range.high && (range.step === 0 || Number.isInteger(typed)));
    if (fits) onValue(text.trim() === '' ? null : typed);
    return fits ? null : `${range.low} to ${range.high}`;
  };
  const unit = encoding.kind === 'continuous' && encoding.unit ? `, ${encoding.unit}` : '';
  return (
    <DraftField
      label={`${name}${unit}`}
      value={value === null ? '' : String(value)}
      commit={commit}
      placeholder="as it is"
      numeric
      style={{ width: 112 }}
    />
  );
}

function slotName(unit: Unit, index: number): string {
  const name = unit.slots.find((s) => s.index === index)?.name ?? '';
  return `${labelOf(unit.profile.plan, index)} ${name}`.trim();
}

/** All that the part says, as bytes. */
function partBytes(unit: Unit, part: TonePart): string {
  const { profile, channel } = unit;
  const aim = aimOf(unit, part);
  const messages: MidiBytes[] = [];
  if (aim.slot !== undefined) messages.push(...(slotMessages(profile.plan, channel, aim.slot, null) ?? []));
  if (aim.variant !== undefined && profile.variants)
    messages.push(...encodeValue(profile.variants.encoding, channel, aim.variant));
  for (const control of profile.controls) {
    const value = aim.controls[control.id];
    if (value !== undefined) messages.push(...encodeValue(control.encoding, channel, value));
  }
  return messages.map((m) => toHex(m, ' ').toUpperCase()).join('  ·  ');
}
