import { Ear } from 'lucide-react';
import { useEffect, useState } from 'react';
import { listenSteps, listenThrough, type Listened, type ListenStep } from '../../../core/feet';
import { toHex, type Bytes as MidiBytes } from '../../../core/midi';
import { pageTitle, type Unit } from '../../../core/show';
import { Bytes, Button, Soft } from '../../widgets/controls';
import { PlainTable } from '../../widgets/plainTable';
import { listenOnly } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { Say, SmallHead, Tools } from './parts';

const hex = (list: readonly MidiBytes[]): string =>
  list.length === 0 ? 'nothing' : list.map((b) => toHex(b, ' ').toUpperCase()).join(' · ');

/** Switch by switch: one presses it, and what arrives is compared with what it should send. */
export function ListenCheck({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  /** The message after which listening began, and those after which somebody went on. */
  const [from, setFrom] = useState<number | null>(null);
  const [goneOn, setGoneOn] = useState<readonly number[]>([]);
  const lines = useNews((s) => s.lines);
  const steps = listenSteps(show, unit.id);
  const portId = unit.returns?.portId;
  const on = from !== null;
  useEffect(() => {
    if (!on) return;
    void listenOnly(true);
    return () => void listenOnly(false);
  }, [on]);
  const last = lines.at(-1)?.number ?? 0;
  const start = (): void => {
    setGoneOn([]);
    setFrom(last);
  };
  const arrived = on ? lines.filter((l) => l.number > from && l.direction === 'in' && l.portId === portId) : [];
  const { done, came, now } = listenThrough(on ? steps : [], arrived, goneOn);
  const step = now ? steps[done.length] : undefined;
  const nameOf = (id: string): string => unit.profile.senders.find((s) => s.id === id)?.name ?? id;
  const wrong = done.map((d, at) => ({ ...d, at })).filter((d) => d.listened.outcome !== 'right');
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Check by listening">
      <SmallHead>Check by listening</SmallHead>
      <Tools>
        {!on || !step ? (
          <Button onPress={start} isDisabled={steps.length === 0 || portId === undefined}>
            <Ear size={16} aria-hidden /> Listen to {steps.length} switches
          </Button>
        ) : (
          <>
            <Button onPress={() => setGoneOn([...goneOn, last])}>Go on</Button>
            <Button onPress={() => setFrom(null)}>Stop listening</Button>
          </>
        )}
      </Tools>
      {portId === undefined && <Soft>No cable comes back from it: plug one in the rig first.</Soft>}
      {step && (
        <Say role="status">
          {done.length + 1} of {steps.length}: go to {pageTitle(show, unit.id, step.pageId)} and press{' '}
          {nameOf(step.switchId)}.
          {came.length > 0 && now!.outcome === 'wrong' && ` Something else came: ${hex(now!.extra)}.`}
          {came.length > 0 && now!.outcome === 'waiting' && ` Still missing: ${hex(now!.missing)}.`}
        </Say>
      )}
      {on && !step && steps.length > 0 && (
        <Say role="status" $wrong={wrong.length > 0}>
          {wrong.length === 0
            ? `All ${done.length} switches send what they should.`
            : `${wrong.length} of ${done.length} switches send something else.`}
        </Say>
      )}
      {wrong.length > 0 && <DifferenceTable wrong={wrong} unit={unit} steps={steps} nameOf={nameOf} />}
    </section>
  );
}

interface DifferenceTableProps {
  readonly wrong: { at: number; listened: Listened; came: readonly MidiBytes[] }[];
  readonly unit: Unit;
  readonly steps: readonly ListenStep[];
  readonly nameOf: (id: string) => string;
}

/** Switches that sent something else than they should. */
function DifferenceTable({ wrong, unit, steps, nameOf }: DifferenceTableProps) {
  const show = useShow();
  return (
    <PlainTable aria-label="What differs">
      <thead>
        <tr>
          {['Page', 'Switch', 'Should send', 'Sent'].map((h) => (
            <th key={h} scope="col">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {wrong.map(({ at, came: sent }) => (
          <tr key={at}>
            <td>{pageTitle(show, unit.id, steps[at]!.pageId)}</td>
            <th scope="row">{nameOf(steps[at]!.switchId)}</th>
            <td>
              <Bytes>{hex(steps[at]!.expects)}</Bytes>
            </td>
            <td>
              <Bytes>{hex(sent)}</Bytes>
            </td>
          </tr>
        ))}
      </tbody>
    </PlainTable>
  );
}
