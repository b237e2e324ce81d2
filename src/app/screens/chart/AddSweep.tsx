import { Spline } from 'lucide-react';
import { useState } from 'react';
import { Form } from 'react-aria-components';
import { sweepable, type Show } from '../../../core/show';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { DialogButton } from '../../widgets/DialogButton';
import { Last, Rows } from '../../widgets/dialogParts';
import { Pick } from '../../widgets/Pick';

type Sweepable = ReturnType<typeof sweepable>[number];

const keyOf = ({ unit, control }: Sweepable): string => `${unit.id}\n${control.id}`;

/** Asks which control a new sweep moves. */
export function AddSweep({ show, onAdd }: { readonly show: Show; readonly onAdd: (what: Sweepable) => void }) {
  const [chosen, setChosen] = useState('');
  const all = sweepable(show);
  const what = all.find((s) => keyOf(s) === chosen);
  return (
    <DialogButton
      face={
        <>
          <Spline size={16} aria-hidden /> Sweep …
        </>
      }
      title="Add a sweep"
      disabled={all.length === 0}
    >
      {(close) => (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            if (!what) return;
            close();
            onAdd(what);
          }}
        >
          <Rows>
            <Pick
              label="Control"
              value={chosen}
              onPick={setChosen}
              choices={all.map((s) => ({ id: keyOf(s), name: `${s.unit.name}: ${s.control.name}` }))}
            />
            <Soft>
              It begins at the caret and lasts to the end of the bar; its ends and its shape are set beside the chart.
            </Soft>
            <Last>
              <Button onPress={close}>Cancel</Button>
              <MainButton type="submit" isDisabled={!what}>
                Add the sweep
              </MainButton>
            </Last>
          </Rows>
        </Form>
      )}
    </DialogButton>
  );
}
