import { useState } from 'react';
import { Dialog, DialogTrigger, Form, Heading } from 'react-aria-components';
import { addSong, newSong } from '../../core/show';
import { newId, perform } from '../state/desk';
import { useShow } from '../state/store';
import { Button, Complaint, Field, Input, Label, MainButton } from './controls';
import { Last, Pair, Rows, Sheet, Veil } from './dialogParts';

const UNITS = [1, 2, 4, 8, 16, 32] as const;

interface Typed {
  readonly title: string;
  readonly tempo: string;
  readonly metre: string;
  readonly bars: string;
}

const EMPTY: Typed = { title: '', tempo: '120', metre: '4/4', bars: '32' };

/** What is wrong with what was typed, or the song that it makes. */
function songOf(typed: Typed): { readonly complaint: string } | { readonly song: ReturnType<typeof newSong> } {
  const title = typed.title.trim();
  const bpm = Number(typed.tempo);
  const metre = /^\s*(\d+)\s*\/\s*(\d+)\s*$/.exec(typed.metre);
  const beats = Number(metre?.[1]);
  const unit = UNITS.find((u) => u === Number(metre?.[2]));
  const bars = Number(typed.bars);
  if (title === '') return { complaint: 'The song wants a title.' };
  if (!(bpm >= 20 && bpm <= 400))
    return { complaint: `Tempo: 20 to 400 quarter notes a minute, not "${typed.tempo}".` };
  if (!metre || unit === undefined || beats < 1 || beats > 64) {
    return { complaint: `Metre: beats/unit, as in 7/8, with 1 to 64 beats of 1 to 32; not "${typed.metre}".` };
  }
  if (!Number.isInteger(bars) || bars < 1 || bars > 2000) {
    return { complaint: `Bars: a whole number from 1 to 2000, not "${typed.bars}".` };
  }
  return { song: newSong(newId(), title.slice(0, 120), { bpm, beats, unit, bars }) };
}

/** A song from a name, a tempo and a metre; the rest later. */
export function AddSong({ onAdded }: { readonly onAdded: (songId: string) => void }) {
  const show = useShow();
  const [typed, setTyped] = useState<Typed>(EMPTY);
  const [complaint, setComplaint] = useState<string | null>(null);
  const field = (name: keyof Typed, label: string) => (
    <Field value={typed[name]} onChange={(value) => setTyped({ ...typed, [name]: value })} autoFocus={name === 'title'}>
      <Label>{label}</Label>
      <Input />
    </Field>
  );
  return (
    <DialogTrigger>
      <Button>Add a song</Button>
      <Veil isDismissable>
        <Sheet>
          <Dialog>
            {({ close }) => (
              <Form
                onSubmit={(event) => {
                  event.preventDefault();
                  const made = songOf(typed);
                  if ('complaint' in made) {
                    setComplaint(made.complaint);
                    return;
                  }
                  perform(addSong(show, made.song, newId()), `add ${made.song.title}`);
                  setTyped(EMPTY);
                  setComplaint(null);
                  close();
                  onAdded(made.song.id);
                }}
              >
                <Heading slot="title">Add a song</Heading>
                <Rows>
                  {field('title', 'Title')}
                  <Pair>
                    {field('tempo', 'Quarters a minute')}
                    {field('metre', 'Metre')}
                    {field('bars', 'Bars')}
                  </Pair>
                  {complaint !== null && <Complaint>{complaint}</Complaint>}
                  <Last>
                    <Button onPress={close}>Not now</Button>
                    <MainButton type="submit">Add the song</MainButton>
                  </Last>
                </Rows>
              </Form>
            )}
          </Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}
