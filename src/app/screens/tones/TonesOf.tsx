import { useState } from 'react';
import { Form } from 'react-aria-components';
import { addTonesOf } from '../../../core/show';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { DialogButton } from '../../widgets/DialogButton';
import { Last, Rows } from '../../widgets/dialogParts';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';

/** One tone for each preset, look or scene of a unit, in one action. */
export function TonesOf() {
  const show = useShow();
  const units = show.units.filter((u) => u.slots.some((s) => s.name !== '') || u.profile.variants !== null);
  const [unitId, setUnitId] = useState<string | null>(null);
  const [what, setWhat] = useState<'presets' | 'variants'>('presets');
  const unit = units.find((u) => u.id === unitId) ?? units[0];
  if (!unit) return null;
  const { variants } = unit.profile;
  const kind = variants ? what : 'presets';
  const edit = addTonesOf(show, unit.id, kind, newId);
  const count = edit?.kind === 'group' ? edit.edits.length : 0;
  return (
    <DialogButton face="Tones of a unit …" title="One tone for each">
      {(close) => (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            perform(edit, `add ${count} tones`);
            close();
          }}
        >
          <Rows>
            <Pick label="Unit" value={unit.id} choices={units} onPick={setUnitId} />
            {variants && (
              <Pick
                label="For each"
                value={kind}
                choices={[
                  { id: 'presets', name: 'named preset' },
                  { id: 'variants', name: variants.word },
                ]}
                onPick={(id) => setWhat(id)}
              />
            )}
            <Soft role="status">
              {count === 0
                ? 'There is a tone of each name already, or nothing is named.'
                : `Adds ${count === 1 ? '1 tone' : `${count} tones`}, named after them.`}
            </Soft>
            <Last>
              <Button onPress={close}>Cancel</Button>
              <MainButton type="submit" isDisabled={edit === null}>
                Add the tones
              </MainButton>
            </Last>
          </Rows>
        </Form>
      )}
    </DialogButton>
  );
}
