import { extent } from '../../../core/groups';
import { Copy, Trash2, X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import styled from 'styled-components';
import {
  copyBySection,
  dipShape,
  muteCues,
  newSweep,
  openingOf,
  putSweep,
  removeCues,
  replaceTone,
  shiftCues,
  type Show,
  type Song,
  sweepable,
} from '../../../core/show';
import { valueRange } from '../../../core/addressing';
import { TICKS_PER_QUARTER } from '../../../core/time';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';

const Panel = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  padding: 16px;
  align-content: start;
  & h2 {
    display: flex;
    align-items: center;
    justify-content: space-between;
    font-size: 20px;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly ids: ReadonlySet<string>;
  readonly onCopy: () => void;
  /** A sweep was made over the stretch of the cues. */
  readonly onSweep: (sweepId: string) => void;
  readonly onClose: () => void;
  /** What puts something else in their place. */
  readonly exchange: ReactNode;
}

/** Several cues at once. */
export function SeveralPanel({ show, song, ids, onCopy, onSweep, onClose, exchange }: Props) {
  const chosen = song.cues.filter((c) => ids.has(c.id));
  const allMuted = chosen.every((c) => c.muted);
  return (
    <Panel aria-label="Chosen cues">
      <h2>
        {chosen.length} cues
        <SignButton aria-label="Close" onPress={onClose}>
          <X size={17} />
        </SignButton>
      </h2>
      {exchange}
      <DraftField
        label="Move by beats (minus is earlier)"
        value="0"
        numeric
        commit={(text) => {
          const beats = Number(text.replace(',', '.'));
          if (text.trim() === '' || !Number.isFinite(beats)) return 'a number of quarters';
          perform(shiftCues(show, song.id, ids, Math.round(beats * TICKS_PER_QUARTER)), `move ${chosen.length} cues`);
          return null;
        }}
      />
      <Row>
        <Button onPress={onCopy}>
          <Copy size={15} aria-hidden /> Copy
        </Button>
        <Button
          onPress={() => perform(muteCues(show, song.id, ids, !allMuted), allMuted ? 'unmute cues' : 'mute cues')}
        >
          {allMuted ? 'Unmute' : 'Mute'}
        </Button>
        <Button
          onPress={() => {
            perform(removeCues(show, song.id, ids), `remove ${chosen.length} cues`);
            onClose();
          }}
        >
          <Trash2 size={15} aria-hidden /> Remove
        </Button>
      </Row>
      <LevelPart show={show} song={song} ids={ids} onSweep={onSweep} />
      <Soft style={{ fontSize: 13 }}>Ctrl C copies; Ctrl V puts them at the caret, also in another song.</Soft>
    </Panel>
  );
}

/** A level that dips or lifts from the first of the chosen cues to the last. */
function LevelPart({ show, song, ids, onSweep }: Omit<Props, 'onCopy' | 'onClose' | 'exchange'>) {
  // Levels first: that is what is mostly wanted.
  const isLevel = (name: string): boolean => /level|volume|master|mix/i.test(name);
  const all = sweepable(show);
  const levels = [...all.filter((s) => isLevel(s.control.name)), ...all.filter((s) => !isLevel(s.control.name))];
  const [chosen, setChosen] = useState<string | null>(null);
  const level = levels.find((s) => `${s.unit.id} ${s.control.id}` === chosen) ?? levels[0];
  const places = song.cues.filter((c) => ids.has(c.id)).map((c) => c.at);
  const [from, to] = extent(places);
  if (!level) return null;
  const dip = (): void => {
    const id = newId();
    const { low, high } = valueRange(level.control.encoding);
    const rest = level.control.rest ?? high;
    const towards = rest > (low + high) / 2 ? low + (rest - low) * 0.6 : rest + (high - rest) * 0.4;
    const shape = dipShape(
      to - from,
      rest,
      Math.round(towards * 100) / 100,
      Math.min(TICKS_PER_QUARTER, (to - from) / 4),
    );
    const edit = putSweep(show, song.id, { ...newSweep(id, level.unit, level.control, from, to), shape });
    if (perform(edit, 'level over a stretch')) onSweep(id);
  };
  return (
    <Row style={{ alignItems: 'end', flexWrap: 'nowrap' }}>
      <Pick
        label="Level from first to last"
        value={`${level.unit.id} ${level.control.id}`}
        choices={levels.map((s) => ({ id: `${s.unit.id} ${s.control.id}`, name: `${s.unit.name}: ${s.control.name}` }))}
        onPick={setChosen}
      />
      <Button isDisabled={to <= from} onPress={dip}>
        Dip or lift
      </Button>
    </Row>
  );
}

/** A tone in the place of another, here or everywhere, and the changes of another song taken over by section. */
export function WholeSong({ show, song }: { readonly show: Show; readonly song: Song }) {
  const used = show.tones.filter(
    (t) =>
      openingOf(show, song) === t.id || song.cues.some((c) => c.action.kind === 'tone' && c.action.toneId === t.id),
  );
  const [from, setFrom] = useState(used[0]?.id ?? '');
  const [to, setTo] = useState(show.tones[0]?.id ?? '');
  const others = show.songs.filter((s) => s.id !== song.id && s.sections.length > 0);
  const [source, setSource] = useState(others[0]?.id ?? '');
  const here = replaceTone(show, from, to, song.id);
  const everywhere = replaceTone(show, from, to, null);
  const copied = copyBySection(show, source, song.id, newId);
  return (
    <Panel aria-label="The whole song">
      {used.length > 0 && (
        <>
          <Pick label="Replace the tone" value={from} choices={used} onPick={setFrom} />
          <Pick label="by" value={to} choices={show.tones} onPick={setTo} />
          <Row>
            <Button isDisabled={!here} onPress={() => perform(here, 'replace a tone here')}>
              In this song
            </Button>
            <Button isDisabled={!everywhere} onPress={() => perform(everywhere, 'replace a tone everywhere')}>
              In all songs
            </Button>
          </Row>
        </>
      )}
      {others.length > 0 && (
        <>
          <Pick
            label="Copy the changes of"
            value={source}
            choices={others.map((s) => ({ id: s.id, name: s.title }))}
            onPick={setSource}
          />
          <div>
            <Button isDisabled={!copied} onPress={() => perform(copied, 'take over changes by section')}>
              By sections of the same name
            </Button>
          </div>
        </>
      )}
    </Panel>
  );
}
