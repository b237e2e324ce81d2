import { useState } from 'react';
import styled from 'styled-components';
import type { UnitAim } from '../../../core/rig';
import type { Unit } from '../../../core/show';
import { desk } from '../../theme/tokens';
import { ControlEditor } from './ControlEditor';
import { ControlSheet, VARIANTS, senderKey } from './ControlSheet';
import { SenderEditor } from './SenderEditor';
import { VariantsEditor } from './VariantsEditor';

const Right = styled.div`
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
  padding-bottom: 16px;
`;

interface Props {
  readonly unit: Unit;
  readonly onSend: (aim: UnitAim) => void;
}

/** Everything that a unit can be told beside its presets, and the chosen one open for editing. */
export function ControlsPart({ unit, onSend }: Props) {
  const { controls, senders } = unit.profile;
  const [chosen, setChosen] = useState<string>(controls[0]?.id ?? VARIANTS);
  const control = controls.find((c) => c.id === chosen);
  const sender = senders.find((s) => senderKey(s.id) === chosen);
  return (
    <>
      <ControlSheet unit={unit} chosen={control || sender ? chosen : VARIANTS} onChoose={setChosen} />
      <Right>
        {control ? (
          <ControlEditor key={control.id} unit={unit} control={control} onSend={onSend} />
        ) : sender ? (
          <SenderEditor key={sender.id} unit={unit} sender={sender} />
        ) : (
          <VariantsEditor unit={unit} />
        )}
      </Right>
    </>
  );
}
