import { zodResolver } from '@hookform/resolvers/zod';
import { Form } from 'react-aria-components';
import { useForm, useWatch } from 'react-hook-form';
import { addSong } from '../../core/show';
import { newId, perform } from '../state/desk';
import { useShow } from '../state/store';
import { Button, MainButton } from '../widgets/controls';
import { DialogButton } from '../widgets/DialogButton';
import { Last, Pair, Rows } from '../widgets/dialogParts';
import { FormField } from '../widgets/FormField';
import { NEW_SONG, framedBy, newSongForm, songOfForm, startsOf } from './newSongForm';
import { Pick } from '../widgets/Pick';

/** A song from a name, a tempo and a metre; the rest later. */
export const AddSong = ({ onAdded }: { readonly onAdded: (songId: string) => void }) => (
  <DialogButton face="Add a song" title="Add a song">
    {(close) => <AddSongForm onAdded={onAdded} close={close} />}
  </DialogButton>
);

interface Props {
  readonly onAdded: (songId: string) => void;
  readonly close: () => void;
}

function AddSongForm({ onAdded, close }: Props) {
  const show = useShow();
  const { control, handleSubmit, setValue, formState } = useForm({
    resolver: zodResolver(newSongForm),
    defaultValues: NEW_SONG,
  });
  const { tempo: tempoTyped } = formState.dirtyFields;
  const start = useWatch({ control, name: 'start' });
  const add = handleSubmit((form) => {
    const song = songOfForm(show, form, newId);
    perform(addSong(show, song, newId()), `add ${song.title}`);
    close();
    onAdded(song.id);
  });
  return (
    <Form onSubmit={(event) => void add(event)}>
      <Rows>
        <FormField control={control} name="title" label="Title" autoFocus />
        <Pair style={{ alignItems: 'start' }}>
          <FormField control={control} name="tempo" label="Tempo (quarter notes per minute)" />
          {framedBy(start).metre && <FormField control={control} name="metre" label="Metre" />}
          {framedBy(start).bars && <FormField control={control} name="bars" label="Bars (empty: open-ended)" />}
        </Pair>
        <Pick
          label="Start from"
          value={start}
          choices={startsOf(show)}
          onPick={(id) => {
            setValue('start', id);
            const first = show.songs.find((s) => s.id === id)?.tempo[0];
            // A tempo that somebody typed stays.
            if (first && !tempoTyped) setValue('tempo', String(Math.round(first.bpm * first.beat * 100) / 100));
          }}
        />
        <Last>
          <Button onPress={close}>Cancel</Button>
          <MainButton type="submit">Add the song</MainButton>
        </Last>
      </Rows>
    </Form>
  );
}
