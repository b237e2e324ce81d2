import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { toneUses, type Tone } from '../../../core/show';
import { songsWords } from '../../../wording';
import { Button, Field, Input, Label } from '../../widgets/controls';
import { LanternMark, lanternWords } from '../../widgets/LanternMark';
import { UnitBadge } from '../../widgets/UnitBadge';
import { useToneMark } from '../../state/marks';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { stacked } from '../../theme/narrow';
import { ToneEditor } from './ToneEditor';

const Single = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 280px minmax(0, 1fr);
  ${stacked}
`;

const List = styled.nav`
  display: flex;
  flex-direction: column;
  border-right: 1.5px solid ${desk.ink};
  min-height: 0;
  & > div:first-child {
    display: flex;
    gap: 8px;
    align-items: end;
    padding: 14px 12px 10px;
  }
`;

const Entries = styled.div`
  flex: 1;
  overflow: auto;
  padding: 0 8px 12px;
  & > a {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr);
    align-items: center;
    gap: 1px 9px;
    padding: 7px 9px;
    border-radius: 3px 10px 3px 10px;
    color: ${desk.ink};
    text-decoration: none;
  }
  & > a:hover {
    background: ${desk.tideWash};
  }
  & > a[aria-current='page'] {
    background: ${desk.sheet};
    box-shadow: inset 0 0 0 1.5px ${desk.ink};
  }
  & b {
    font: 700 16px/1.25 ${font.display};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & small {
    grid-column: 2;
    display: flex;
    gap: 4px;
    align-items: center;
    font-size: 12.5px;
    color: ${desk.inkSoft};
  }
`;

export function OneTone({ tone, onNew }: { readonly tone: Tone; readonly onNew: (copyOf?: Tone) => void }) {
  const show = useShow();
  const [filter, setFilter] = useState('');
  const wanted = filter.trim().toLowerCase();
  return (
    <Single>
      <List aria-label="Tones">
        <div>
          <Field value={filter} onChange={setFilter} style={{ flex: 1 }}>
            <Label>Find a tone</Label>
            <Input placeholder="part of its name" />
          </Field>
          <Button onPress={() => onNew()}>New tone</Button>
        </div>
        <Entries>
          <Link to={`/show/${show.id}/tones`} style={{ gridTemplateColumns: '1fr', fontWeight: 600 }}>
            Back to the sheet of all tones
          </Link>
          {show.tones
            .filter((t) => t.name.toLowerCase().includes(wanted))
            .map((t) => (
              <ToneEntry key={t.id} tone={t} current={t === tone} />
            ))}
        </Entries>
      </List>
      <ToneEditor key={tone.id} tone={tone} onCopy={() => onNew(tone)} />
    </Single>
  );
}

function ToneEntry({ tone, current }: { readonly tone: Tone; readonly current: boolean }) {
  const show = useShow();
  const mark = useToneMark(show, tone.id);
  return (
    <Link to={`/show/${show.id}/tones/${tone.id}`} aria-current={current ? 'page' : undefined}>
      <span title={lanternWords(mark)}>
        <LanternMark mark={mark} size={24} />
      </span>
      <b>{tone.name}</b>
      <small>
        {show.units.map(
          (u, i) =>
            tone.parts.some((p) => p.unitId === u.id) && (
              <UnitBadge key={u.id} monogram={u.monogram} index={i} size={15} />
            ),
        )}
        <span style={{ marginLeft: 'auto' }}>{songsWords(toneUses(show, tone.id).length)}</span>
      </small>
    </Link>
  );
}
