import { FileTrigger } from 'react-aria-components';
import { useState } from 'react';
import styled from 'styled-components';
import { matchVoices, songIntoShow, voicesOf, withoutVoices, type Imported } from '../../core/formats/smf';
import { hasErrors } from '../../core/problems';
import { applyEdit, cutIntoSongs, type Edit, type Song } from '../../core/show';
import { importedWords } from '../../wording';
import { newId, perform, say, versions } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { Check } from '../widgets/Check';
import { Button, MainButton, Soft } from '../widgets/controls';
import { DialogButton } from '../widgets/DialogButton';
import { Last, Rows } from '../widgets/dialogParts';
import { openMidi, type MidiOpened } from './midiOpened';
import { SongCuts } from './SongCuts';
import { Pick } from '../widgets/Pick';
import { Told } from './Told';
import type { Voice } from '../../core/formats/smf/into/voices';

const Voices = styled.ul`
  display: grid;
  max-height: 230px;
  overflow: auto;
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 220px;
    align-items: center;
    gap: 12px;
    padding: 6px 2px;
    border-top: 1px solid ${desk.line};
  }
`;

/** A song from a Standard MIDI File, named through the map of this show. */
export function SongFromFile({ onAdded }: { readonly onAdded: (songId: string) => void }) {
  return (
    <DialogButton face="Song from a MIDI file" title="A song from a MIDI file" width={640}>
      {(close) => (
        <SongFromFileForm
          onAdded={(id) => {
            close();
            onAdded(id);
          }}
          onClose={close}
        />
      )}
    </DialogButton>
  );
}

const GUEST = 'guest';
const LEFT_OUT = 'left out';

/** Which unit each channel of a MIDI file is, and what becomes of it as a song. `first` was opened already. */
export function SongFromFileForm({
  first,
  onAdded,
  onClose,
}: {
  readonly first?: MidiOpened;
  readonly onAdded: (songId: string) => void;
  readonly onClose: () => void;
}) {
  const show = useShow();
  const [opened, setOpened] = useState<MidiOpened | null>(first ?? null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, string | null>>(new Map());
  const [steps, setSteps] = useState(true);
  const [cuts, setCuts] = useState<readonly number[]>([]);
  const plain = opened && !hasErrors(opened.problems) ? opened.plain : undefined;
  const song: Song | undefined = plain?.songs[0];
  const voices = plain ? voicesOf(plain) : [];
  const places = new Map([...matchVoices(show, voices), ...chosen]);
  const left = voices.filter((v) => places.get(v.id) === LEFT_OUT);
  const heard = song && withoutVoices(song, new Set(left.map((v) => v.id)));
  const found: Imported | undefined =
    plain && heard ? songIntoShow(show, plain, heard, places, steps, newId) : undefined;
  const open = async (file: File): Promise<void> => {
    try {
      const next = await openMidi(file);
      setChosen(new Map());
      setCuts([]);
      setOpened(next);
    } catch (error) {
      say(`${file.name} was not read: ${(error as Error).message}`);
    }
  };
  return (
    <Rows>
      <FileOf opened={opened} open={open} />
      {opened && hasErrors(opened.problems) && (
        <Told problems={opened.problems} label={`${opened.name} was not read`} />
      )}
      {plain && found && (
        <>
          <Channels voices={voices} places={places} setChosen={setChosen} chosen={chosen} />
          {found.report.ramps > 0 && (
            <Check isSelected={steps} onChange={setSteps}>
              One step in place of a ramp through a selector
            </Check>
          )}
          <SongCuts song={found.song} chosen={cuts} onChange={setCuts} />
          <p role="status" aria-label="What was understood">
            {importedWords(
              found.report,
              left.reduce((sum, v) => sum + v.messages, 0),
            )}
          </p>
          <Told problems={[...opened!.problems, ...found.problems]} label="About the file" />
        </>
      )}
      <Decision onClose={onClose} found={found} opened={opened} cuts={cuts} onAdded={onAdded} />
    </Rows>
  );
}

interface FileOfProps {
  readonly opened: MidiOpened | null;
  readonly open: (file: File) => Promise<void>;
}

/** The file that the song comes from. */
function FileOf({ opened, open }: FileOfProps) {
  return (
    <div>
      <FileTrigger
        acceptedFileTypes={['.mid', '.midi', 'audio/midi']}
        onSelect={(files) => {
          const file = files?.[0];
          if (file) void open(file);
        }}
      >
        <Button>{opened ? 'Another file' : 'Choose the file'}</Button>
      </FileTrigger>{' '}
      {opened && <Soft>{opened.name}</Soft>}
    </div>
  );
}

interface ChannelsProps {
  readonly voices: Voice[];
  readonly places: Map<string, string | null>;
  readonly setChosen: (value: ReadonlyMap<string, string | null>) => void;
  readonly chosen: ReadonlyMap<string, string | null>;
}

/** Channels of the file, and the unit that each goes to. */
function Channels({ voices, places, setChosen, chosen }: ChannelsProps) {
  return (
    <div>
      <b>Channels in the file, and to which unit</b>
      <Voices aria-label="Channels of the file">
        {voices.map((voice) => (
          <VoiceLine key={voice.id} voice={voice} places={places} setChosen={setChosen} chosen={chosen} />
        ))}
      </Voices>
    </div>
  );
}

interface DecisionProps {
  readonly onClose: () => void;
  readonly found: Imported | undefined;
  readonly opened: MidiOpened | null;
  readonly cuts: readonly number[];
  readonly onAdded: (songId: string) => void;
}

/** Takes the song in, or leaves it. */
function Decision({ onClose, found, opened, cuts, onAdded }: DecisionProps) {
  const show = useShow();
  return (
    <Last>
      <Button onPress={onClose}>Cancel</Button>
      <MainButton
        isDisabled={!found}
        onPress={() => {
          if (!found) return;
          void versions.keepBefore(opened?.name ?? found.song.title).then((kept) => {
            if (!kept) return;
            const cut = cutIntoSongs(applyEdit(show, found.edit), found.song.id, cuts, newId);
            const edit: Edit = cut ? { kind: 'group', edits: [found.edit, cut] } : found.edit;
            perform(edit, cut ? `add ${cuts.length + 1} songs` : `add ${found.song.title}`);
            onAdded(found.song.id);
          });
        }}
      >
        {cuts.length > 0 ? `Add ${cuts.length + 1} songs` : 'Add the song'}
      </MainButton>
    </Last>
  );
}

interface VoiceLineProps {
  readonly voice: Voice;
  readonly places: Map<string, string | null>;
  readonly setChosen: (value: ReadonlyMap<string, string | null>) => void;
  readonly chosen: ReadonlyMap<string, string | null>;
}

/** A channel of the file, and the unit that it goes to. */
function VoiceLine({ voice, places, setChosen, chosen }: VoiceLineProps) {
  const show = useShow();
  return (
    <li>
      <span>
        <b>{voice.name}</b>{' '}
        <Soft>
          {voice.port}, channel {voice.channel}, {voice.messages} messages
        </Soft>
      </span>
      <Pick
        label={`Unit for ${voice.name}`}
        hideLabel
        value={places.get(voice.id) ?? GUEST}
        choices={[
          { id: GUEST, name: 'a new plain unit' },
          { id: LEFT_OUT, name: 'nowhere: leave it out' },
          ...show.units.map((u) => ({ id: u.id, name: u.name })),
        ]}
        onPick={(id) => setChosen(new Map([...chosen, [voice.id, id === GUEST ? null : id]]))}
      />
    </li>
  );
}
