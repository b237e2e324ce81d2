import { Ear } from 'lucide-react';
import { useEffect, useState } from 'react';
import { compareHeard, listenSteps, type Listened } from '../../../core/feet';
import { toHex, type Bytes as MidiBytes } from '../../../core/midi';
import { pageTitle, type Unit } from '../../../core/show';
import { Bytes, Button, Soft } from '../../components/controls';
import { PlainTable } from '../../components/plainTable';
import { listenOnly } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { Say, SmallHead, Tools } from './parts';

const hex = (list: readonly MidiBytes[]): string =>
  list.length === 0 ? 'nothing' : list.map((b) => toHex(b, ' ').toUpperCase()).join(' · ');

interface Result {
  readonly at: number;
  readonly listened: Listened;
  readonly came: readonly MidiBytes[];
}

/** Switch by switch: one presses it, and what arrives is compared with what it should send. */
export function ListenCheck({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const [from, setFrom] = useState<{ readonly at: number; readonly line: number } | null>(null);
  const [results, setResults] = useState<readonly Result[]>([]);
  const steps = listenSteps(show, unit.id);
  const portId = unit.returns?.portId;
  const on = from !== null;
  useEffect(() => {
    if (!on) return;
    void listenOnly(true);
    return () => void listenOnly(false);
  }, [on]);
  const lastLine = (): number => useNews.getState().lines.at(-1)?.number ?? 0;
  const start = (): void => {
    setResults([]);
    setFrom({ at: 0, line: lastLine() });
  };
  const step = from ? steps[from.at] : undefined;
  const lines = useNews((s) => s.lines);
  const came =
    from && step
      ? lines.filter((l) => l.number > from.line && l.direction === 'in' && l.portId === portId).map((l) => l.bytes)
      : [];
  const listened = step ? compareHeard(step.expects, came) : null;
  const goOn = (): void => {
    if (!from || !listened) return;
    setResults([...results, { at: from.at, listened, came }]);
    setFrom({ at: from.at + 1, line: lastLine() });
  };
  // What is right needs no word: the next switch is asked for.
  const right = listened?.outcome === 'right';
  useEffect(() => {
    if (right) goOn();
  });
  const nameOf = (id: string): string => unit.profile.senders.find((s) => s.id === id)?.name ?? id;
  const wrong = results.filter((r) => r.listened.outcome !== 'right');
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
            <Button onPress={goOn}>Go on</Button>
            <Button onPress={() => setFrom(null)}>Stop listening</Button>
          </>
        )}
      </Tools>
      {portId === undefined && <Soft>No cable comes back from it: plug one in the rig first.</Soft>}
      {step && from && (
        <Say role="status">
          {from.at + 1} of {steps.length}: go to {pageTitle(show, unit.id, step.pageId)} and press{' '}
          {nameOf(step.switchId)}.
          {came.length > 0 && listened!.outcome === 'wrong' && ` Something else came: ${hex(listened!.extra)}.`}
          {came.length > 0 && listened!.outcome === 'waiting' && ` Still missing: ${hex(listened!.missing)}.`}
        </Say>
      )}
      {on && !step && (
        <Say role="status" $wrong={wrong.length > 0}>
          {wrong.length === 0
            ? `All ${results.length} switches send what they should.`
            : `${wrong.length} of ${results.length} switches send something else.`}
        </Say>
      )}
      {wrong.length > 0 && (
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
      )}
    </section>
  );
}
