import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { labelOf, type Variants } from '../../../core/addressing';
import { checkRig } from '../../../core/checks';
import { applyEdit, putRelay, type Edit, type Show, type Unit } from '../../../core/show';
import { contextOf, leadsTo, storingSteps, type StoringStep } from '../../../core/meaning';
import { tonightOf } from '../../../core/tonight';
import { PrintButton } from '../../features/PrintButton';
import { Button, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { FindingLine } from './ControlEditor';
import { RuleLine } from './RelayRule';
import { StoreStep } from './StoreStep';
import { Panel } from './relayParts';

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

const Steps = styled.ol`
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
`;

/** A rule from the first variant or preset of a unit to the first preset of another; null where that one has none. */
function firstRule(show: Show, unit: Unit, target: Unit): Edit | null {
  const [slot] = target.slots;
  if (!slot) return null;
  const when = unit.profile.variants
    ? { slotId: null, variant: 0 }
    : { slotId: unit.slots[0]?.id ?? null, variant: null };
  return putRelay(show, unit.id, { id: newId(), when, toUnitId: target.id, toSlotId: slot.id });
}

/** Variant 1 calls the first named state of the target, 2 the second, and so on; those that call something are left. */
function rulesInTurn(show: Show, unit: Unit, target: Unit): readonly Edit[] {
  const names = unit.profile.variants?.names ?? [];
  const states = target.slots.toSorted((a, b) => a.index - b.index);
  const taken = new Set(unit.relays.flatMap((r) => (r.when.slotId === null ? [r.when.variant] : [])));
  let state = show;
  const edits: Edit[] = [];
  for (const [i, slot] of states.slice(0, names.length).entries()) {
    if (taken.has(i)) continue;
    const rule = { id: newId(), when: { slotId: null, variant: i }, toUnitId: target.id, toSlotId: slot.id };
    const edit = putRelay(state, unit.id, rule);
    if (!edit) continue;
    edits.push(edit);
    state = applyEdit(state, edit);
  }
  return edits;
}

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
  const cycles = checkRig(tonightOf(show)).filter((f) => f.code === 'rig.relay-cycle');
  const { variants } = unit.profile;
  const add = (): void => void perform(target ? firstRule(show, unit, target) : null, 'add a relay rule');
  const fill = (): void => {
    const edits = target ? rulesInTurn(show, unit, target) : [];
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
      <RelayTools
        targets={targets}
        target={target}
        setInto={setInto}
        add={add}
        most={most}
        variants={variants}
        fill={fill}
        behind={behind}
        unit={unit}
      />
      {lists.map(({ of, steps }) => (
        <StoreList key={of.id} target={of} unit={unit} steps={steps} />
      ))}
      {lists.some((l) => l.of === unit) && (
        <div>
          <PrintButton>Print the checklist</PrintButton>
        </div>
      )}
    </Scroller>
  );
}

interface RelayToolsProps {
  readonly targets: Unit[];
  readonly target: Unit | undefined;
  readonly setInto: (value: string | null) => void;
  readonly add: () => void;
  readonly most: number;
  readonly variants: Variants | null;
  readonly fill: () => void;
  readonly behind: ReadonlySet<string>;
  readonly unit: Unit;
}

/** To which unit the rules go, and whether they count in slots or variants. */
function RelayTools({ targets, target, setInto, add, most, variants, fill, behind, unit }: RelayToolsProps) {
  return (
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
  );
}

interface StoreListProps {
  readonly target: Unit;
  readonly unit: Unit;
  readonly steps: StoringStep[];
}

/** What has to be stored on a unit, ticked off there. */
function StoreList({ target, unit, steps }: StoreListProps) {
  const show = useShow();
  return (
    <section aria-label={`To store on ${target.name}`} style={{ display: 'grid', gap: 8 }}>
      <h2>
        To store on {target.name}, because {target === unit ? 'other units call' : `${unit.name} calls`} it
      </h2>
      {target === unit ? (
        <Steps aria-label={`To store on ${target.name}`}>
          {steps.map((step) => (
            <StoreStep key={step.slotId} unit={target} step={step} />
          ))}
        </Steps>
      ) : (
        <p>
          {steps.length === 1 ? '1 state' : `${steps.length} states`}, described on{' '}
          <Link to={`/show/${show.id}/map/${target.id}/relays`}>{target.name}</Link>
        </p>
      )}
    </section>
  );
}

const first = (unit: Unit): number => Math.min(...unit.slots.map((s) => s.index));

/** Units that what a unit sends by itself comes to. */
function unitsBehind(show: Show, unit: Unit): ReadonlySet<string> {
  const { units } = contextOf(show);
  return new Set(show.units.filter((u) => u !== unit && leadsTo(units, unit.id, units.get(u.id)!)).map((u) => u.id));
}
