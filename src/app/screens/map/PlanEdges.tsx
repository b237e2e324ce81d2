import styled from 'styled-components';
import { addressOf, indexOfLabel, labelOf, slotMessages, type AddressPlan } from '../../../core/addressing';
import { toHex } from '../../../core/midi';
import { Bytes, Field, Input, Label } from '../../widgets/controls';
import { desk, font } from '../../theme/tokens';
import { edgeSlots } from '../../../core/addressing';

const Preview = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  & th {
    padding: 10px 8px 4px 0;
    text-align: left;
    font-size: 12px;
    color: ${desk.inkSoft};
  }
  & td {
    padding: 3px 10px 3px 0;
    border-top: 1px solid ${desk.line};
  }
  & td:first-child {
    white-space: nowrap;
    font: 700 15px/1.3 ${font.display};
  }
`;

interface EdgesProps {
  readonly plan: AddressPlan;
  readonly channel: number;
  readonly asked: string;
  readonly onAsked: (text: string) => void;
}

export function Edges({ plan, channel, asked, onAsked }: EdgesProps) {
  const found = asked.trim() === '' ? undefined : indexOfLabel(plan, asked);
  const slots = [...(found === undefined ? [] : [found]), ...edgeSlots(plan).filter((i) => i !== found)];
  return (
    <div>
      <Field
        value={asked}
        onChange={onAsked}
        isInvalid={asked.trim() !== '' && found === undefined}
        style={{ width: 210 }}
      >
        <Label>Try a label as the unit writes it</Label>
        <Input placeholder={labelOf(plan, 0)} />
      </Field>
      <Preview aria-label="Edges of the plan">
        <thead>
          <tr>
            <th scope="col">Label</th>
            <th scope="col">From 0</th>
            <th scope="col">Bank</th>
            <th scope="col">Prog.</th>
            <th scope="col">On the wire</th>
          </tr>
        </thead>
        <tbody>
          {slots.map((index) => {
            const address = addressOf(plan, index);
            return (
              <tr key={index}>
                <td>{labelOf(plan, index)}</td>
                <td>{index}</td>
                <td>{address?.bank ?? '–'}</td>
                <td>{address?.program ?? 'none calls it'}</td>
                <td>
                  <Bytes>
                    {slotMessages(plan, channel, index, null)
                      ?.map((m) => toHex(m, ' ').toUpperCase())
                      .join(' · ') ?? ''}
                  </Bytes>
                </td>
              </tr>
            );
          })}
        </tbody>
      </Preview>
    </div>
  );
}
