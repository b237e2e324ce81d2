import { Plus, Radio } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { LIMITS, addTone, captureTone, indexShow, newPart, newTone, setTonePart, type Tone } from '../../core/show';
import { Button, Field, Input, Label, MainButton } from '../widgets/controls';
import { PartLinks } from '../widgets/PartLinks';
import { Pick } from '../widgets/Pick';
import { Unseen } from '../widgets/shellParts';
import { newId, perform, say } from '../state/desk';
import { useNews } from '../state/news';
import { setPlayerFilter, useApp, useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { stacked } from '../theme/narrow';
import { TonePanel } from './tones/TonePanel';
import { TONE_PARTS } from './tones/toneParts';
import { ToneSheet, type ToneCell } from './tones/ToneSheet';
import { TonesOf } from './tones/TonesOf';
import { OneTone } from './tones/OneTone';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 336px;
  @media (max-width: 1150px) {
    grid-template-columns: minmax(0, 1fr) 290px;
  }
  ${stacked}
`;

const Tools = styled.div`
  display: flex;
  align-items: end;
  flex-wrap: wrap;
  gap: 10px;
  padding: 12px 16px 10px;
  & > h1 {
    font-size: 26px;
    margin-right: 6px;
    align-self: center;
  }
`;

const Side = styled.div`
  grid-column: 2;
  grid-row: 1 / -1;
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
`;

const Nothing = styled.div`
  display: grid;
  place-content: center;
  gap: 12px;
  height: 80%;
  max-width: 460px;
  margin: 0 auto;
  & h1 {
    font-size: 30px;
  }
`;

/** The named sounds: as a sheet against the units, or one with all that it wants. */
export function TonesScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { toneId } = useParams();
  const tone = indexShow(show).tones.get(toneId ?? '');
  const add = (copyOf?: Tone): string => {
    const id = newId();
    const fresh = copyOf
      ? { ...copyOf, id, name: `${copyOf.name} 2`.slice(0, LIMITS.title) }
      : newTone(id, freeName(show.tones));
    perform(addTone(show, fresh), `add ${fresh.name}`);
    return id;
  };
  const openNew = (copyOf?: Tone): void =>
    void navigate(`/show/${show.id}/tones/${add(copyOf)}`, { state: { fresh: true } });
  if (show.tones.length === 0) {
    return (
      <>
        <Tools style={{ justifyContent: 'end' }}>
          <PartLinks label="Tones and moves" base={`/show/${show.id}/tones`} parts={TONE_PARTS} current="" />
        </Tools>
        <Nothing>
          <h1>No tones yet</h1>
          <p>
            A tone is a named sound of the whole rig: a preset, a variant and control values for each unit that it
            needs.
          </p>
          <div>
            <MainButton onPress={() => openNew()}>Add the first tone</MainButton>
          </div>
          <TonesOf />
        </Nothing>
      </>
    );
  }
  return tone ? <OneTone tone={tone} onNew={openNew} /> : <Sheet onAdd={add} />;
}

function freeName(tones: readonly Tone[]): string {
  for (let n = tones.length + 1; ; n++) if (!tones.some((t) => t.name === `Tone ${n}`)) return `Tone ${n}`;
}

/** Gives the keyboard to a field, so that what is typed takes the place of what stands in it. */
function toField(field: HTMLInputElement | null | undefined): void {
  field?.focus();
  field?.select();
}

const EVERYONE = 'everyone';

function Sheet({ onAdd }: { readonly onAdd: (copyOf?: Tone) => string }) {
  const show = useShow();
  const playerId = useApp((s) => s.playerFilter);
  const rig = useNews((s) => s.news.rig);
  const [filter, setFilter] = useState('');
  const [chosen, setChosen] = useState<ToneCell | null>(null);
  const side = useRef<HTMLDivElement>(null);
  const wanted = filter.trim().toLowerCase();
  const tones = wanted === '' ? show.tones : show.tones.filter((t) => t.name.toLowerCase().includes(wanted));
  // Units that only send take no part in a sound.
  const playing = show.units.filter(
    (u) => u.profile.senders.length === 0 || show.tones.some((t) => t.parts.some((p) => p.unitId === u.id)),
  );
  const units = playerId === null ? playing : playing.filter((u) => u.playerId === playerId);
  const tone = show.tones.find((t) => t.id === chosen?.toneId) ?? tones[0];
  const unit = indexShow(show).units.get(chosen?.unitId ?? '') ?? null;
  /** To the fields of the chosen cell; a unit that the tone leaves alone is taken in first. */
  const open = (): void => {
    if (tone && unit && !tone.parts.some((p) => p.unitId === unit.id)) {
      perform(setTonePart(show, tone.id, unit.id, newPart(unit.id)), `include ${unit.name}`);
    }
    requestAnimationFrame(() => toField(side.current?.querySelector(unit ? 'input[role="combobox"]' : 'input')));
  };
  /** A tone that was just made: its name comes next. */
  const fresh = (toneId: string): void => {
    setChosen({ toneId, unitId: null });
    requestAnimationFrame(() => toField(side.current?.querySelector('input')));
  };
  const capture = (): void => {
    const id = newId();
    const edit = captureTone(show, rig, id, freeName(show.tones), newId);
    if (perform(edit, 'capture the rig')) {
      fresh(id);
      say('What is known of the rig is in a new tone. Give it a name.');
    } else say('Nothing is known of any unit yet: send something first.');
  };
  return (
    <Page>
      <SheetTools
        filter={filter}
        setFilter={setFilter}
        playerId={playerId}
        onNew={() => fresh(onAdd())}
        capture={capture}
      />
      <ToneSheet tones={tones} units={units} chosen={chosen} onChoose={setChosen} onOpen={open} />
      <Side ref={side}>
        {tone && (
          <TonePanel
            key={tone.id}
            tone={tone}
            unit={unit}
            onCopy={() => setChosen({ toneId: onAdd(tone), unitId: chosen?.unitId ?? null })}
          />
        )}
      </Side>
    </Page>
  );
}

interface SheetToolsProps {
  readonly filter: string;
  readonly setFilter: (value: string) => void;
  readonly playerId: string | null;
  readonly onNew: () => void;
  readonly capture: () => void;
}

/** What of the tones is shown, and how a tone is added. */
function SheetTools({ filter, setFilter, playerId, onNew, capture }: SheetToolsProps) {
  const show = useShow();
  return (
    <Tools>
      <Unseen as="h1">Tones</Unseen>
      <Field value={filter} onChange={setFilter} style={{ width: 140 }}>
        <Label>Find a tone</Label>
        <Input placeholder="part of its name" />
      </Field>
      {show.players.length > 0 && (
        <Pick
          label="Units of"
          width="112px"
          value={playerId ?? EVERYONE}
          choices={[{ id: EVERYONE, name: 'everyone' }, ...show.players]}
          onPick={(id) => setPlayerFilter(id === EVERYONE ? null : id)}
        />
      )}
      <Button onPress={onNew}>
        <Plus size={15} aria-hidden /> New tone
      </Button>
      <TonesOf />
      <Button onPress={capture}>
        <Radio size={16} aria-hidden /> Capture the rig
      </Button>
      <PartLinks label="Tones and moves" base={`/show/${show.id}/tones`} parts={TONE_PARTS} current="" />
    </Tools>
  );
}
