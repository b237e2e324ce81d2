import { LIMITS } from '../../../core/show';
import { useState } from 'react';
import { Switch } from 'react-aria-components';
import styled from 'styled-components';
import {
  HEARD,
  decodeValue,
  encodeValue,
  encodingKinds,
  encodingOfKind,
  keepsOf,
  valueRange,
  type Encoding,
} from '../../../core/addressing';
import { controlChange, decodeMessage, toHex } from '../../../core/midi';
import { encodingKindWords, figureWords, valueWords } from '../../../wording';
import { Bytes, Field, Input, Label, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { desk } from '../../theme/tokens';
import { ENCODING_FIELDS, fieldText, withField, type EncodingField } from './encodingFields';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(116px, 1fr));
  gap: 9px 10px;
  align-items: end;
  & > [data-wide] {
    grid-column: 1 / -1;
  }
`;

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

const Toggle = styled(Switch)`
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 34px;
  cursor: pointer;
  &::before {
    content: '';
    width: 32px;
    height: 18px;
    border: 1.5px solid ${desk.ink};
    border-radius: 3px 9px 3px 9px;
    background: linear-gradient(to right, ${desk.lineStrong} 50%, #fff 50%);
  }
  &[data-selected]::before {
    background: linear-gradient(to right, #fff 50%, ${desk.tide} 50%);
  }
`;

interface Props {
  readonly encoding: Encoding;
  readonly channel: number;
  /** Names of options; undefined where they are not to be changed here. */
  readonly options?: readonly string[];
  readonly onOptions?: (options: readonly string[]) => void;
  /** Gives a sentence where the encoding is refused. */
  readonly onEncoding: (encoding: Encoding) => string | null;
}

/** How a control's value becomes bytes: its kind, the numbers of that kind, and every result in plain sight. */
export function EncodingEditor({ encoding, channel, options = [], onOptions, onEncoding }: Props) {
  const [refused, setRefused] = useState<string | null>(null);
  const change = (next: Encoding): string | null => {
    const sentence = onEncoding(next);
    setRefused(sentence);
    return sentence;
  };
  const draft = (field: EncodingField) => (
    <DraftField
      key={`${encoding.kind} ${field.key}`}
      label={field.label}
      value={fieldText(encoding, field)}
      numeric={field.takes !== 'text' && field.takes !== 'bytes'}
      commit={(text) => {
        const next = withField(encoding, field, text);
        return 'expected' in next ? next.expected : change(next.encoding);
      }}
    />
  );
  return (
    <>
      <Grid>
        <div data-wide>
          <Pick
            label="How it is sent"
            value={encoding.kind}
            choices={encodingKinds.map((kind) => ({ id: kind, name: encodingKindWords(kind) }))}
            onPick={(kind) => void change(encodingOfKind(kind as Encoding['kind'], encoding))}
          />
        </div>
        {ENCODING_FIELDS[encoding.kind].map((field) =>
          field.takes === 'bytes' || field.key === 'template' ? (
            <div key={field.key} data-wide>
              {draft(field)}
            </div>
          ) : (
            draft(field)
          ),
        )}
        {'curve' in encoding && <CurveFields encoding={encoding} draft={draft} onChange={(e) => void change(e)} />}
        {encoding.kind === 'nrpn' && (
          <Toggle isSelected={encoding.fine} onChange={(fine) => void change(fineOrCoarse(encoding, fine))}>
            both halves
          </Toggle>
        )}
        {encoding.kind === 'exclusive' && <ChecksumFields encoding={encoding} onChange={change} />}
      </Grid>
      {refused !== null && (
        <Soft role="status" style={{ color: desk.rust, fontSize: 13 }}>
          {refused}
        </Soft>
      )}
      <ValueTable encoding={encoding} channel={channel} options={options} {...(onOptions ? { onOptions } : {})} />
      <Stray encoding={encoding} options={options} />
    </>
  );
}

type Curved = Extract<Encoding, { curve: unknown }>;

function CurveFields({
  encoding,
  draft,
  onChange,
}: {
  readonly encoding: Curved;
  readonly draft: (field: EncodingField) => React.ReactNode;
  readonly onChange: (encoding: Encoding) => void;
}) {
  const pick = (curve: string): void => {
    const points = curve === 'table' && encoding.points.length < 2 ? [encoding.low, encoding.high] : encoding.points;
    onChange({ ...encoding, curve: curve as Curved['curve'], points });
  };
  return (
    <>
      <Pick
        label="Curve"
        value={encoding.curve}
        onPick={pick}
        choices={[
          { id: 'linear', name: 'straight' },
          { id: 'logarithmic', name: 'logarithmic' },
          { id: 'table', name: 'a table' },
        ]}
      />
      {encoding.curve === 'table' && (
        <div data-wide>{draft({ key: 'points', label: 'Figures at equal steps', takes: 'figures' })}</div>
      )}
    </>
  );
}

type Nrpn = Extract<Encoding, { kind: 'nrpn' }>;

const fineOrCoarse = (encoding: Nrpn, fine: boolean): Encoding => {
  const top = fine ? 16383 : 127;
  const scaled = (v: number): number => Math.min(top, Math.round((v / (fine ? 127 : 16383)) * top));
  return { ...encoding, fine, from: scaled(encoding.from), to: scaled(encoding.to) };
};

type Exclusive = Extract<Encoding, { kind: 'exclusive' }>;

/** A checksum takes a place in the message, `ss`, and covers some of its bytes. */
function ChecksumFields({
  encoding,
  onChange,
}: {
  readonly encoding: Exclusive;
  readonly onChange: (encoding: Encoding) => string | null;
}) {
  const { checksum, template } = encoding;
  const pick = (kind: string): void => {
    const bare = template.replace(/\s*\bss\b/gi, '');
    if (kind === 'none') void onChange({ ...encoding, template: bare, checksum: null });
    else {
      const placed = /\bss\b/i.test(template) ? template : bare.replace(/\s*F7\s*$/i, ' ss F7');
      const last = placed.trim().split(/\s+/).length - 3;
      const covers = checksum ?? { from: 1, to: Math.max(1, last) };
      void onChange({ ...encoding, template: placed, checksum: { ...covers, kind: kind as 'xor' | 'sum' } });
    }
  };
  const end = (key: 'from' | 'to', label: string) => (
    <DraftField
      label={label}
      value={String(checksum?.[key] ?? '')}
      numeric
      commit={(text) =>
        /^\d{1,3}$/.test(text.trim()) && checksum
          ? onChange({ ...encoding, checksum: { ...checksum, [key]: Number(text) } })
          : 'a whole number'
      }
    />
  );
  return (
    <>
      <Pick
        label="Checksum"
        value={checksum?.kind ?? 'none'}
        onPick={pick}
        choices={[
          { id: 'none', name: 'none' },
          { id: 'sum', name: 'sum to zero' },
          { id: 'xor', name: 'XOR' },
        ]}
      />
      {checksum && end('from', 'Over bytes from (0 is F0)')}
      {checksum && end('to', 'to')}
    </>
  );
}

/** Values that a table of an encoding shows: every option, or the ends and the middle of a line. */
function shownValues(encoding: Encoding): number[] {
  const { low, high, step } = valueRange(encoding);
  if (keepsOf(encoding) === 'nothing') return 'values' in encoding ? encoding.values.map((_, i) => i) : [0];
  if (step === 0) return [low, (low + high) / 2, high];
  if (high - low < 128) return Array.from({ length: high - low + 1 }, (_, i) => low + i);
  return [low, Math.floor((low + high) / 2), high];
}

const named = (encoding: Encoding): boolean =>
  ['index', 'zones', 'table', 'note', 'note-table', 'program', 'program-table', 'exclusive'].includes(encoding.kind) &&
  valueRange(encoding).high - valueRange(encoding).low < 128;

function ValueTable({ encoding, channel, options = [], onOptions }: Omit<Props, 'onEncoding'>) {
  const { low } = valueRange(encoding);
  const name = (i: number, text: string): void => {
    const length = Math.max(options.length, i + 1);
    onOptions?.(Array.from({ length }, (_, k) => (k === i ? text.trim().slice(0, LIMITS.name) : (options[k] ?? ''))));
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
function Stray({ encoding, options }: { readonly encoding: Encoding; readonly options: readonly string[] }) {
  const [text, setText] = useState('50');
  if (!('number' in encoding) || encoding.kind === 'nrpn') return null;
  const value = Number(text);
  const fits = /^\d{1,3}$/.test(text.trim()) && value <= 127;
  const message = fits ? decodeMessage(controlChange(1, encoding.number, value)) : undefined;
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
