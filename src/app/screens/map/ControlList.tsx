import { memo, useState } from 'react';
import styled from 'styled-components';
import { encodeValue, fitsRange, valueRange, type Control, type Profile, isOnOff } from '../../../core/addressing';
import type { UnitAim } from '../../../core/rig';
import { toHex } from '../../../core/midi';
import { claimWords } from '../../../wording';
import { Button, Bytes, Input, Soft, Field } from '../../widgets/controls';
import { variantNumber } from '../../state/numbers';
import type { Counting } from '../../state/store';
import { desk } from '../../theme/tokens';

const Part = styled.section`
  padding: 14px 18px 4px;
  & h3 {
    font-size: 16px;
    margin-bottom: 8px;
  }
`;

const Chips = styled.div`
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
  & button {
    padding: 0 4px;
    font-size: 13px;
  }
`;

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 2px 10px;
  padding: 7px 0;
  border-top: 1px solid ${desk.line};
  & > div:last-child {
    grid-column: 1 / -1;
  }
`;

const Keys = styled.div`
  display: flex;
  gap: 4px;
  align-items: center;
  & button {
    min-height: 28px;
    padding: 0 9px;
    font-size: 13px;
  }
  & input {
    width: 62px;
    min-height: 28px;
    text-align: right;
  }
`;

interface Props {
  readonly profile: Profile;
  readonly channel: number;
  readonly counting: Counting;
  readonly onSend: (aim: UnitAim) => void;
}

/** A unit's variants and controls; each is sent when it is pressed. */
export const ControlList = memo(function ControlList({ profile, channel, counting, onSend }: Props) {
  const { variants, controls } = profile;
  return (
    <>
      {variants && (
        <Part aria-label={`${variants.word}s`}>
          <h3>
            {variants.names.length} {variants.word}s{' '}
            <Soft style={{ fontWeight: 400, fontSize: 13 }}>{claimWords(variants.encoding)}</Soft>
          </h3>
          <Chips>
            {variants.names.map((name, i) => (
              <Button
                key={i}
                aria-label={`Send ${variants.word} ${name}`}
                onPress={() => onSend({ variant: i, controls: {} })}
              >
                {variantNumber(variants.names, i, counting)}
              </Button>
            ))}
          </Chips>
        </Part>
      )}
      <Part aria-label="Controls">
        <h3>Controls</h3>
        {controls.length === 0 && <Soft>This unit has none in the map.</Soft>}
        {controls.map((control) => (
          <ControlLine key={control.id} control={control} channel={channel} onSend={onSend} />
        ))}
      </Part>
    </>
  );
});

interface LineProps {
  readonly control: Control;
  readonly channel: number;
  readonly onSend: Props['onSend'];
}

function ControlLine({ control, channel, onSend }: LineProps) {
  const { encoding, id, name } = control;
  const range = valueRange(encoding);
  const [text, setText] = useState(String(control.rest ?? range.low));
  const send = (value: number): void => onSend({ controls: { [id]: value } });
  const bytesOf = (value: number): string =>
    encodeValue(encoding, channel, value)
      .map((m) => toHex(m, ' ').toUpperCase())
      .join(' · ');
  const value = Number(text);
  const fits = text.trim() !== '' && fitsRange(encoding, value);
  return (
    <Line>
      <b>{name}</b>
      {isOnOff(encoding) ? (
        <Keys>
          <Button aria-label={`${name} off`} onPress={() => send(0)}>
            off
          </Button>
          <Button aria-label={`${name} on`} onPress={() => send(1)}>
            on
          </Button>
        </Keys>
      ) : (
        <Keys>
          <Field value={text} onChange={setText} aria-label={`Value of ${name}`} isInvalid={!fits}>
            <Input inputMode="decimal" onKeyDown={(e) => e.key === 'Enter' && fits && send(value)} />
          </Field>
          <Soft>{'unit' in encoding ? encoding.unit : ''}</Soft>
          <Button isDisabled={!fits} aria-label={`Send ${name}`} onPress={() => send(value)}>
            send
          </Button>
        </Keys>
      )}
      <div>
        <Bytes>
          {isOnOff(encoding)
            ? `off ${bytesOf(0)}  on ${bytesOf(1)}`
            : fits
              ? bytesOf(value)
              : `${range.low} to ${range.high}`}
        </Bytes>
      </div>
    </Line>
  );
}
