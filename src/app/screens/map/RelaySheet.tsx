import { Plus, Printer, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { indexOfLabel, labelOf, slotMessages } from '../../../core/addressing';
import { checkRig } from '../../../core/checks';
import { toHex } from '../../../core/midi';
import {
  LIMITS,
  applyEdit,
  indexShow,
  putRelay,
  removeRelay,
  setSlotField,
  slotAt,
  slotsById,
  type Edit,
  type Relay,
  type Show,
  type Slot,
  type Unit,
} from '../../../core/show';
import { contextOf, leadsTo, storingSteps, type StoringStep } from '../../../core/meaning';
import { Bytes, Button, SignButton, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Find } from '../../components/Find';
import { Pick } from '../../components/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { FindingLine } from './ControlEditor';
import { findSlots } from './findSlots';

const Scroller = styled.div`
  overflow: auto;
  padding: 6px 20px 24px;
  display: grid;
  gap: 12px;
  align-content: start;
  & h2 {
    font-size: 17px;
    padding-bottom: 5px;
    border-bottom: 1.5px solid ${desk.ink};
  }
`;

const Rule = styled.div`
  display: grid;
  grid-template-columns:
    20px minmax(120px, 1fr) minmax(96px, 0.7fr) 56px minmax(110px, 0.8fr) minmax(120px, 1fr)
    minmax(96px, auto) 30px;
  gap: 8px;
  align-items: center;
`;

const Step = styled.li`
  display: grid;
  gap: 8px;
  padding: 10px 14px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > b {
    font: 700 17px/1.2 ${font.display};
  }
`;

const Steps = styled.ol`
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
`;

const Panel = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

/** What a unit tells the next when it goes somewhere, and what has to be stored there. */
export function RelaySheet({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const behind = unitsBehind(show, unit);
  const named = show.units.filter((u) => u.id !== unit.id && u.slots.length > 0);
  // What is wired behind this unit comes first: only it can be told anything.
  const targets = [...named.filter((u) => behind.has(u.id)), ...named.filter((u) => !behind.has(u.id))];
  const [into, setInto] = useState<string | null>(null);
  const target = targets.find((u) => u.id === into) ?? targets[0];
  const lists = [unit, ...show.units.filter((u) => unit.relays.some((r) => r.toUnitId === u.id))]
    .map((of) => ({ of, steps: storingSteps(show, of) }))
    .filter((l) => l.steps.length > 0);
  const cycles = checkRig(show).filter((f) => f.code === 'rig.relay-cycle');
  const add = (): void => {
    const slot = target?.slots[0];
    if (!target || !slot) return;
    const when = unit.profile.variants
      ? { slotId: null, variant: 0 }
      : { slotId: unit.slots[0]?.id ?? null, variant: null };
    perform(putRelay(show, unit.id, { id: newId(), when, toUnitId: target.id, toSlotId: slot.id }), 'add a relay rule');
  };
  const { variants } = unit.profile;
  /** Variant 1 calls the first named state of the target, 2 the second, and so on. */
  const fill = (): void => {
    if (!target || !variants) return;
    const states = target.slots.toSorted((a, b) => a.index - b.index);
    const taken = new Set(unit.relays.flatMap((r) => (r.when.slotId === null ? [r.when.variant] : [])));
    let state = show;
    const edits: Edit[] = [];
    for (const [i, slot] of states.slice(0, variants.names.length).entries()) {
      if (taken.has(i)) continue;
      const rule = { id: newId(), when: { slotId: null, variant: i }, toUnitId: target.id, toSlotId: slot.id };
      const edit = putRelay(state, unit.id, rule);
      if (!edit) continue;
      edits.push(edit);
      state = applyEdit(state, edit);
    }
    if (edits.length > 0) perform({ kind: 'group', edits }, `add ${edits.length} relay rules`);
  };
  const most = target && variants ? Math.min(variants.names.length, target.slots.length) : 0;
  return (
    <Scroller>
      <h2>When {unit.name} goes there, it tells the next unit this</h2>
      {cycles.map((f) => (
        <FindingLine key={JSON.stringify(f.data)} finding={f} />
      ))}
      {unit.relays.map((relay) => (
        <RuleLine key={relay.id} unit={unit} relay={relay} targets={targets} />
      ))}
      {unit.relays.length === 0 && <Soft>No relay rules.</Soft>}
      <Panel style={{ alignItems: 'end' }}>
        {targets.length > 1 && (
          <Pick label="Rules to" width="180px" value={target!.id} choices={targets} onPick={setInto} />
        )}
        <Button onPress={add} isDisabled={targets.length === 0}>
          <Plus size={15} aria-hidden /> Add a rule
        </Button>
        {most > 1 && target && variants && (
          <Button onPress={fill}>
            {variants.word} 1-{most} call {target.name} {labelOf(target.profile.plan, first(target))} and on
          </Button>
        )}
        {targets.length === 0 && <Soft>First name a preset of the target unit on its map.</Soft>}
        {target && !behind.has(target.id) && (
          <Soft>
            {target.name} is not wired behind {unit.name}: nothing would reach it.
          </Soft>
        )}
      </Panel>
      {lists.map(({ of, steps }) => (
        <section key={of.id} aria-label={`To store on ${of.name}`} style={{ display: 'grid', gap: 8 }}>
          <h2>
            To store on {of.name}, because {of === unit ? 'other units call' : `${unit.name} calls`} it
          </h2>
          {of === unit ? (
            <Steps aria-label={`To store on ${of.name}`}>
              {steps.map((step) => (
                <StoreStep key={step.slotId} unit={of} step={step} />
              ))}
            </Steps>
          ) : (
            <p>
              {steps.length === 1 ? '1 state' : `${steps.length} states`}, described on{' '}
              <Link to={`/show/${show.id}/map/${of.id}/relays`}>{of.name}</Link>
            </p>
          )}
        </section>
      ))}
      {lists.some((l) => l.of === unit) && (
        <div>
          <Button onPress={() => window.print()}>
            <Printer size={16} aria-hidden /> Print the checklist
          </Button>
        </div>
      )}
    </Scroller>
  );
}

const first = (unit: Unit): number => Math.min(...unit.slots.map((s) => s.index));

/** Units that what a unit sends by itself comes to. */
function unitsBehind(show: Show, unit: Unit): ReadonlySet<string> {
  const { units } = contextOf(show);
  return new Set(show.units.filter((u) => u !== unit && leadsTo(units, unit.id, units.get(u.id)!)).map((u) => u.id));
}

const ANY = 'any';

interface RuleProps {
  readonly unit: Unit;
  readonly relay: Relay;
  readonly targets: readonly Unit[];
}

function RuleLine({ unit, relay, targets }: RuleProps) {
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

/** One stored state: how its panel stands, which program calls it, and who does. */
function StoreStep({ unit, step }: { readonly unit: Unit; readonly step: StoringStep }) {
  const show = useShow();
  const index = slotsById(unit).get(step.slotId)!.index;
  const set = (name: string, setting: string): string | null => {
    const panel = (slotAt(show, unit.id, index)?.panel ?? []).filter((p) => p.name !== name);
    const next = setting.trim() === '' ? panel : [...panel, { name, setting: setting.trim().slice(0, LIMITS.name) }];
    perform(setSlotField(show, unit.id, index, 'panel', next, newId()), `describe ${step.label}`);
    return null;
  };
  const calls = step.calledBy.map((c) =>
    [c.unit, c.label ?? '', c.name, c.variant ?? ''].filter((t) => t !== '').join(' '),
  );
  return (
    <Step>
      <b>
        {step.label} {step.name}
      </b>
      <Panel>
        {step.panel.map(({ name, setting }) => (
          <DraftField
            key={name}
            label={name}
            value={setting ?? ''}
            placeholder="not described"
            style={{ width: 140 }}
            commit={(text) => set(name, text)}
          />
        ))}
      </Panel>
      <Soft>
        Go to {step.label}, set the panel like this, press store.{' '}
        {step.program === null ? 'No program calls it.' : `Program ${step.program} (from 0) calls it`}:{' '}
        {calls.join('; ')}
      </Soft>
    </Step>
  );
}
