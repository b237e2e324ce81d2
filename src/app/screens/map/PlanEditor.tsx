import { Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import {
  addressPlanSchema,
  planProblems,
  type AddressPlan,
  type SlotGroup,
  type Profile,
} from '../../../core/addressing';
import { NOWHERE, problem } from '../../../core/problems';
import type { Unit } from '../../../core/show';
import { sentence } from '../../../wording';
import { Button, FormProblem, Field, Input, Label, MainButton, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { say } from '../../state/desk';
import { desk, font } from '../../theme/tokens';
import { planTableText, readPlanTable } from './planTable';
import { useProfile } from './useProfile';
import { Row } from './planParts';
import { NumberField, GroupFields } from './PlanGroup';
import { countedTable, withGroup } from '../../../core/addressing';
import { Edges } from './PlanEdges';

const Scroller = styled.div`
  overflow: auto;
  padding: 6px 20px 20px;
  display: grid;
  gap: 14px;
  align-content: start;
`;

const Aside = styled.aside`
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
  padding: 16px 18px;
`;

/** Always in sight, however long the plan is. */
const Foot = styled(Row)`
  position: sticky;
  bottom: -20px;
  margin: 0 -20px -20px;
  padding: 10px 20px 12px;
  align-items: center;
  border-top: 1.5px solid ${desk.line};
  background: ${desk.paper};
`;

/** Plans that were typed and neither used nor reset, by unit: leaving the view does not lose them. */
const drafts = new Map<string, AddressPlan>();

/** The rule that turns a slot's place into its label and its messages, with the edges of the plan in sight. */
export function PlanEditor({ unit }: { readonly unit: Unit }) {
  const change = useProfile(unit);
  const [plan, show] = useState<AddressPlan>(drafts.get(unit.id) ?? unit.profile.plan);
  const setPlan = (next: AddressPlan): void => {
    if (JSON.stringify(next) === JSON.stringify(unit.profile.plan)) drafts.delete(unit.id);
    else drafts.set(unit.id, next);
    show(next);
  };
  const [seen, setSeen] = useState(unit.profile.plan);
  const [refused, setRefused] = useState<string | null>(null);
  const [table, setTable] = useState<string | null>(null);
  const [asked, setAsked] = useState('');
  // Undo, or another tab: the plan under the draft is another one now.
  if (seen !== unit.profile.plan) {
    setSeen(unit.profile.plan);
    drafts.delete(unit.id);
    show(unit.profile.plan);
    setRefused(null);
    setTable(null);
  }
  const shaped = addressPlanSchema.safeParse(plan);
  const found = shaped.success ? planProblems(plan) : [];
  const put = (part: Partial<AddressPlan>): void => {
    setRefused(null);
    setPlan({ ...plan, ...part });
  };
  const putGroup = (i: number, group: SlotGroup): void => put({ groups: plan.groups.with(i, group) });
  const sound = shaped.success && found.length === 0;
  const changed = JSON.stringify(plan) !== JSON.stringify(unit.profile.plan);
  const unused = useRef(false);
  useEffect(() => {
    unused.current = changed;
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    if (changed) window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [changed]);
  useEffect(
    () => () => {
      if (unused.current) say(`The address plan of ${unit.name} is kept as typed, but not used yet.`);
    },
    [unit.name],
  );
  return (
    <>
      <Scroller>
        {plan.groups.map((group, i) => (
          <GroupFields
            key={i}
            group={group}
            number={i}
            only={plan.groups.length === 1}
            onGroup={(g) => putGroup(i, g)}
            onRemove={() => put({ groups: plan.groups.toSpliced(i, 1) })}
          />
        ))}
        <PlanTools put={put} plan={plan} setTable={setTable} />
        {plan.table && <PlanTable table={table} plan={plan} setTable={setTable} put={put} setRefused={setRefused} />}
        {!shaped.success && <FormProblem>A number of the plan is missing or out of range.</FormProblem>}
        {found.map((f) => (
          <FormProblem key={f.code}>{problemSentence(unit.name, f)}</FormProblem>
        ))}
        {refused !== null && <FormProblem>{refused}</FormProblem>}
        <PlanFoot
          sound={sound}
          changed={changed}
          refused={refused}
          setRefused={setRefused}
          change={change}
          unit={unit}
          plan={plan}
          setPlan={setPlan}
        />
      </Scroller>
      <Aside>
        {sound ? (
          <Edges plan={plan} channel={unit.channel} asked={asked} onAsked={setAsked} />
        ) : (
          <Soft>No preview while the plan has a problem.</Soft>
        )}
      </Aside>
    </>
  );
}

interface PlanFootProps {
  readonly sound: boolean;
  readonly changed: boolean;
  readonly refused: string | null;
  readonly setRefused: (value: string | null) => void;
  readonly change: (next: Profile, label: string) => string | null;
  readonly unit: Unit;
  readonly plan: AddressPlan;
  readonly setPlan: (next: AddressPlan) => void;
}

/** Takes the plan over, or leaves it. */
function PlanFoot({ sound, changed, refused, setRefused, change, unit, plan, setPlan }: PlanFootProps) {
  return (
    <Foot>
      <MainButton
        isDisabled={!sound || !changed || refused !== null}
        onPress={() => setRefused(change({ ...unit.profile, plan }, 'change the address plan'))}
      >
        Use this plan
      </MainButton>
      <Button isDisabled={!changed} onPress={() => setPlan(unit.profile.plan)}>
        Reset
      </Button>
      {changed && (
        <Soft>Not used yet. It is kept as typed until you use or reset it; named presets keep their place.</Soft>
      )}
    </Foot>
  );
}

interface PlanTableProps {
  readonly table: string | null;
  readonly plan: AddressPlan;
  readonly setTable: (value: string | null) => void;
  readonly put: (part: Partial<AddressPlan>) => void;
  readonly setRefused: (value: string | null) => void;
}

/** Programs as they were set up in the unit, a line each. */
function PlanTable({ table, plan, setTable, put, setRefused }: PlanTableProps) {
  return (
    <Field
      value={table ?? planTableText(plan)}
      onChange={(text) => {
        setTable(text);
        const read = readPlanTable(text, plan);
        if ('rows' in read) put({ table: read.rows });
        else setRefused(read.problem);
      }}
    >
      <Label>Bank, program (both from 0) and slot, a line each</Label>
      <TableText />
    </Field>
  );
}

interface PlanToolsProps {
  readonly put: (part: Partial<AddressPlan>) => void;
  readonly plan: AddressPlan;
  readonly setTable: (value: string | null) => void;
}

/** How banks and programs are sent. */
function PlanTools({ put, plan, setTable }: PlanToolsProps) {
  const more = withGroup(plan);
  return (
    <Row>
      <Button onPress={() => more && put(more)} isDisabled={more === null}>
        <Plus size={15} aria-hidden /> Another group
      </Button>
      <Pick
        label="Bank messages"
        width="190px"
        value={plan.bank.send}
        onPick={(send) => put({ bank: { ...plan.bank, send: send } })}
        choices={[
          { id: 'none', name: 'none' },
          { id: 'msb', name: 'control 0 (MSB)' },
          { id: 'lsb', name: 'control 32 (LSB)' },
          { id: 'both', name: 'both, MSB first' },
        ]}
      />
      <Pick
        label="Sent"
        width="170px"
        value={plan.bank.when}
        onPick={(when) => put({ bank: { ...plan.bank, when: when } })}
        choices={[
          { id: 'differs', name: 'when it differs' },
          { id: 'always', name: 'always' },
        ]}
      />
      <NumberField label="Programs in a bank" value={plan.perBank} onValue={(perBank) => put({ perBank })} />
      <Pick
        label="Programs are"
        width="190px"
        value={plan.table ? 'table' : 'counted'}
        onPick={(way) => {
          setTable(null);
          put({ table: way === 'table' ? (plan.table ?? countedTable(plan)) : null });
        }}
        choices={[
          { id: 'counted', name: 'numbered in sequence' },
          { id: 'table', name: "the unit's own table" },
        ]}
      />
    </Row>
  );
}

const TableText = styled(Input).attrs({ as: 'textarea', rows: 6, spellCheck: false })`
  font-family: ${font.bytes};
  font-size: 13px;
  max-width: 340px;
`;

const problemSentence = (unit: string, { code, ...data }: ReturnType<typeof planProblems>[number]): string =>
  sentence(problem(`plan.${code}`, 'error', NOWHERE, { unit, ...data }));
