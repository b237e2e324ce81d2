import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { encodeValue, labelOf, slotMessages, type Control, type Effect, isTap } from '../../../core/addressing';
import { toHex, type Bytes as MidiBytes } from '../../../core/midi';
import { aimOf } from '../../../core/meaning';
import { slotsById, type Slot, type TonePart, type Unit } from '../../../core/show';
import { ControlField } from '../../features/ControlField';
import { Bytes, FormProblem } from '../../widgets/controls';
import { Find, type Found } from '../../widgets/Find';
import { Pick } from '../../widgets/Pick';
import { slotNumber, slotOfNumber, variantNumber } from '../../state/numbers';
import { setOpened, useOpened } from '../../state/opened';
import { useApp, type Counting } from '../../state/store';
import { desk } from '../../theme/tokens';
import { useDraft } from '../../widgets/useDraft';

const Fields = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: end;
`;

const NOT_SET = 'none';

/** Where the controls are that a tone leaves as they are. */
const UNUSED = 'unused controls';
/** So many fields that say nothing are no crowd. */
const FEW = 3;

const OtherFields = styled(AriaButton)`
  display: flex;
  align-items: center;
  gap: 5px;
  min-height: 34px;
  padding: 0 4px;
  border: 0;
  background: none;
  color: ${desk.tide};
  font-weight: 700;
  cursor: pointer;
`;

interface Props {
  readonly unit: Unit;
  readonly part: TonePart;
  readonly onPart: (part: TonePart, label: string) => void;
  /** Gives the id of the slot at a place, made where it had no entry yet. */
  readonly slotIdAt: (index: number) => string;
}

/** What one tone wants of one unit: preset, variant, how effects are left, control values, and the bytes of it all. */
export function PartFields({ unit, part, onPart, slotIdAt }: Props) {
  const { profile } = unit;
  const setControl = (control: Control, value: number | null): void => {
    const rest = part.controls.filter((c) => c.controlId !== control.id);
    const next = value === null ? rest : [...rest, { controlId: control.id, value }];
    const order = new Map(profile.controls.map((c, i) => [c.id, i]));
    next.sort((a, b) => order.get(a.controlId)! - order.get(b.controlId)!);
    onPart({ ...part, controls: next }, `set ${control.name}`);
  };
  const setEffect = (effect: Effect, how: string): void => {
    const rest = part.effects.filter((e) => e.effectId !== effect.id);
    const next = how === NOT_SET ? rest : [...rest, { effectId: effect.id, how: how as 'on' | 'cut' | 'ring' }];
    onPart({ ...part, effects: next }, `set ${effect.name}`);
  };
  // Switches that an effect stands for are set through it, unless a tone says them by themselves.
  const ofEffects = new Set(profile.effects.flatMap((e) => [e.cut, e.ring]));
  const shown = profile.controls.filter(
    (c) =>
      !isTap(c.encoding) &&
      c.id !== profile.engage &&
      (!ofEffects.has(c.id) || part.controls.some((x) => x.controlId === c.id)),
  );
  const used = shown.filter((c) => part.controls.some((x) => x.controlId === c.id));
  const unused = shown.length - used.length;
  const opened = useOpened((s) => s.places.includes(UNUSED));
  const folded = unused > FEW && !opened;
  return (
    <>
      <Fields>
        <SlotField
          unit={unit}
          part={part}
          onSlot={(i) => onPart({ ...part, slotId: i === null ? null : slotIdAt(i) }, `choose a slot of ${unit.name}`)}
        />
        {profile.variants && (
          <VariantField
            unit={unit}
            part={part}
            onVariant={(variant) => onPart({ ...part, variant }, `choose a ${profile.variants!.word}`)}
          />
        )}
        {profile.effects.map((effect) => (
          <EffectPick key={effect.id} effect={effect} part={part} setEffect={setEffect} />
        ))}
        {(folded ? used : shown).map((control) => (
          <ControlField
            key={control.id}
            control={control}
            value={part.controls.find((c) => c.controlId === control.id)?.value ?? null}
            onValue={(value) => setControl(control, value)}
          />
        ))}
        {unused > FEW && (
          <OtherFields aria-expanded={opened} onPress={() => setOpened(UNUSED, !opened)}>
            {folded ? <ChevronRight size={16} aria-hidden /> : <ChevronDown size={16} aria-hidden />}
            {folded ? `${unused} more controls` : 'Only what it sets'}
          </OtherFields>
        )}
      </Fields>
      <Bytes>{partBytes(unit, part)}</Bytes>
    </>
  );
}

interface EffectPickProps {
  readonly effect: Effect;
  readonly part: TonePart;
  readonly setEffect: (effect: Effect, how: string) => void;
}

/** How an effect is left. */
function EffectPick({ effect, part, setEffect }: EffectPickProps) {
  return (
    <Pick
      label={`${effect.name} is left`}
      width="112px"
      value={part.effects.find((e) => e.effectId === effect.id)?.how ?? NOT_SET}
      onPick={(how) => setEffect(effect, how)}
      choices={[
        { id: NOT_SET, name: 'as it is' },
        { id: 'on', name: 'on' },
        { id: 'cut', name: 'cut' },
        ...(effect.ring === null ? [] : [{ id: 'ring', name: 'ringing out' }]),
      ]}
    />
  );
}

/** Presets that a text means: first the one with that number, then those whose label or name has it. */
function presetsFound(unit: Unit, typed: string, counting: Counting): Found[] {
  const { plan } = unit.profile;
  const wanted = typed.trim().toLowerCase();
  const exact = wanted === '' ? undefined : slotOfNumber(plan, wanted, counting);
  const named = unit.slots.filter(
    (s) => s.index !== exact && `${labelOf(plan, s.index)} ${s.name}`.toLowerCase().includes(wanted),
  );
  const list = named
    .slice(0, 40)
    .map((s) => ({ id: String(s.index), name: s.name, aside: slotNumber(plan, s.index, counting) }));
  if (exact === undefined) return list;
  const name = unit.slots.find((s) => s.index === exact)?.name || 'no name yet';
  return [{ id: String(exact), name, aside: slotNumber(plan, exact, counting) }, ...list];
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
  const lost = slot ? undefined : unit.lostSlots.find((s) => s.id === part.slotId);
  const search = (typed: string): Found[] => presetsFound(unit, typed === shown ? '' : typed, counting);
  const enter = (): void => {
    if (text.trim() === shown) return;
    if (text.trim() === '') {
      setWrong(null);
      onSlot(null);
      return;
    }
    const [first] = search(text);
    setWrong(first ? null : `${unit.name} has no preset "${text.trim()}"`);
    if (first) {
      onSlot(Number(first.id));
      drop();
    }
  };
  return (
    <div style={{ width: 230 }}>
      <Find
        label="Preset"
        placeholder="number or name"
        text={text}
        onText={setText}
        search={search}
        onPick={(id) => {
          setWrong(null);
          onSlot(Number(id));
        }}
        onEnter={enter}
      />
      {wrong !== null && <FormProblem>{wrong}</FormProblem>}
      {lost && <FormProblem>{lost.name || 'Its preset'} is gone from the unit's list.</FormProblem>}
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
