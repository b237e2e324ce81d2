import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { indexOfLabel, labelOf, slotMessages } from '../../../core/addressing';
import { toHex } from '../../../core/midi';
import { indexShow, putRelay, removeRelay, slotsById, type Relay, type Slot, type Unit } from '../../../core/show';
import { Bytes, SignButton, Soft } from '../../widgets/controls';
import { Find } from '../../widgets/Find';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { findSlots } from './findSlots';

const Rule = styled.div`
  display: grid;
  grid-template-columns:
    20px minmax(120px, 1fr) minmax(96px, 0.7fr) 56px minmax(110px, 0.8fr) minmax(120px, 1fr)
    minmax(96px, auto) 30px;
  gap: 8px;
  align-items: center;
`;

const ANY = 'any';

interface RuleProps {
  readonly unit: Unit;
  readonly relay: Relay;
  readonly targets: readonly Unit[];
}

export function RuleLine({ unit, relay, targets }: RuleProps) {
  const show = useShow();
  const put = (part: Partial<Relay>): void => {
    perform(putRelay(show, unit.id, { ...relay, ...part }), 'change a relay rule');
  };
  const { variants } = unit.profile;
  const target = indexShow(show).units.get(relay.toUnitId);
  const slot = target && slotsById(target).get(relay.toSlotId);
  const messages = target && slot && slotMessages(target.profile.plan, target.channel, slot.index, null);
  return (
    <Rule role="group" aria-label={`Rule to ${target?.name ?? 'nobody'}, ${slot?.name ?? ''}`}>
      <Soft>at</Soft>
      <SlotPick
        unit={unit}
        slot={relay.when.slotId === null ? undefined : slotsById(unit).get(relay.when.slotId)}
        empty="any preset"
        label="Preset that calls"
        onSlot={(s) => put({ when: { ...relay.when, slotId: s?.id ?? null } })}
      />
      {variants ? (
        <Pick
          label={variants.word}
          hideLabel
          value={relay.when.variant === null ? ANY : String(relay.when.variant)}
          choices={[
            { id: ANY, name: `any ${variants.word}` },
            ...variants.names.map((name, i) => ({ id: String(i), name: name || String(i + 1) })),
          ]}
          onPick={(id) => put({ when: { ...relay.when, variant: id === ANY ? null : Number(id) } })}
        />
      ) : (
        <span />
      )}
      <Soft>it calls</Soft>
      <Pick
        label="Target unit"
        hideLabel
        value={relay.toUnitId}
        choices={targets}
        onPick={(id) => {
          const first = indexShow(show).units.get(id)?.slots[0];
          if (first) put({ toUnitId: id, toSlotId: first.id });
        }}
      />
      {target ? (
        <SlotPick unit={target} slot={slot} label="State that is called" onSlot={(s) => s && put({ toSlotId: s.id })} />
      ) : (
        <span />
      )}
      <Bytes>{messages?.map((m) => toHex(m, ' ').toUpperCase()).join(' · ') ?? 'no program'}</Bytes>
      <SignButton
        aria-label={`Remove the rule to ${target?.name ?? 'nobody'}, ${slot?.name ?? ''}`.trim()}
        onPress={() => perform(removeRelay(show, unit.id, relay.id), 'remove a relay rule')}
      >
        <Trash2 size={16} />
      </SignButton>
    </Rule>
  );
}

/** One of a unit's named slots, by label or part of its name. */
function SlotPick(props: {
  readonly unit: Unit;
  readonly slot: Slot | undefined;
  readonly label: string;
  /** What no slot at all is called, where that may be. */
  readonly empty?: string;
  readonly onSlot: (slot: Slot | null) => void;
}) {
  const { unit, slot, label, empty, onSlot } = props;
  const shown = slot ? `${labelOf(unit.profile.plan, slot.index)} ${slot.name}`.trim() : '';
  const [typed, setTyped] = useState<string | null>(null);
  const search = (text: string) =>
    findSlots(unit, text === shown ? '' : text, 'label').filter((f) => slotAtIndex(unit, Number(f.id)));
  const take = (index: number): void => {
    const found = slotAtIndex(unit, index);
    if (found) onSlot(found);
    setTyped(null);
  };
  return (
    <Find
      label={label}
      hideLabel
      placeholder={empty ?? 'label or name'}
      text={typed ?? shown}
      onText={setTyped}
      search={search}
      onPick={(id) => take(Number(id))}
      onEnter={() => {
        const text = (typed ?? shown).trim();
        if (text === '' && empty !== undefined) onSlot(null);
        const [first] = text === '' ? [] : search(text);
        const exact = indexOfLabel(unit.profile.plan, text);
        if (exact !== undefined && slotAtIndex(unit, exact)) take(exact);
        else if (first) take(Number(first.id));
        else setTyped(null);
      }}
    />
  );
}

const slotAtIndex = (unit: Unit, index: number): Slot | undefined => unit.slots.find((s) => s.index === index);
