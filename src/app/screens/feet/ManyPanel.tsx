import { Eraser, ListOrdered } from 'lucide-react';
import { useState } from 'react';
import { TRIGGERS, type Trigger } from '../../../core/addressing';
import { entryOn, fillSeries, setOnMany } from '../../../core/feet';
import { feetOf, newFootSwitch, putFootSwitches, type FootSwitch, type LayerId, type Unit } from '../../../core/show';
import { TRIGGER_HEADS } from '../../../wording';
import { Button, Soft } from '../../widgets/controls';
import { Find } from '../../widgets/Find';
import { Pick } from '../../widgets/Pick';
import { perform, say } from '../../state/desk';
import { useShow } from '../../state/store';
import { DOES_FIELD, toFloor } from './SwitchPanel';
import { doingOf, searchDoings } from './searchDoings';

interface Props {
  readonly unit: Unit;
  readonly layerId: LayerId;
  /** The first is the one that a run goes on from. */
  readonly switchIds: readonly string[];
}

/** Several switches at once: one thing on all of them, or a run that goes on from the first. */
export function ManyPanel({ unit, layerId, switchIds }: Props) {
  const show = useShow();
  const [trigger, setTrigger] = useState<Trigger>('press');
  const [text, setText] = useState('');
  /** A new field for each: the list of the one before is gone with it. */
  const [round, setRound] = useState(0);
  const feet = feetOf(show, unit.id);
  const page = feet.pages.find((p) => p.id === layerId) ?? null;
  const all = switchIds.map((id) => entryOn(feet, page, id) ?? newFootSwitch(id, []));
  const [first, ...rest] = all;
  const put = (switches: readonly FootSwitch[], label: string): void =>
    void perform(putFootSwitches(show, unit.id, layerId, switches), label);
  const setAll = (id: string): void => {
    const does = doingOf(show, unit.id, id);
    setText('');
    setRound(round + 1);
    if (does) put(setOnMany(all, trigger, does), 'put something on many switches');
    toFloor(first!.id);
  };
  const run = (): void => {
    const filled = fillSeries(
      first!,
      rest,
      show.tones.map((t) => t.id),
    );
    if (filled.length === 0) say('Nothing goes on from the first switch: put a tone, a control or bytes on it first.');
    else put(filled, 'number switches in sequence');
  };
  const known = TRIGGERS.filter((t) => unit.profile.controller!.triggers.includes(t));
  return (
    <div style={{ display: 'grid', gap: 12 }}>
      <h2 style={{ fontSize: 19 }}>{switchIds.length} switches</h2>
      <Pick
        label="On"
        value={trigger}
        choices={known.map((t) => ({ id: t, name: TRIGGER_HEADS[t] }))}
        onPick={(t) => setTrigger(t)}
      />
      <DoesField key={round} unit={unit} text={text} setText={setText} setAll={setAll} />
      <Button onPress={run}>
        <ListOrdered size={16} aria-hidden /> Number in sequence from the first
      </Button>
      <Soft style={{ fontSize: 13 }}>
        The next tone of the list, the next number, or the next value, from the switch that was chosen first.
      </Soft>
      <ClearAll put={put} switchIds={switchIds} />
      <Soft style={{ fontSize: 13 }}>Ctrl+C copies them, Ctrl+V puts them on this or another page.</Soft>
    </div>
  );
}

interface DoesFieldProps {
  readonly unit: Unit;
  readonly text: string;
  readonly setText: (value: string) => void;
  readonly setAll: (id: string) => void;
}

/** What all chosen switches are to do. */
function DoesField({ unit, text, setText, setAll }: DoesFieldProps) {
  const show = useShow();
  return (
    <Find
      label="All of them do"
      inputId={DOES_FIELD}
      placeholder="tone, move, page, stop … or bytes"
      search={(t) => searchDoings(show, unit.id, t)}
      text={text}
      onText={setText}
      onPick={setAll}
      onEnter={() => {
        const [best] = searchDoings(show, unit.id, text);
        if (best && text.trim() !== '') setAll(best.id);
      }}
    />
  );
}

interface ClearAllProps {
  readonly put: (switches: readonly FootSwitch[], label: string) => void;
  readonly switchIds: readonly string[];
}

function ClearAll({ put, switchIds }: ClearAllProps) {
  return (
    <Button
      onPress={() =>
        put(
          switchIds.map((id) => newFootSwitch(id, [])),
          'clear switches',
        )
      }
    >
      <Eraser size={16} aria-hidden /> Clear them
    </Button>
  );
}
