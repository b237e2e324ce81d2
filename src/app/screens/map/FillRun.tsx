import { useState, type RefObject } from 'react';
import { Form } from 'react-aria-components';
import { labelOf, slotCount } from '../../../core/addressing';
import { indexShow, nameSlots, runOfNames } from '../../../core/show';
import { DialogButton } from '../../widgets/DialogButton';
import { FormProblem, Button, Field, Input, Label, MainButton, Soft } from '../../widgets/controls';
import { Last, Pair, Rows } from '../../widgets/dialogParts';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import type { Run } from './useSlotSheet';

interface Props {
  readonly unitId: string;
  readonly run: RefObject<Run>;
}

/** Names for a run of slots: a name that ends in a number goes on counting. */
export function FillRun({ unitId, run }: Props) {
  const [from, setFrom] = useState<Run>({ first: 0, count: 1 });
  return (
    <DialogButton face="Fill a run" title="Fill a run of slots" onOpen={() => setFrom(run.current)}>
      {(close) => <FillForm unitId={unitId} run={from} close={close} />}
    </DialogButton>
  );
}

interface FormProps {
  readonly unitId: string;
  readonly run: Run;
  readonly close: () => void;
}

/** Slots that are filled where no run is chosen. */
const USUAL = 8;

function FillForm({ unitId, run, close }: FormProps) {
  const show = useShow();
  const unit = indexShow(show).units.get(unitId)!;
  const [name, setName] = useState('');
  const [count, setCount] = useState(() =>
    String(run.count > 1 ? run.count : Math.min(USUAL, slotCount(unit.profile.plan) - run.first)),
  );
  const { plan } = unit.profile;
  const room = slotCount(plan) - run.first;
  const many = Number(count);
  const wrong =
    !Number.isInteger(many) || many < 1 || many > room
      ? `How many: 1 to ${room} from ${labelOf(plan, run.first)} on.`
      : null;
  const names = wrong === null ? runOfNames(run.first, many, name) : [];
  const last = names.at(-1);
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        if (wrong !== null || name.trim() === '') return;
        perform(nameSlots(show, unit.id, names, newId), `fill ${many} slots`);
        close();
      }}
    >
      <Rows>
        <Pair>
          <Field value={name} onChange={setName} autoFocus style={{ flex: 3 }}>
            <Label>First name</Label>
            <Input placeholder="Verse 01" />
          </Field>
          <Field value={count} onChange={setCount} isInvalid={wrong !== null}>
            <Label>How many</Label>
            <Input inputMode="numeric" />
          </Field>
        </Pair>
        {wrong !== null ? (
          <FormProblem>{wrong}</FormProblem>
        ) : (
          <Soft role="status">
            {labelOf(plan, run.first)} {names[0]?.name || '…'}
            {last && last.index !== run.first && ` to ${labelOf(plan, last.index)} ${last.name || '…'}`}
          </Soft>
        )}
        <Last>
          <Button onPress={close}>Cancel</Button>
          <MainButton type="submit" isDisabled={wrong !== null || name.trim() === ''}>
            Fill
          </MainButton>
        </Last>
      </Rows>
    </Form>
  );
}
