import { Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import {
  addTrack,
  callEverySection,
  changeTrack,
  newCall,
  removeTrack,
  replaceAudio,
  setCall,
  setCallSound,
  setClock,
  setSongField,
  songTime,
  type Call,
  type Show,
  type Song,
  type Track,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import { formatBar, formatPosition, parsePosition } from '../../../core/time';
import { Check } from '../../components/Check';
import { Button, FormProblem, SignButton, Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { newId, perform } from '../../state/desk';
import { exportSounds, loadPeaks, takeSound, useSounds } from '../../state/sound';
import { Panel, Row } from './panelParts';
import { RecordButton, SoundDrop, SoundFileButton } from './SoundSource';

interface Props {
  readonly show: Show;
  readonly song: Song;
}

const COUNTS = [0, 1, 2, 3, 4, 8].map((n) => ({
  id: String(n),
  name: n === 0 ? 'none' : n === 1 ? '1 bar' : `${n} bars`,
}));
const PARTS = [
  { id: '1', name: '1, on the beat' },
  { id: '2', name: '2' },
  { id: '3', name: '3' },
  { id: '4', name: '4' },
];

/** What is heard beside the units: click, count-in, calls, recordings, and the clock that units follow. */
export function SoundPanel({ show, song }: Props) {
  const { click } = song;
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    void loadPeaks(show, song);
  }, [show, song]);
  const setClick = (change: Partial<Song['click']>, label: string): void =>
    void perform(setSongField(show, song.id, 'click', { ...click, ...change }), label);
  return (
    <Panel aria-label="Sound of the song">
      <h2>Sound</h2>
      <Check isSelected={click.on} onChange={(on) => setClick({ on }, on ? 'click on' : 'click off')}>
        Click while it plays
      </Check>
      <Row style={{ flexWrap: 'nowrap' }}>
        <Pick
          label="Count-in"
          choices={COUNTS}
          value={String(click.countIn)}
          onPick={(id) => setClick({ countIn: Number(id) }, 'change the count-in')}
        />
        <Pick
          label="Clicks a beat"
          choices={PARTS}
          value={String(click.parts)}
          onPick={(id) => setClick({ parts: Number(id) }, 'change the click')}
        />
      </Row>
      <h3>Recordings</h3>
      {song.tracks.map((track) => (
        <TrackPart key={track.id} show={show} song={song} track={track} />
      ))}
      <AddTrack show={show} song={song} />
      <h3>Calls in the ears</h3>
      {song.sections.some((x) => x.call === null) && (
        <Row>
          <Button onPress={() => perform(callEverySection(show, song.id, newCall()), 'call ahead of every section')}>
            Call ahead of every section
          </Button>
        </Row>
      )}
      <CallPart show={show} song={song} sectionId={null} name="The song itself" call={song.announce} />
      {song.sections.map((section) => (
        <CallPart
          key={section.id}
          show={show}
          song={song}
          sectionId={section.id}
          name={`${section.name}, bar ${formatBar(songTime(song).bars, section.bar, song.bars)}`}
          call={section.call}
        />
      ))}
      <h3>MIDI clock to</h3>
      {show.ports.map((port) => (
        <Check
          key={port.id}
          isSelected={song.clocks.some((c) => c.portId === port.id)}
          onChange={(on) =>
            perform(
              setClock(show, song.id, port.id, on ? newId() : null),
              on ? `clock on ${port.name}` : `no clock on ${port.name}`,
            )
          }
        >
          {port.name}
        </Check>
      ))}
      <h3>To practise with</h3>
      <Row>
        <Button
          onPress={() => {
            setSaid('Rendering …');
            void exportSounds(show, song).then(setSaid);
          }}
        >
          Sound as a WAV file
        </Button>
      </Row>
      {said !== null && (
        <Soft role="status" aria-label="Sound file">
          {said}
        </Soft>
      )}
    </Panel>
  );
}

function AddTrack({ show, song }: Props) {
  const [progress, setProgress] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File): Promise<void> => {
    setProblem(null);
    const audioId = newId();
    const taken = await takeSound(show.id, audioId, file, setProgress);
    setProgress(null);
    if ('problem' in taken) {
      setProblem(taken.problem);
      return;
    }
    const role = song.tracks.length === 0 ? 'backing' : 'guide';
    const track: Track = { id: newId(), audioId, role, at: song.pickup, offset: 0, gain: 0, muted: false };
    perform(addTrack(show, song.id, track, taken.audio), `add ${taken.audio.name}`);
  };
  return (
    <SoundDrop onFile={(file) => void take(file)}>
      <Row>
        <SoundFileButton label="Add a recording" disabled={progress !== null} onFile={(file) => void take(file)} />
        {progress !== null && <Soft role="status">{progress}</Soft>}
      </Row>
      {problem !== null && <FormProblem>{problem}</FormProblem>}
      {song.tracks.length === 0 && problem === null && (
        <Soft style={{ fontSize: 13 }}>
          A backing track, or a guide to program against: WAV, MP3, OGG or FLAC, chosen or dropped here.
        </Soft>
      )}
    </SoundDrop>
  );
}

const minutes = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;

function TrackPart({ show, song, track }: Props & { readonly track: Track }) {
  const { bars } = songTime(song);
  const audio = show.audio.find((a) => a.id === track.audioId);
  const missing = useSounds((s) => s.missing.includes(track.audioId));
  const name = audio?.name ?? 'Recording';
  const change = (part: Partial<Track>, label: string): null => {
    perform(changeTrack(show, song.id, track.id, part), label);
    return null;
  };
  const [said, setSaid] = useState<string | null>(null);
  const putBack = async (file: File): Promise<void> => {
    const taken = await takeSound(show.id, track.audioId, file, setSaid);
    setSaid('problem' in taken ? taken.problem : null);
    if ('audio' in taken) perform(replaceAudio(show, track.audioId, taken.audio), `put ${taken.audio.name} back`);
  };
  return (
    <div role="group" aria-label={name} style={{ display: 'grid', gap: 6 }}>
      <Row style={{ alignItems: 'center', flexWrap: 'nowrap' }}>
        <b style={{ flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</b>
        <Soft>{audio ? minutes(audio.length) : ''}</Soft>
        <SignButton
          aria-label={`Remove ${name}`}
          onPress={() => perform(removeTrack(show, song.id, track.id), `remove ${name}`)}
        >
          <Trash2 size={15} />
        </SignButton>
      </Row>
      {missing && (
        <>
          <FormProblem>
            The recording is not in this browser. Choose its file; start, level and role stay as they are.
          </FormProblem>
          <Row>
            <SoundFileButton label={`Choose the file for ${name}`} onFile={(file) => void putBack(file)} />
            {said !== null && <Soft role="status">{said}</Soft>}
          </Row>
        </>
      )}
      <Row style={{ flexWrap: 'nowrap' }}>
        <Pick
          width="136px"
          label="What it is"
          choices={[
            { id: 'backing', name: 'backing' },
            { id: 'guide', name: 'guide' },
          ]}
          value={track.role}
          onPick={(id) => change({ role: id as Track['role'] }, 'change a recording')}
        />
        <DraftField
          label="Level in dB"
          value={String(track.gain)}
          numeric
          commit={(text) => {
            const gain = figureIn(RANGES.gain, text);
            return gain === undefined ? rangeWords(RANGES.gain) : change({ gain }, 'change a level');
          }}
        />
      </Row>
      <Row style={{ flexWrap: 'nowrap' }}>
        <DraftField
          label="Starts at bar|beat"
          value={formatPosition(bars, track.at, song.bars)}
          commit={(text) => {
            const at = parsePosition(bars, text, song.bars);
            return at.ok ? change({ at: Math.max(0, at.ticks) }, 'move a recording') : 'bar|beat';
          }}
        />
        <DraftField
          label="and after, ms"
          value={String(track.offset)}
          numeric
          commit={(text) => {
            const offset = figureIn(RANGES.offsetMillis, text);
            return offset === undefined ? rangeWords(RANGES.offsetMillis) : change({ offset }, 'move a recording');
          }}
        />
      </Row>
      <Check
        isSelected={track.muted}
        onChange={(muted) => change({ muted }, muted ? `mute ${name}` : `unmute ${name}`)}
      >
        Muted
      </Check>
    </div>
  );
}

const HOWS = [
  { id: 'none', name: 'none' },
  { id: 'voice', name: 'spoken' },
  { id: 'tones', name: 'tones' },
  { id: 'sound', name: 'own sound' },
];

const PATTERNS = [
  { id: 'rise', name: 'rising' },
  { id: 'fall', name: 'falling' },
  { id: 'twice', name: 'twice' },
  { id: 'thrice', name: 'three times' },
];

interface CallProps extends Props {
  readonly sectionId: string | null;
  readonly name: string;
  readonly call: Call | null;
}

/** What is heard ahead of a section, or of the song. */
function CallPart({ show, song, sectionId, name, call }: CallProps) {
  const [said, setSaid] = useState<string | null>(null);
  const put = (next: Call | null, label: string): null => {
    perform(setCall(show, song.id, sectionId, next), label);
    return null;
  };
  const take = async (file: File): Promise<void> => {
    const taken = await takeSound(show.id, newId(), file, setSaid);
    setSaid('problem' in taken ? taken.problem : null);
    if ('audio' in taken) {
      perform(setCallSound(show, song.id, sectionId, call ?? newCall(), taken.audio), `call with ${taken.audio.name}`);
    }
  };
  return (
    <div role="group" aria-label={name} style={{ display: 'grid', gap: 6 }}>
      <Row style={{ flexWrap: 'nowrap' }}>
        <div style={{ flex: 1, minWidth: 0 }}>
          <Pick
            label={name}
            choices={HOWS}
            value={call?.how ?? 'none'}
            onPick={(id) =>
              put(id === 'none' ? null : { ...(call ?? newCall()), how: id as Call['how'] }, `call for ${name}`)
            }
          />
        </div>
        {call && (
          <DraftField
            label="beats ahead"
            value={String(call.ahead)}
            numeric
            style={{ width: 84 }}
            commit={(text) => {
              const ahead = Number(text);
              if (!Number.isInteger(ahead) || ahead < 1 || ahead > 64) return '1 to 64';
              return put({ ...call, ahead }, 'move a call');
            }}
          />
        )}
      </Row>
      {call?.how === 'voice' && (
        <DraftField
          label="Text (empty: the name)"
          value={call.text}
          commit={(text) => put({ ...call, text: text.slice(0, 200) }, 'change a call')}
        />
      )}
      {call && call.how !== 'sound' && (
        <Pick
          label={call.how === 'voice' ? 'Where nothing speaks, tones' : 'Tones'}
          choices={PATTERNS}
          value={call.pattern}
          onPick={(id) => put({ ...call, pattern: id as Call['pattern'] }, 'change a call')}
        />
      )}
      {call?.how === 'sound' && (
        <Row>
          <SoundFileButton
            label={call.audioId === null ? 'Choose the sound' : 'Another sound'}
            onFile={(file) => void take(file)}
          />
          <RecordButton name={`Call ${name}`} onFile={(file) => void take(file)} />
          <Soft>{said ?? show.audio.find((a) => a.id === call.audioId)?.name ?? 'tones until there is one'}</Soft>
        </Row>
      )}
    </div>
  );
}
