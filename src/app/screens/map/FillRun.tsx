import { useState } from 'react';
import { Form } from 'react-aria-components';
import { labelOf, slotCount } from '../../../core/addressing';
import { nameSlots, runOfNames, type Unit } from '../../../core/show';
import { DialogButton } from '../../components/DialogButton';
import { Complaint, Button, Field, Input, Label, MainButton, Soft } from '../../components/controls';
import { Last, Pair, Rows } from '../../components/dialogParts';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import type { Run } from './useSlotSheet';

interface Props {
  readonly unit: Unit;
  readonly run: Run;
}

/** Names for a run of slots: a name that ends in a number goes on counting. */
export function FillRun({ unit, run }: Props) {
  const [count, setCount] = useState('');
  const [name, setName] = useState('');
  return (
    <DialogButton
      face="Fill a run"
      title="Fill a run of slots"
      onOpen={() => setCount(String(run.count > 1 ? run.count : Math.min(8, slotCount(unit.profile.plan) - run.first)))}
    >
      {(close) => <FillForm {...{ unit, run, count, setCount, name, setName, close }} />}
    </DialogButton>
  );
}

interface FormProps extends Props {
  readonly count: string;
  readonly setCount: (text: string) => void;
  readonly name: string;
  readonly setName: (text: string) => void;
  readonly close: () => void;
}

function FillForm({ unit, run, count, setCount, name, setName, close }: FormProps) {
  const show = useShow();
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
          <Complaint>{wrong}</Complaint>
        ) : (
          <Soft role="status">
            {labelOf(plan, run.first)} {names[0]?.name || '…'}
            {last && last.index !== run.first && ` to ${labelOf(plan, last.index)} ${last.name || '…'}`}
          </Soft>
        )}
        <Last>
          <Button onPress={close}>Not now</Button>
          <MainButton type="submit" isDisabled={wrong !== null || name.trim() === ''}>
            Fill
          </MainButton>
        </Last>
      </Rows>
    </Form>
  );
}
