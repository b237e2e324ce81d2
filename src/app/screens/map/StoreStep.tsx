import styled from 'styled-components';
import { fitText, setSlotField, slotAt, slotsById, type Unit } from '../../../core/show';
import type { StoringStep } from '../../../core/meaning';
import { Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { Panel } from './relayParts';

const Step = styled.li`
  display: grid;
  gap: 8px;
  padding: 10px 14px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > b {
    font: 700 17px/1.2 ${font.display};
  }
`;

/** One stored state: how its panel stands, which program calls it, and who does. */
export function StoreStep({ unit, step }: { readonly unit: Unit; readonly step: StoringStep }) {
  const show = useShow();
  const index = slotsById(unit).get(step.slotId)!.index;
  const set = (name: string, setting: string): string | null => {
    const panel = (slotAt(show, unit.id, index)?.panel ?? []).filter((p) => p.name !== name);
    const next = setting.trim() === '' ? panel : [...panel, { name, setting: fitText(setting, 'name') }];
    perform(setSlotField(show, unit.id, index, 'panel', next, newId()), `describe ${step.label}`);
    return null;
  };
  const calls = step.calledBy.map((c) =>
    [c.unit, c.label ?? '', c.name, c.variant ?? ''].filter((t) => t !== '').join(' '),
  );
  return (
    <Step>
      <b>
        {step.label} {step.name}
      </b>
      <Panel>
        {step.panel.map(({ name, setting }) => (
          <DraftField
            key={name}
            label={name}
            value={setting ?? ''}
            placeholder="not described"
            style={{ width: 140 }}
            commit={(text) => set(name, text)}
          />
        ))}
      </Panel>
      <Soft>
        Go to {step.label}, set the panel like this, press store.{' '}
        {step.program === null ? 'No program calls it.' : `Program ${step.program} (from 0) calls it`}:{' '}
        {calls.join('; ')}
      </Soft>
    </Step>
  );
}
