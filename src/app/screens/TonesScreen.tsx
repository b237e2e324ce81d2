import { AudioLines, Copy, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { slotCount } from '../../core/addressing';
import {
  addTone,
  aimOf,
  indexShow,
  newTone,
  removeTone,
  renameTone,
  setTonePart,
  slotAt,
  toneAims,
  toneUses,
  type Edit,
  type Tone,
  type TonePart,
} from '../../core/show';
import { Button, Field, Input, Label, MainButton, Soft } from '../components/controls';
import { DraftField } from '../components/DraftField';
import { LanternMark, lanternWords } from '../components/LanternMark';
import { UnitBadge } from '../components/UnitBadge';
import { audition, newId, perform } from '../state/desk';
import { useToneMark } from '../state/marks';
import { useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { songsWords } from '../../wording';
import { PartRow } from './tones/PartRow';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
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

const Editor = styled.section`
  overflow: auto;
  padding: 16px 24px 30px;
`;

const Head = styled.div`
  display: flex;
  align-items: end;
  gap: 10px;
  margin-bottom: 14px;
  & > :first-child {
    flex: 1;
    max-width: 420px;
  }
  & input {
    font: 700 22px/1.2 ${font.display};
  }
`;

const Parts = styled.div`
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
`;

const Nothing = styled.div`
  display: grid;
  place-content: center;
  gap: 12px;
  height: 100%;
  max-width: 460px;
  margin: 0 auto;
  & h1 {
    font-size: 30px;
  }
`;

/** The named sounds: which there are, where they are used, and what each wants of every unit. */
export function TonesScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { toneId } = useParams();
  const [filter, setFilter] = useState('');
  const tone = indexShow(show).tones.get(toneId ?? '') ?? show.tones[0];
  const wanted = filter.trim().toLowerCase();
  const add = (copyOf?: Tone): void => {
    const id = newId();
    const fresh = copyOf
      ? { ...copyOf, id, name: `${copyOf.name} 2`.slice(0, 120) }
      : newTone(id, freeName(show.tones));
    perform(addTone(show, fresh), `add ${fresh.name}`);
    void navigate(`/show/${show.id}/tones/${id}`);
  };
  return (
    <Page>
      <List aria-label="Tones">
        <div>
          <Field value={filter} onChange={setFilter} style={{ flex: 1 }}>
            <Label>Find a tone</Label>
            <Input placeholder="part of its name" />
          </Field>
          <Button onPress={() => add()}>New tone</Button>
        </div>
        <Entries>
          {show.tones
            .filter((t) => t.name.toLowerCase().includes(wanted))
            .map((t) => (
              <ToneEntry key={t.id} tone={t} current={t === tone} />
            ))}
        </Entries>
      </List>
      {tone ? (
        <ToneEditor key={tone.id} tone={tone} onCopy={() => add(tone)} />
      ) : (
        <Nothing>
          <h1>No tones yet</h1>
          <p>
            A tone is a named sound of the whole rig: a slot, a variant and control values for each unit that it needs.
          </p>
          <div>
            <MainButton onPress={() => add()}>Make the first tone</MainButton>
          </div>
        </Nothing>
      )}
    </Page>
  );
}

function freeName(tones: readonly Tone[]): string {
  for (let n = tones.length + 1; ; n++) if (!tones.some((t) => t.name === `Tone ${n}`)) return `Tone ${n}`;
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

function ToneEditor({ tone, onCopy }: { readonly tone: Tone; readonly onCopy: () => void }) {
  const show = useShow();
  const uses = toneUses(show, tone.id);
  const commitName = (name: string): string | null => {
    perform(renameTone(show, tone.id, name), 'rename a tone');
    return name.trim() === '' ? 'a name' : null;
  };
  const sendAll = async (): Promise<void> => {
    for (const part of tone.parts) {
      const unit = indexShow(show).units.get(part.unitId);
      if (unit) await audition(unit.id, aimOf(unit, part));
    }
  };
  const setPart = (unitId: string, part: TonePart | null, label: string, before: Edit | null): void => {
    const edit = setTonePart(show, tone.id, unitId, part);
    perform(before && edit ? { kind: 'group', edits: [before, edit] } : edit, label);
  };
  const aims = toneAims(show, tone);
  const removal = removeTone(show, tone.id);
  return (
    <Editor aria-label={tone.name}>
      <Head>
        <DraftField label="Tone" value={tone.name} commit={commitName} />
        <MainButton onPress={() => void sendAll()} isDisabled={tone.parts.length === 0}>
          <AudioLines size={17} aria-hidden /> Send it now
        </MainButton>
        <Button onPress={onCopy}>
          <Copy size={16} aria-hidden /> Duplicate
        </Button>
        <Button isDisabled={removal === null} onPress={() => perform(removal, `remove ${tone.name}`)}>
          <Trash2 size={16} aria-hidden /> Remove
        </Button>
      </Head>
      <p style={{ marginBottom: 14 }}>
        <Soft>
          {uses.length === 0 ? 'In no song yet.' : 'A change reaches '}
          {uses.map((id, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <Link to={`/show/${show.id}/chart/${id}`}>{indexShow(show).songs.get(id)?.title}</Link>
            </span>
          ))}
        </Soft>
      </p>
      <Parts>
        {show.units.map((unit, i) => {
          // A slot that nobody named gets its entry in the same step that uses it.
          let entry: Edit | null = null;
          return (
            <PartRow
              key={unit.id}
              unit={unit}
              index={i}
              part={tone.parts.find((p) => p.unitId === unit.id)}
              brought={aims.get(unit.id)?.slot}
              onPart={(part, label) => setPart(unit.id, part, label, entry)}
              slotIdAt={(index) => {
                const slot = slotAt(show, unit.id, index);
                if (slot) return slot.id;
                const value = {
                  id: newId(),
                  index: Math.min(index, slotCount(unit.profile.plan) - 1),
                  name: '',
                  startVariant: null,
                };
                entry = { kind: 'insert', path: ['units', { id: unit.id }, 'slots'], index: unit.slots.length, value };
                return value.id;
              }}
            />
          );
        })}
        {show.units.length === 0 && (
          <p style={{ padding: 20 }}>
            No units yet. <Link to={`/show/${show.id}/map`}>Add the first on the map</Link>.
          </p>
        )}
      </Parts>
    </Editor>
  );
}
