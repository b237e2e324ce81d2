import { Trash2 } from 'lucide-react';
import { indexShow, removeTone, removeToneEverywhere, toneUses, type Tone } from '../../../core/show';
import { Button, MainButton } from '../../widgets/controls';
import { DialogButton } from '../../widgets/DialogButton';
import { Last, Rows } from '../../widgets/dialogParts';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';

/** Deletes a tone at once where nothing uses it; else says who does, and offers to go with its cues. */
export function DeleteTone({ tone }: { readonly tone: Tone }) {
  const show = useShow();
  const removal = removeTone(show, tone.id);
  const face = (
    <>
      <Trash2 size={15} aria-hidden /> Delete
    </>
  );
  if (removal) return <Button onPress={() => perform(removal, `delete ${tone.name}`)}>{face}</Button>;
  const songs = toneUses(show, tone.id).map((id) => indexShow(show).songs.get(id)!);
  const cues = songs.reduce(
    (n, s) => n + s.cues.filter((c) => c.action.kind === 'tone' && c.action.toneId === tone.id).length,
    0,
  );
  return (
    <DialogButton face={face} title={`Delete ${tone.name}`}>
      {(close) => (
        <Rows>
          <p>
            {tone.name} is used in {songs.map((s) => s.title).join(', ') || 'the opening that songs share'}.
          </p>
          <p>
            {cues === 0
              ? 'Songs that open with it will open with nothing.'
              : `With it go ${cues === 1 ? '1 cue' : `${cues} cues`}; songs that open with it will open with nothing.`}{' '}
            Undo brings all back.
          </p>
          <Last>
            <Button onPress={close}>Cancel</Button>
            <MainButton
              onPress={() => {
                close();
                perform(removeToneEverywhere(show, tone.id), `delete ${tone.name} and its cues`);
              }}
            >
              Delete with its cues
            </MainButton>
          </Last>
        </Rows>
      )}
    </DialogButton>
  );
}
