import { Play, Square } from 'lucide-react';
import { RANGES, changeEntry, figureIn, rangeWords, replaceAudio, type SoundEntry } from '../../../core/show';
import { durationWords } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Choices } from '../../widgets/Choices';
import { Button, FormProblem, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { SoundFileButton } from '../../widgets/SoundFileButton';
import { perform } from '../../state/desk';
import { playInterlude, stopInterlude, useInterlude } from '../../state/interlude';
import { takeSound, useSounds } from '../../state/sound';
import { useShow } from '../../state/store';

/** How a sound between songs is played: what begins it, whether it comes round, how it goes away. */
export function InterludeFields({ entry }: { readonly entry: SoundEntry }) {
  const show = useShow();
  const audio = show.audio.find((a) => a.id === entry.audioId);
  const missing = useSounds((s) => s.missing.includes(entry.audioId));
  const plays = useInterlude((i) => i.entryId === entry.id);
  const set = (change: Partial<SoundEntry>, label: string): null => {
    perform(changeEntry(show, entry, change), label);
    return null;
  };
  const putBack = async (file: File): Promise<void> => {
    const taken = await takeSound(show.id, entry.audioId, file, () => undefined);
    if ('audio' in taken) perform(replaceAudio(show, entry.audioId, taken.audio), `put ${taken.audio.name} back`);
  };
  return (
    <>
      <h2>{audio?.name ?? 'Sound'}</h2>
      <Soft>
        A sound between songs{audio ? `, ${durationWords(audio.length)}` : ''}. It goes where the backing goes, and away
        when the next song begins.
      </Soft>
      {missing && (
        <>
          <FormProblem>The recording is not in this browser.</FormProblem>
          <SoundFileButton label="Choose its file" onFile={(file) => void putBack(file)} />
        </>
      )}
      <Choices
        label="Begins"
        value={entry.begins}
        choices={[
          { id: 'after', name: 'by itself', about: 'When what stands before it in the set has come to its end.' },
          { id: 'press', name: 'when pressed', about: 'Here, on stage, or by a switch that is learnt for it.' },
        ]}
        onPick={(begins) => set({ begins }, 'change what begins a sound')}
      />
      <Check isSelected={entry.loops} onChange={(loops) => set({ loops }, 'change whether a sound comes round')}>
        Comes round until the next song
      </Check>
      <LevelAndFade entry={entry} set={set} />
      <Button onPress={() => (plays ? stopInterlude() : void playInterlude(entry))}>
        {plays ? <Square size={15} aria-hidden /> : <Play size={15} aria-hidden />} {plays ? 'Stop it' : 'Play it now'}
      </Button>
    </>
  );
}

interface LevelAndFadeProps {
  readonly entry: SoundEntry;
  readonly set: (change: Partial<SoundEntry>, label: string) => null;
}

/** How loud the sound is, and how it goes away. */
function LevelAndFade({ entry, set }: LevelAndFadeProps) {
  return (
    <>
      <DraftField
        label="Level in dB"
        numeric
        value={String(entry.gain)}
        commit={(text) => {
          const gain = figureIn(RANGES.gain, text);
          return gain === undefined ? rangeWords(RANGES.gain) : set({ gain }, 'change the level of a sound');
        }}
      />
      <DraftField
        label="Seconds in which it goes away under the next song"
        numeric
        value={String(entry.fade)}
        commit={(text) => {
          const fade = figureIn(RANGES.fadeSeconds, text);
          return fade === undefined ? rangeWords(RANGES.fadeSeconds) : set({ fade }, 'change how a sound goes away');
        }}
      />
    </>
  );
}
