import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import {
  addressOf,
  addressPlanSchema,
  indexOfLabel,
  labelOf,
  planProblems,
  slotCount,
  slotMessages,
  type AddressPlan,
  type Digit,
  type SlotGroup,
} from '../../../core/addressing';
import { toHex } from '../../../core/midi';
import { NOWHERE, problem } from '../../../core/problems';
import type { Unit } from '../../../core/show';
import { sentence } from '../../../wording';
import {
  Bytes,
  Button,
  FormProblem,
  Field,
  Input,
  Label,
  MainButton,
  SignButton,
  Soft,
} from '../../components/controls';
import { Check } from '../../components/Check';
import { Pick } from '../../components/Pick';
import { say } from '../../state/desk';
import { desk, font } from '../../theme/tokens';
import { planTableText, readPlanTable } from './planTable';
import { useProfile } from './useProfile';

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

const Group = styled.fieldset`
  display: grid;
  gap: 8px;
  min-width: 0;
  margin: 0;
  padding: 10px 14px 14px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
`;

const Digits = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
`;

const DigitBox = styled.div`
  display: flex;
  align-items: end;
  gap: 6px;
  padding: 6px 4px 6px 8px;
  border: 1.5px dashed ${desk.lineStrong};
  border-radius: 4px;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
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

const Preview = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  & th {
    padding: 10px 8px 4px 0;
    text-align: left;
    font-size: 12px;
    color: ${desk.inkSoft};
  }
  & td {
    padding: 3px 10px 3px 0;
    border-top: 1px solid ${desk.line};
  }
  & td:first-child {
    white-space: nowrap;
    font: 700 15px/1.3 ${font.display};
  }
`;

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
        <Row>
          <Button
            onPress={() => put({ groups: [...plan.groups, freshGroup(plan.groups)] })}
            isDisabled={plan.groups.length >= 16}
          >
            <Plus size={15} aria-hidden /> Another group
          </Button>
          <Pick
            label="Bank messages"
            width="190px"
            value={plan.bank.send}
            onPick={(send) => put({ bank: { ...plan.bank, send: send as AddressPlan['bank']['send'] } })}
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
            onPick={(when) => put({ bank: { ...plan.bank, when: when as AddressPlan['bank']['when'] } })}
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
        {plan.table && (
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
        )}
        {!shaped.success && <FormProblem>A number of the plan is missing or out of range.</FormProblem>}
        {found.map((f) => (
          <FormProblem key={f.code}>{problemSentence(unit.name, f)}</FormProblem>
        ))}
        {refused !== null && <FormProblem>{refused}</FormProblem>}
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

const TableText = styled(Input).attrs({ as: 'textarea', rows: 6, spellCheck: false })`
  font-family: ${font.bytes};
  font-size: 13px;
  max-width: 340px;
`;

const problemSentence = (unit: string, { code, ...data }: ReturnType<typeof planProblems>[number]): string =>
  sentence(problem(`plan.${code}`, 'error', NOWHERE, { unit, ...data }));

const countedTable = (plan: AddressPlan): NonNullable<AddressPlan['table']> =>
  Array.from({ length: Math.min(128, slotCount(plan)) }, (_, index) => ({
    bank: Math.floor(index / plan.perBank),
    program: index % plan.perBank,
    index,
  }));

/** A group like the last, told apart by a word before its labels. */
function freshGroup(groups: readonly SlotGroup[]): SlotGroup {
  const name = groups.length === 1 ? 'factory' : `group ${groups.length + 1}`;
  const { digits, count } = groups.at(-1)!;
  const bare = digits[0]?.kind === 'text' && digits.length > 1 ? digits.slice(1) : digits;
  return { name, count, readOnly: name === 'factory', digits: [{ kind: 'text', text: `${name} ` }, ...bare] };
}

function NumberField(props: { readonly label: string; readonly value: number; readonly onValue: (n: number) => void }) {
  return (
    <Field
      value={Number.isNaN(props.value) ? '' : String(props.value)}
      onChange={(text) => props.onValue(/^\d{1,6}$/.test(text.trim()) ? Number(text) : Number.NaN)}
      isInvalid={Number.isNaN(props.value)}
      style={{ width: Math.max(66, props.label.length * 7.2) }}
    >
      <Label>{props.label}</Label>
      <Input inputMode="numeric" />
    </Field>
  );
}

interface GroupProps {
  readonly group: SlotGroup;
  readonly number: number;
  readonly only: boolean;
  readonly onGroup: (group: SlotGroup) => void;
  readonly onRemove: () => void;
}

function GroupFields({ group, number, only, onGroup, onRemove }: GroupProps) {
  const putDigits = (digits: readonly Digit[]): void => {
    const room = digits.reduce((n, d) => n * (d.kind === 'text' ? 1 : d.count), 1);
    onGroup({ ...group, digits, count: Number.isNaN(room) ? group.count : Math.max(1, room) });
  };
  const put = (i: number, digit: Digit): void => putDigits(group.digits.with(i, digit));
  return (
    <Group aria-label={`Group ${group.name || number + 1}`}>
      <Row>
        <Field
          value={group.name}
          onChange={(name) => onGroup({ ...group, name })}
          isInvalid={group.name === ''}
          style={{ width: 150 }}
        >
          <Label>Group</Label>
          <Input />
        </Field>
        <NumberField label="Slots" value={group.count} onValue={(count) => onGroup({ ...group, count })} />
        <Check isSelected={group.readOnly} onChange={(readOnly) => onGroup({ ...group, readOnly })}>
          Nothing can be stored in it
        </Check>
        {!only && (
          <SignButton aria-label={`Remove group ${group.name}`} onPress={onRemove}>
            <Trash2 size={16} />
          </SignButton>
        )}
      </Row>
      <Digits>
        {group.digits.map((digit, i) => (
          <DigitBox key={i}>
            <DigitFields digit={digit} onDigit={(d) => put(i, d)} />
            <SignButton
              aria-label={`Remove part ${i + 1} of the label`}
              isDisabled={group.digits.length === 1}
              onPress={() => putDigits(group.digits.toSpliced(i, 1))}
            >
              <Trash2 size={14} />
            </SignButton>
          </DigitBox>
        ))}
        <Button
          isDisabled={group.digits.length >= 8}
          onPress={() => putDigits([...group.digits, { kind: 'number', start: 1, count: 4, width: 1 }])}
        >
          <Plus size={15} aria-hidden /> Part of the label
        </Button>
      </Digits>
    </Group>
  );
}

function DigitFields({ digit, onDigit }: { readonly digit: Digit; readonly onDigit: (digit: Digit) => void }) {
  const kinds = {
    number: { kind: 'number', start: 1, count: 8, width: 1 },
    letter: { kind: 'letter', from: 'A', count: 8 },
    text: { kind: 'text', text: '-' },
  } as const satisfies Record<Digit['kind'], Digit>;
  return (
    <>
      <Pick
        label="Part"
        width="104px"
        value={digit.kind}
        choices={[
          { id: 'number', name: 'number' },
          { id: 'letter', name: 'letter' },
          { id: 'text', name: 'text' },
        ]}
        onPick={(kind) => onDigit(kinds[kind as Digit['kind']])}
      />
      {digit.kind === 'text' && (
        <Field
          value={digit.text}
          onChange={(text) => onDigit({ ...digit, text })}
          isInvalid={digit.text === ''}
          style={{ width: 96 }}
        >
          <Label>Text</Label>
          <Input />
        </Field>
      )}
      {digit.kind === 'letter' && (
        <Field
          value={digit.from}
          onChange={(from) => onDigit({ ...digit, from: from.trim().toUpperCase().slice(-1) })}
          isInvalid={!/^[A-Z]$/.test(digit.from)}
          style={{ width: 52 }}
        >
          <Label>From</Label>
          <Input />
        </Field>
      )}
      {digit.kind === 'number' && (
        <>
          <NumberField label="From" value={digit.start} onValue={(start) => onDigit({ ...digit, start })} />
          <NumberField label="Digits" value={digit.width} onValue={(width) => onDigit({ ...digit, width })} />
        </>
      )}
      {digit.kind !== 'text' && (
        <NumberField label="How many" value={digit.count} onValue={(count) => onDigit({ ...digit, count })} />
      )}
    </>
  );
}

/** Slots at the edges of the plan: the first and last of each group and each bank, and one that is asked for. */
function edgeSlots(plan: AddressPlan): number[] {
  const edges = new Set<number>();
  let first = 0;
  for (const { count } of plan.groups) {
    edges
      .add(first)
      .add(first + 1)
      .add(first + count - 1);
    first += count;
  }
  for (let index = plan.perBank; index < first && edges.size < 14; index += plan.perBank)
    edges.add(index - 1).add(index);
  return [...edges].filter((i) => i >= 0 && i < first).sort((a, b) => a - b);
}

interface EdgesProps {
  readonly plan: AddressPlan;
  readonly channel: number;
  readonly asked: string;
  readonly onAsked: (text: string) => void;
}

function Edges({ plan, channel, asked, onAsked }: EdgesProps) {
  const found = asked.trim() === '' ? undefined : indexOfLabel(plan, asked);
  const slots = [...(found === undefined ? [] : [found]), ...edgeSlots(plan).filter((i) => i !== found)];
  return (
    <div>
      <Field
        value={asked}
        onChange={onAsked}
        isInvalid={asked.trim() !== '' && found === undefined}
        style={{ width: 210 }}
      >
        <Label>Try a label as the unit writes it</Label>
        <Input placeholder={labelOf(plan, 0)} />
      </Field>
      <Preview aria-label="Edges of the plan">
        <thead>
          <tr>
            <th scope="col">Label</th>
            <th scope="col">From 0</th>
            <th scope="col">Bank</th>
            <th scope="col">Prog.</th>
            <th scope="col">On the wire</th>
          </tr>
        </thead>
        <tbody>
          {slots.map((index) => {
            const address = addressOf(plan, index);
            return (
              <tr key={index}>
                <td>{labelOf(plan, index)}</td>
                <td>{index}</td>
                <td>{address?.bank ?? '–'}</td>
                <td>{address?.program ?? 'none calls it'}</td>
                <td>
                  <Bytes>
                    {slotMessages(plan, channel, index, null)
                      ?.map((m) => toHex(m, ' ').toUpperCase())
                      .join(' · ') ?? ''}
                  </Bytes>
                </td>
              </tr>
            );
          })}
        </tbody>
      </Preview>
    </div>
  );
}
