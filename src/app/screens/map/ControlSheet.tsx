import { Plus } from 'lucide-react';
import styled from 'styled-components';
import { newControl, onOff, type Control, type Sender, type Variants } from '../../../core/addressing';
import { checkRig, type Finding } from '../../../core/checks';
import { withControl, type Unit, freeControlNumber, type HouseNumber } from '../../../core/show';
import { tonightOf } from '../../../core/tonight';
import { claimWords, encodingKindWords, findingSentence } from '../../../wording';
import { Unseen } from '../../widgets/shellParts';
import { Button, Soft } from '../../widgets/controls';
import { LanternMark } from '../../widgets/LanternMark';
import { newId } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { useProfile } from './useProfile';

const Scroller = styled.div`
  overflow: auto;
  padding: 4px 20px 20px;
`;

const Table = styled.table`
  width: 100%;
  border-collapse: separate;
  border-spacing: 0;
  & th {
    position: sticky;
    top: 0;
    z-index: 1;
    padding: 6px 10px 6px 0;
    border-bottom: 1.5px solid ${desk.ink};
    background: ${desk.paper};
    text-align: left;
    font-size: 12px;
    color: ${desk.inkSoft};
  }
  & td {
    padding: 0 10px 0 0;
    height: 38px;
    border-bottom: 1px solid ${desk.line};
  }
  & tr[aria-selected='true'] td {
    background: ${desk.sheet};
    box-shadow:
      inset 0 1.5px ${desk.tide},
      inset 0 -1.5px ${desk.tide};
  }
  & tbody tr:hover td {
    background: ${desk.tideWash};
  }
  & td > button {
    width: 100%;
    min-height: 36px;
    padding: 0 8px;
    border: 0;
    background: none;
    text-align: left;
    font: 700 15px/1.2 ${font.display};
    cursor: pointer;
  }
`;

const Foot = styled.div`
  display: flex;
  gap: 10px;
  padding-top: 14px;
`;

/** Rows that the list of controls has before those of the controls. */
export const VARIANTS = 'variants';

/** How a switch, pad or pedal is named among the rows, apart from the controls. */
export const senderKey = (senderId: string): string => `sender ${senderId}`;

interface Props {
  readonly unit: Unit;
  readonly chosen: string | null;
  readonly onChoose: (controlId: string) => void;
}

/** All that a unit can be told to do beside its presets, with the numbers of each. */
export function ControlSheet({ unit, chosen, onChoose }: Props) {
  const show = useShow();
  const change = useProfile(unit);
  const { variants, controls, senders } = unit.profile;
  const findings = checkRig(tonightOf(show)).filter((f) => f.place.in === 'unit' && f.place.unitId === unit.id);
  const add = (): void => {
    const id = newId();
    const number = freeControlNumber(unit);
    change(withControl(unit.profile, newControl(id, freshName(controls, number), onOff(number))), 'add a control');
    onChoose(id);
  };
  const addSender = (): void => {
    const id = newId();
    const sender: Sender = {
      id,
      name: `Switch ${senders.length + 1}`,
      channel: unit.channel,
      encoding: { kind: 'momentary', number: Math.min(119, 102 + senders.length), press: 127, release: 0 },
    };
    change({ ...unit.profile, senders: [...senders, sender] }, 'add a switch');
    onChoose(senderKey(id));
  };
  return (
    <Scroller>
      <Table aria-label={`Controls of ${unit.name}`}>
        <ControlHead />
        <tbody>
          <VariantsRow chosen={chosen} onChoose={onChoose} variants={variants} />
          {controls.map((control) => {
            const found = findings.filter((f) => f.place.in === 'unit' && f.place.controlId === control.id);
            const house = show.house.find((h) => h.id === control.houseId);
            return (
              <ControlRow
                key={control.id}
                chosen={chosen}
                control={control}
                onChoose={onChoose}
                house={house}
                found={found}
              />
            );
          })}
          {senders.map((sender) => (
            <SenderRow key={sender.id} chosen={chosen} sender={sender} onChoose={onChoose} />
          ))}
        </tbody>
      </Table>
      <Foot>
        <Button onPress={add}>
          <Plus size={16} aria-hidden /> Add a control
        </Button>
        <Button onPress={addSender}>
          <Plus size={16} aria-hidden /> Add a switch that it sends
        </Button>
      </Foot>
    </Scroller>
  );
}

interface VariantsRowProps {
  readonly chosen: string | null;
  readonly onChoose: (controlId: string) => void;
  readonly variants: Variants | null;
}

/** The variants of the unit, above its controls. */
function VariantsRow({ chosen, onChoose, variants }: VariantsRowProps) {
  return (
    <tr aria-selected={chosen === VARIANTS}>
      <td>
        <button type="button" onClick={() => onChoose(VARIANTS)}>
          {variants ? `${variants.names.length} ${variants.word}s` : 'Variants'}
        </button>
      </td>
      <td>{variants ? claimWords(variants.encoding) : ''}</td>
      <td>{variants ? encodingKindWords(variants.encoding.kind) : <Soft>its presets have none in the map</Soft>}</td>
      <td />
      <td />
    </tr>
  );
}

function ControlHead() {
  return (
    <thead>
      <tr>
        <th scope="col">Name</th>
        <th scope="col">On</th>
        <th scope="col">How it is sent</th>
        <th scope="col">Shared control number</th>
        <th scope="col">
          <Unseen>Findings</Unseen>
        </th>
      </tr>
    </thead>
  );
}

interface SenderRowProps {
  readonly chosen: string | null;
  readonly sender: Sender;
  readonly onChoose: (controlId: string) => void;
}

/** A switch or pedal of the unit itself. */
function SenderRow({ chosen, sender, onChoose }: SenderRowProps) {
  return (
    <tr aria-selected={chosen === senderKey(sender.id)}>
      <td>
        <button type="button" onClick={() => onChoose(senderKey(sender.id))}>
          {sender.name}
        </button>
      </td>
      <td>
        {claimWords(sender.encoding)}, channel {sender.channel}
      </td>
      <td>sends {encodingKindWords(sender.encoding.kind)}</td>
      <td />
      <td />
    </tr>
  );
}

interface ControlRowProps {
  readonly chosen: string | null;
  readonly control: Control;
  readonly onChoose: (controlId: string) => void;
  readonly house: HouseNumber | undefined;
  readonly found: Finding[];
}

/** A control: what sets it, how, and what is wrong with it. */
function ControlRow({ chosen, control, onChoose, house, found }: ControlRowProps) {
  return (
    <tr aria-selected={chosen === control.id}>
      <td>
        <button type="button" onClick={() => onChoose(control.id)}>
          {control.name}
        </button>
      </td>
      <td>{claimWords(control.encoding)}</td>
      <td>{encodingKindWords(control.encoding.kind)}</td>
      <td>{house ? house.name : <Soft>–</Soft>}</td>
      <td title={found.map(findingSentence).join(' ')}>
        {found.length > 0 && <LanternMark mark="cracked" size={20} />}
      </td>
    </tr>
  );
}

/** A new control is named by its own number. */
function freshName(controls: readonly Control[], number: number): string {
  const name = `Control ${number}`;
  for (let n = 1; ; n++) {
    const tried = n === 1 ? name : `${name} (${n})`;
    if (!controls.some((c) => c.name === tried)) return tried;
  }
}
