import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { withDigit, type Digit, type SlotGroup } from '../../../core/addressing';
import { Button, Field, Input, Label, SignButton } from '../../widgets/controls';
import { Check } from '../../widgets/Check';
import { Pick } from '../../widgets/Pick';
import { desk } from '../../theme/tokens';
import { Row } from './planParts';

const Group = styled.fieldset`
  display: grid;
  gap: 8px;
  min-width: 0;
  margin: 0;
  padding: 10px 14px 14px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
`;

const Digits = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
`;

const DigitBox = styled.div`
  display: flex;
  align-items: end;
  gap: 6px;
  padding: 6px 4px 6px 8px;
  border: 1.5px dashed ${desk.lineStrong};
  border-radius: 4px;
`;

export function NumberField(props: {
  readonly label: string;
  readonly value: number;
  readonly onValue: (n: number) => void;
}) {
  return (
    <Field
      value={Number.isNaN(props.value) ? '' : String(props.value)}
      onChange={(text) => props.onValue(/^\d{1,6}$/.test(text.trim()) ? Number(text) : Number.NaN)}
      isInvalid={Number.isNaN(props.value)}
      style={{ width: Math.max(66, props.label.length * 7.2) }}
    >
      <Label>{props.label}</Label>
      <Input inputMode="numeric" />
    </Field>
  );
}

interface GroupProps {
  readonly group: SlotGroup;
  readonly number: number;
  readonly only: boolean;
  readonly onGroup: (group: SlotGroup) => void;
  readonly onRemove: () => void;
}

export function GroupFields({ group, number, only, onGroup, onRemove }: GroupProps) {
  const more = withDigit(group);
  const putDigits = (digits: readonly Digit[]): void => {
    const room = digits.reduce((n, d) => n * (d.kind === 'text' ? 1 : d.count), 1);
    onGroup({ ...group, digits, count: Number.isNaN(room) ? group.count : Math.max(1, room) });
  };
  const put = (i: number, digit: Digit): void => putDigits(group.digits.with(i, digit));
  return (
    <Group aria-label={`Group ${group.name || number + 1}`}>
      <Row>
        <Field
          value={group.name}
          onChange={(name) => onGroup({ ...group, name })}
          isInvalid={group.name === ''}
          style={{ width: 150 }}
        >
          <Label>Group</Label>
          <Input />
        </Field>
        <NumberField label="Slots" value={group.count} onValue={(count) => onGroup({ ...group, count })} />
        <Check isSelected={group.readOnly} onChange={(readOnly) => onGroup({ ...group, readOnly })}>
          Nothing can be stored in it
        </Check>
        {!only && (
          <SignButton aria-label={`Remove group ${group.name}`} onPress={onRemove}>
            <Trash2 size={16} />
          </SignButton>
        )}
      </Row>
      <Digits>
        {group.digits.map((digit, i) => (
          <DigitBox key={i}>
            <DigitFields digit={digit} onDigit={(d) => put(i, d)} />
            <SignButton
              aria-label={`Remove part ${i + 1} of the label`}
              isDisabled={group.digits.length === 1}
              onPress={() => putDigits(group.digits.toSpliced(i, 1))}
            >
              <Trash2 size={14} />
            </SignButton>
          </DigitBox>
        ))}
        <Button isDisabled={more === null} onPress={() => more && putDigits(more.digits)}>
          <Plus size={15} aria-hidden /> Part of the label
        </Button>
      </Digits>
    </Group>
  );
}

function DigitFields({ digit, onDigit }: { readonly digit: Digit; readonly onDigit: (digit: Digit) => void }) {
  const kinds = {
    number: { kind: 'number', start: 1, count: 8, width: 1 },
    letter: { kind: 'letter', from: 'A', count: 8 },
    text: { kind: 'text', text: '-' },
  } as const satisfies Record<Digit['kind'], Digit>;
  return (
    <>
      <Pick
        label="Part"
        width="104px"
        value={digit.kind}
        choices={[
          { id: 'number', name: 'number' },
          { id: 'letter', name: 'letter' },
          { id: 'text', name: 'text' },
        ]}
        onPick={(kind) => onDigit(kinds[kind])}
      />
      {digit.kind === 'text' && (
        <Field
          value={digit.text}
          onChange={(text) => onDigit({ ...digit, text })}
          isInvalid={digit.text === ''}
          style={{ width: 96 }}
        >
          <Label>Text</Label>
          <Input />
        </Field>
      )}
      {digit.kind === 'letter' && (
        <Field
          value={digit.from}
          onChange={(from) => onDigit({ ...digit, from: from.trim().toUpperCase().slice(-1) })}
          isInvalid={!/^[A-Z]$/.test(digit.from)}
          style={{ width: 52 }}
        >
          <Label>From</Label>
          <Input />
        </Field>
      )}
      {digit.kind === 'number' && (
        <>
          <NumberField label="From" value={digit.start} onValue={(start) => onDigit({ ...digit, start })} />
          <NumberField label="Digits" value={digit.width} onValue={(width) => onDigit({ ...digit, width })} />
        </>
      )}
      {digit.kind !== 'text' && (
        <NumberField label="How many" value={digit.count} onValue={(count) => onDigit({ ...digit, count })} />
      )}
    </>
  );
}
