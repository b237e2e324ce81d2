import { Ear, Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  newCall,
  setCall,
  setCallSound,
  songTime,
  type Audio,
  type Call,
  type CallPlace,
  type Song,
  type Show,
} from '../../../core/show';
import { callRoom, speakable } from '../../../core/sound';
import { barAt } from '../../../core/time';
import { FormProblem, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { SoundFileButton } from '../../widgets/SoundFileButton';
import { newId, perform } from '../../state/desk';
import { hearCall } from '../../state/heard';
import { takeSound } from '../../state/sound';
import { spokenWords } from '../../state/words';
import { Row } from './panelParts';
import { RecordButton } from './SoundSource';
import type { Props } from './TrackPart';

const HOWS = [
  { id: 'none', name: 'none' },
  { id: 'voice', name: 'spoken' },
  { id: 'tones', name: 'tones' },
  { id: 'sound', name: 'own sound' },
  { id: 'count', name: 'count alone' },
] as const;

const PATTERNS = [
  { id: 'rise', name: 'rising' },
  { id: 'fall', name: 'falling' },
  { id: 'twice', name: 'twice' },
  { id: 'thrice', name: 'three times' },
] as const;

const COUNTS = [0, 1, 2, 4].map((n) => ({
  id: String(n),
  name: n === 0 ? 'no count' : n === 1 ? '1 bar' : `${n} bars`,
}));

/** Beats from the beginning of so many bars ahead of a place until that place, in the metre that holds before it. */
function beatsAhead(song: Song, place: CallPlace, bars: number): number {
  return barAt(songTime(song).bars, Math.max(1, barOf(song, place) - 1)).beats * bars;
}

/** The bar that a call goes ahead of. */
const barOf = (song: Song, place: CallPlace): number =>
  place.of === 'bar' ? place.bar : (song.sections.find((s) => place.of === 'section' && s.id === place.id)?.bar ?? 1);

interface CallProps extends Props {
  readonly place: CallPlace;
  readonly name: string;
  /** What is said where no text is given. */
  readonly says: string;
  readonly call: Call | null;
}

/** What is heard ahead of a section, of a bar, or of the song. */
export function CallPart({ show, song, place, name, says, call }: CallProps) {
  const [said, setSaid] = useState<string | null>(null);
  const put = (next: Call | null, label: string): null => {
    perform(setCall(show, song.id, place, next), label);
    return null;
  };
  const take = async (file: File): Promise<void> => {
    const taken = await takeSound(show.id, newId(), file, setSaid);
    setSaid('problem' in taken ? taken.problem : null);
    if ('audio' in taken) {
      perform(setCallSound(show, song.id, place, call ?? newCall(), taken.audio), `call with ${taken.audio.name}`);
    }
  };
  /** A count takes the bars right ahead; a word that was said in them goes ahead of it. */
  const count = (bars: number): void => {
    if (!call) return;
    const until = beatsAhead(song, place, bars);
    const ahead = bars > 0 && call.ahead <= until ? Math.min(64, beatsAhead(song, place, bars + 1)) : call.ahead;
    put({ ...call, count: bars, ahead }, 'count ahead of a call');
  };
  const counted = call?.how === 'count' ? Math.max(1, call.count) : (call?.count ?? 0);
  return (
    <div role="group" aria-label={name} style={{ display: 'grid', gap: 6 }}>
      <CallKind name={name} place={place} call={call} put={put} show={show} says={says} setSaid={setSaid} />
      {call && place.of !== 'song' && <CallCount counted={counted} count={count} call={call} put={put} />}
      {call?.how === 'tones' && place.of === 'song' && <Tones call={call} put={put} />}
      {call?.how === 'voice' && (
        <DraftField
          label={`Text (empty: ${says})`}
          value={call.text}
          commit={(text) => put({ ...call, text: text.slice(0, 200) }, 'change a call')}
        />
      )}
      {call?.how === 'sound' && (
        <Row>
          <SoundFileButton
            label={call.audioId === null ? 'Choose the sound' : 'Another sound'}
            onFile={(file) => void take(file)}
          />
          <RecordButton name={`Call ${name}`} onFile={(file) => void take(file)} />
          <Soft>{show.audio.find((a) => a.id === call.audioId)?.name ?? 'tones until there is one'}</Soft>
        </Row>
      )}
      {call && place.of !== 'song' && (
        <TooLong song={song} bar={barOf(song, place)} call={call} says={says} sounds={show.audio} />
      )}
      {said !== null && <Soft role="status">{said}</Soft>}
    </div>
  );
}

interface CallCountProps {
  readonly counted: number;
  readonly count: (bars: number) => void;
  readonly call: Call;
  readonly put: (next: Call | null, label: string) => null;
}

/** Which beats are counted ahead, and for how long. */
function CallCount({ counted, count, call, put }: CallCountProps) {
  return (
    <Row style={{ flexWrap: 'nowrap' }}>
      <Pick
        label="Counted ahead"
        choices={
          COUNTS.some((c) => c.id === String(counted))
            ? COUNTS
            : [...COUNTS, { id: String(counted), name: `${counted} bars` }]
        }
        value={String(counted)}
        onPick={(id) => count(Number(id))}
      />
      {call.how === 'tones' && <Tones call={call} put={put} />}
    </Row>
  );
}

interface CallKindProps {
  readonly name: string;
  readonly place: CallPlace;
  readonly call: Call | null;
  readonly put: (next: Call | null, label: string) => null;
  readonly show: Show;
  readonly says: string;
  readonly setSaid: (value: string | null) => void;
}

/** What is called, and how far ahead. */
function CallKind({ name, place, call, put, show, says, setSaid }: CallKindProps) {
  return (
    <Row style={{ flexWrap: 'nowrap' }}>
      <div style={{ flex: 1, minWidth: 0 }}>
        <Pick
          label={name}
          choices={place.of === 'song' ? HOWS.filter((h) => h.id !== 'count') : HOWS}
          value={call?.how ?? 'none'}
          onPick={(id) => put(id === 'none' ? null : { ...(call ?? newCall()), how: id }, `call for ${name}`)}
        />
      </div>
      {call && call.how !== 'count' && (
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
      {call && (
        <SignButton
          aria-label={`Hear the call for ${name}`}
          onPress={() => void hearCall(show.id, call, says).then(setSaid)}
        >
          <Ear size={15} />
        </SignButton>
      )}
      {place.of === 'bar' && (
        <SignButton aria-label={`Remove the call for ${name}`} onPress={() => put(null, 'remove a call')}>
          <Trash2 size={15} />
        </SignButton>
      )}
    </Row>
  );
}

/** Says of a call that it goes on over its count, or into the bar that it is ahead of. */
function TooLong({
  song,
  bar,
  call,
  says,
  sounds,
}: {
  readonly song: Song;
  readonly bar: number;
  readonly call: Call;
  readonly says: string;
  readonly sounds: readonly Audio[];
}) {
  const own = call.how === 'sound' ? sounds.find((a) => a.id === call.audioId)?.length : undefined;
  const word = call.how === 'voice' ? spokenWords.get(speakable(call.text.trim() || says))?.duration : undefined;
  const length = own ?? word ?? 0;
  const room = callRoom(song, bar, call);
  if (length <= room + 0.05) return null;
  return (
    <FormProblem>
      It is {length.toFixed(1)} s long, and {room.toFixed(1)} s are there before{' '}
      {call.count > 0 ? 'the count' : 'its bar'}: begin it more beats ahead.
    </FormProblem>
  );
}

function Tones({ call, put }: { readonly call: Call; readonly put: (next: Call, label: string) => null }) {
  return (
    <Pick
      label="Tones"
      choices={PATTERNS}
      value={call.pattern}
      onPick={(id) => put({ ...call, pattern: id }, 'change a call')}
    />
  );
}
