import { useState } from 'react';
import { newCall, setCall, setCallSound, type Call } from '../../../core/show';
import { Soft } from '../../components/controls';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { newId, perform } from '../../state/desk';
import { takeSound } from '../../state/sound';
import { Row } from './panelParts';
import { SoundFileButton } from '../../components/SoundFileButton';
import { RecordButton } from './SoundSource';
import type { Props } from './TrackPart';

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
export function CallPart({ show, song, sectionId, name, call }: CallProps) {
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
