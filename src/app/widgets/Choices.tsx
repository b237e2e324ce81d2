import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import { desk } from '../theme/tokens';

const Group = styled(RadioGroup)`
  display: grid;
  gap: 6px;
  & > span {
    font-size: 12px;
    font-weight: 600;
    color: ${desk.inkSoft};
  }
`;

const Option = styled(Radio)`
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: 2px 8px;
  align-items: start;
  cursor: pointer;
  &::before {
    content: '';
    width: 16px;
    height: 16px;
    margin-top: 2px;
    border: 1.5px solid ${desk.ink};
    /* Round, as where one of several is chosen: a box would be ticked beside others. */
    border-radius: 50%;
    background: ${desk.field};
  }
  &[data-selected]::before {
    background: ${desk.tide};
    box-shadow: inset 0 0 0 3px ${desk.field};
  }
  & small {
    grid-column: 2;
    font-size: 13px;
    color: ${desk.inkSoft};
  }
`;

interface Props<T extends string> {
  readonly label: string;
  readonly choices: readonly { readonly id: T; readonly name: string; readonly about?: string }[];
  readonly value: T;
  readonly onPick: (id: T) => void;
}

/** One of a few, all in sight, with what each means. */
export function Choices<T extends string>({ label, choices, value, onPick }: Props<T>) {
  return (
    <Group value={value} onChange={(id) => onPick(id as T)}>
      <Label elementType="span">{label}</Label>
      {choices.map(({ id, name, about }) => (
        <Option key={id} value={id}>
          <span>{name}</span>
          {about !== undefined && <small>{about}</small>}
        </Option>
      ))}
    </Group>
  );
}
