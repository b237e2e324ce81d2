import { useState } from 'react';
import { Switch } from 'react-aria-components';
import styled from 'styled-components';
import { encodingKinds, encodingOfKind, type Encoding } from '../../../core/addressing';
import { encodingKindWords } from '../../../wording';
import { Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { More } from '../../features/More';
import { Pick } from '../../widgets/Pick';
import { useOpened } from '../../state/opened';
import { desk } from '../../theme/tokens';
import { ENCODING_FIELDS, fieldText, withField, type EncodingField } from './encodingFields';
import { CurveFields } from './CurveFields';
import { ChecksumFields } from './ChecksumFields';
import { type Props, ValueTable, Stray } from './ValueTable';

/** Kinds that few units need: they stand in the list once somebody asked for more. */
const RARE: readonly Encoding['kind'][] = ['fourteen-bit', 'nrpn', 'exclusive'];
const RARE_PLACE = 'encodings';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(116px, 1fr));
  gap: 9px 10px;
  align-items: end;
  & > [data-wide] {
    grid-column: 1 / -1;
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
    background: linear-gradient(to right, ${desk.lineStrong} 50%, ${desk.field} 50%);
  }
  &[data-selected]::before {
    background: linear-gradient(to right, ${desk.field} 50%, ${desk.tide} 50%);
  }
`;

/** How a control's value becomes bytes: its kind, the numbers of that kind, and every result in plain sight. */
export function EncodingEditor({ encoding, channel, options = [], pair, onOptions, onEncoding }: Props) {
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
  const all = useOpened((s) => s.places.includes(RARE_PLACE)) || RARE.includes(encoding.kind);
  const kinds = encodingKinds.filter((kind) => all || !RARE.includes(kind));
  return (
    <>
      <Grid>
        <KindPick encoding={encoding} pair={pair} kinds={kinds} change={change} />
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

interface KindPickProps {
  readonly encoding: Encoding;
  readonly pair: number | undefined;
  readonly kinds: (
    | 'program'
    | 'index'
    | 'table'
    | 'zones'
    | 'set-switch'
    | 'flip'
    | 'momentary'
    | 'tap'
    | 'continuous'
    | 'fourteen-bit'
    | 'nrpn'
    | 'note'
    | 'note-table'
    | 'program-table'
    | 'exclusive'
  )[];
  readonly change: (next: Encoding) => string | null;
}

/** How the control is sent. */
function KindPick({ encoding, pair, kinds, change }: KindPickProps) {
  return (
    <div data-wide>
      <Pick
        label="How it is sent"
        value={encoding.kind}
        choices={kinds.map((kind) => ({ id: kind, name: encodingKindWords(kind) }))}
        onPick={(kind) => void change(encodingOfKind(kind, encoding, pair))}
      />
      <More place={RARE_PLACE} used={RARE.includes(encoding.kind)}>
        {null}
      </More>
    </div>
  );
}

type Nrpn = Extract<Encoding, { kind: 'nrpn' }>;

const fineOrCoarse = (encoding: Nrpn, fine: boolean): Encoding => {
  const top = fine ? 16383 : 127;
  const scaled = (v: number): number => Math.min(top, Math.round((v / (fine ? 127 : 16383)) * top));
  return { ...encoding, fine, from: scaled(encoding.from), to: scaled(encoding.to) };
};
