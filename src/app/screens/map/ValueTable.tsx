import { fitText } from '../../../core/show';
import { useState } from 'react';
import styled from 'styled-components';
import {
  HEARD,
  decodeValue,
  encodeValue,
  keepsOf,
  valueRange,
  type Encoding,
  controlNumberOf,
  isTap,
} from '../../../core/addressing';
import { controlChange, decodeMessage, toHex } from '../../../core/midi';
import { figureWords, valueWords } from '../../../wording';
import { Bytes, Field, Input, Label } from '../../widgets/controls';
import { desk } from '../../theme/tokens';

const Values = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  max-height: 236px;
  overflow: auto;
  border-top: 1.5px solid ${desk.line};
  & > * {
    padding: 3px 0;
    border-bottom: 1px solid ${desk.line};
    min-height: 30px;
    display: flex;
    align-items: center;
  }
  & input {
    min-height: 26px;
    padding: 1px 6px;
  }
`;

export interface Props {
  readonly encoding: Encoding;
  readonly channel: number;
  /** Names of options; undefined where they are not to be changed here. */
  readonly options?: readonly string[];
  readonly onOptions?: (options: readonly string[]) => void;
  /** The coarse number of a pair that is free, for values of 14 bits. */
  readonly pair?: number;
  /** Gives a sentence where the encoding is refused. */
  readonly onEncoding: (encoding: Encoding) => string | null;
}

/** Values that a table of an encoding shows: every option, or the ends and the middle of a line. */
function shownValues(encoding: Encoding): number[] {
  const { low, high, step } = valueRange(encoding);
  if (isTap(encoding)) return 'values' in encoding ? encoding.values.map((_, i) => i) : [0];
  if (step === 0) return [low, (low + high) / 2, high];
  if (high - low < 128) return Array.from({ length: high - low + 1 }, (_, i) => low + i);
  return [low, Math.floor((low + high) / 2), high];
}

const named = (encoding: Encoding): boolean =>
  ['index', 'zones', 'table', 'note', 'note-table', 'program', 'program-table', 'exclusive'].includes(encoding.kind) &&
  valueRange(encoding).high - valueRange(encoding).low < 128;

export function ValueTable({ encoding, channel, options = [], onOptions }: Omit<Props, 'onEncoding'>) {
  const { low } = valueRange(encoding);
  const name = (i: number, text: string): void => {
    const length = Math.max(options.length, i + 1);
    onOptions?.(Array.from({ length }, (_, k) => (k === i ? fitText(text, 'name') : (options[k] ?? ''))));
  };
  const bytes = (value: number): string => {
    try {
      return encodeValue(encoding, channel, value)
        .map((m) => toHex(m, ' ').toUpperCase())
        .join(' · ');
    } catch {
      return 'not to be sent';
    }
  };
  return (
    <Values role="group" aria-label="Values and bytes">
      {shownValues(encoding).map((value, i) => (
        <ValueLine
          key={value}
          label={String(value)}
          words={valueWords({ encoding, options }, value)}
          bytes={bytes(value)}
          onName={onOptions && named(encoding) ? (text) => name(value - low, text) : undefined}
          text={options[i] ?? ''}
        />
      ))}
    </Values>
  );
}

function ValueLine(props: {
  readonly label: string;
  readonly words: string;
  readonly text: string;
  readonly bytes: string;
  readonly onName: ((text: string) => void) | undefined;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const take = (): void => {
    if (draft !== null && draft !== props.text) props.onName?.(draft);
    setDraft(null);
  };
  return (
    <>
      {props.onName ? (
        <Field
          value={draft ?? props.text}
          onChange={setDraft}
          aria-label={`Name of option ${props.label}`}
          style={{ width: '100%' }}
        >
          <Input placeholder={`option ${props.label}`} onBlur={take} onKeyDown={(e) => e.key === 'Enter' && take()} />
        </Field>
      ) : (
        <span>{props.words}</span>
      )}
      <Bytes>{props.bytes}</Bytes>
    </>
  );
}

/** What a receiver makes of any value on the number: where a foot or another program sends it. */
export function Stray({ encoding, options }: { readonly encoding: Encoding; readonly options: readonly string[] }) {
  const [text, setText] = useState('50');
  const number = controlNumberOf(encoding);
  if (number === null) return null;
  const value = Number(text);
  const fits = /^\d{1,3}$/.test(text.trim()) && value <= 127;
  const message = fits ? decodeMessage(controlChange(1, number, value)) : undefined;
  const decoded = message && decodeValue(encoding, message);
  const words =
    decoded === undefined
      ? 'nothing'
      : decoded === HEARD
        ? 'no change'
        : keepsOf(encoding) === 'flip'
          ? 'the other state'
          : 'curve' in encoding
            ? figureWords(decoded, encoding.unit)
            : valueWords({ encoding, options }, decoded);
  return (
    <Field value={text} onChange={setText} isInvalid={!fits} style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
      <Label style={{ fontWeight: 400 }}>Unexpected value: the unit reads it as</Label>
      <Input inputMode="numeric" style={{ width: 58, minHeight: 28 }} />
      <b role="status">{fits ? words : '0 to 127'}</b>
    </Field>
  );
}
