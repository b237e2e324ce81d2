import { durationWords } from '../../../wording';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  addTrack,
  changeTrack,
  newTrack,
  removeTrack,
  setStemOf,
  replaceAudio,
  songTime,
  type Show,
  type Song,
  type Track,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import { formatPosition, parsePosition, type BarMap } from '../../../core/time';
import { Check } from '../../widgets/Check';
import { FormProblem, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { takeSound, useSounds } from '../../state/sound';
import { Row } from './panelParts';
import { SoundFileButton } from '../../widgets/SoundFileButton';
import { LayBars } from './LayBars';
import { SoundDrop } from './SoundSource';

const NOBODY = 'nobody';

export interface Props {
  readonly show: Show;
  readonly song: Song;
}

export function AddTrack({ show, song }: Props) {
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
    const track = newTrack(newId(), audioId, { role, at: song.pickup });
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

export function TrackPart({ show, song, track }: Props & { readonly track: Track }) {
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
    <div role="group" aria-label={name} style={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 6 }}>
      <Row style={{ alignItems: 'center', flexWrap: 'nowrap' }}>
        <b style={{ flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{name}</b>
        <Soft>{audio ? durationWords(audio.length) : ''}</Soft>
        <SignButton
          aria-label={`Remove ${name}`}
          onPress={() => perform(removeTrack(show, song.id, track.id), `remove ${name}`)}
        >
          <Trash2 size={15} />
        </SignButton>
      </Row>
      {missing && <MissingFile name={name} putBack={putBack} said={said} />}
      <TrackRole track={track} change={change} />
      {track.role === 'part' && (
        <Pick
          label="Player (heard when missing)"
          value={track.playerId ?? NOBODY}
          choices={[{ id: NOBODY, name: 'nobody yet' }, ...show.players]}
          onPick={(id) => change({ playerId: id === NOBODY ? null : id }, 'change whose part it is')}
        />
      )}
      <DraftField
        label="Stem (empty: as its role)"
        value={show.stems.find((s) => s.id === track.stemId)?.name ?? ''}
        commit={(text) => {
          perform(setStemOf(show, song.id, track.id, text, newId()), 'change the stem of a recording');
          return null;
        }}
      />
      <TrackPlace bars={bars} track={track} song={song} change={change} />
      {audio && !missing && (
        <Row>
          <LayBars show={show} song={song} track={track} name={name} length={audio.length} />
        </Row>
      )}
      <Check
        isSelected={track.muted}
        onChange={(muted) => change({ muted }, muted ? `mute ${name}` : `unmute ${name}`)}
      >
        Muted
      </Check>
    </div>
  );
}

interface MissingFileProps {
  readonly name: string;
  readonly putBack: (file: File) => Promise<void>;
  readonly said: string | null;
}

/** The recording is not in this browser: its file is asked for. */
function MissingFile({ name, putBack, said }: MissingFileProps) {
  return (
    <>
      <FormProblem>
        The recording is not in this browser. Choose its file; start, level and role stay as they are.
      </FormProblem>
      <Row>
        <SoundFileButton label={`Choose the file for ${name}`} onFile={(file) => void putBack(file)} />
        {said !== null && <Soft role="status">{said}</Soft>}
      </Row>
    </>
  );
}

interface TrackPlaceProps {
  readonly bars: BarMap;
  readonly track: Track;
  readonly song: Song;
  readonly change: (part: Partial<Track>, label: string) => null;
}

/** Where the recording begins. */
function TrackPlace({ bars, track, song, change }: TrackPlaceProps) {
  return (
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
  );
}

interface TrackRoleProps {
  readonly track: Track;
  readonly change: (part: Partial<Track>, label: string) => null;
}

/** What the recording is, and how loud. */
function TrackRole({ track, change }: TrackRoleProps) {
  return (
    <Row style={{ flexWrap: 'nowrap' }}>
      <Pick
        width="136px"
        label="What it is"
        choices={[
          { id: 'backing', name: 'backing' },
          { id: 'guide', name: 'guide' },
          { id: 'part', name: 'part of a player' },
        ]}
        value={track.role}
        onPick={(id) => change({ role: id }, 'change a recording')}
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
  );
}
