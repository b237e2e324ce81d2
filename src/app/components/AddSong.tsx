import { useState } from 'react';
import { Dialog, DialogTrigger, Form, Heading } from 'react-aria-components';
import {
  LIMITS,
  addSong,
  newSong,
  songOfCore,
  startFrom,
  type Show,
  type Song,
  RANGES,
  figureIn,
  rangeWords,
} from '../../core/show';
import { newId, perform } from '../state/desk';
import { useShow } from '../state/store';
import { Button, FormProblem, Field, Input, Label, MainButton } from './controls';
import { Last, Pair, Rows, Sheet, Veil } from './dialogParts';
import { Pick } from './Pick';

const UNITS = [1, 2, 4, 8, 16, 32] as const;

interface Typed {
  readonly title: string;
  readonly tempo: string;
  readonly metre: string;
  readonly bars: string;
  /** What it begins as: empty, of the core tones, or like another song. */
  readonly start: string;
}

const EMPTY: Typed = { title: '', tempo: '120', metre: '4/4', bars: '32', start: 'empty' };

const EMPTY_START = 'empty';
const CORE_START = 'core';

/** What a new song can begin as: patterns first. */
function starts(show: Show): { id: string; name: string }[] {
  const songs = [...show.songs].sort((a, b) => Number(b.pattern) - Number(a.pattern));
  return [
    { id: EMPTY_START, name: 'nothing in it' },
    ...(show.core.length > 0 ? [{ id: CORE_START, name: 'the core tones, 8 bars each' }] : []),
    ...songs.map((s) => ({ id: s.id, name: s.pattern ? `pattern: ${s.title}` : `like ${s.title}` })),
  ];
}

/** What is wrong with what was typed, or the song that it makes. */
function songOf(show: Show, typed: Typed): { readonly problem: string } | { readonly song: Song } {
  const title = typed.title.trim();
  const bpm = figureIn(RANGES.bpm, typed.tempo);
  const metre = /^\s*(\d+)\s*\/\s*(\d+)\s*$/.exec(typed.metre);
  const beats = Number(metre?.[1]);
  const unit = UNITS.find((u) => u === Number(metre?.[2]));
  const bars = Number(typed.bars);
  if (title === '') return { problem: 'Enter a title.' };
  if (bpm === undefined) {
    return { problem: `Tempo: ${rangeWords(RANGES.bpm)} quarter notes a minute, not "${typed.tempo}".` };
  }
  const pattern = show.songs.find((s) => s.id === typed.start);
  if (pattern) return { song: withTempo(startFrom(pattern, newId(), title.slice(0, LIMITS.title), newId), bpm) };
  if (!metre || unit === undefined || beats < 1 || beats > 64) {
    return { problem: `Metre: beats/unit, as in 7/8, with 1 to 64 beats of 1 to 32; not "${typed.metre}".` };
  }
  if (!Number.isInteger(bars) || bars < 1 || bars > 2000) {
    return { problem: `Bars: a whole number from 1 to 2000, not "${typed.bars}".` };
  }
  const frame = { bpm, beats, unit, bars };
  const name = title.slice(0, LIMITS.title);
  return {
    song:
      typed.start === CORE_START
        ? songOfCore(show, newId(), name, frame, newId)
        : { ...newSong(newId(), name, frame), opening: show.openingToneId === null ? 'own' : 'show' },
  };
}

/** The song with all its tempos in the proportion that brings the first to a tempo. */
function withTempo(song: Song, bpm: number): Song {
  const first = song.tempo[0]!;
  const factor = bpm / (first.bpm * first.beat);
  if (Math.abs(factor - 1) < 1e-9) return song;
  return {
    ...song,
    tempo: song.tempo.map((m) => ({ ...m, bpm: m.bpm * factor, rampTo: m.rampTo === null ? null : m.rampTo * factor })),
  };
}

/** A song from a name, a tempo and a metre; the rest later. */
export function AddSong({ onAdded }: { readonly onAdded: (songId: string) => void }) {
  const show = useShow();
  const [typed, setTyped] = useState<Typed>(EMPTY);
  const [problem, setProblem] = useState<string | null>(null);
  const copied = show.songs.some((s) => s.id === typed.start);
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
                  const made = songOf(show, typed);
                  if ('problem' in made) {
                    setProblem(made.problem);
                    return;
                  }
                  perform(addSong(show, made.song, newId()), `add ${made.song.title}`);
                  setTyped(EMPTY);
                  setProblem(null);
                  close();
                  onAdded(made.song.id);
                }}
              >
                <Heading slot="title">Add a song</Heading>
                <Rows>
                  {field('title', 'Title')}
                  <Pair>
                    {field('tempo', 'Tempo (quarter notes per minute)')}
                    {!copied && field('metre', 'Metre')}
                    {!copied && typed.start !== CORE_START && field('bars', 'Bars')}
                  </Pair>
                  <Pick
                    label="Start from"
                    value={typed.start}
                    choices={starts(show)}
                    onPick={(start) => {
                      const first = show.songs.find((s) => s.id === start)?.tempo[0];
                      const tempo = first ? String(Math.round(first.bpm * first.beat * 100) / 100) : typed.tempo;
                      setTyped({ ...typed, start, tempo });
                    }}
                  />
                  {problem !== null && <FormProblem>{problem}</FormProblem>}
                  <Last>
                    <Button onPress={close}>Cancel</Button>
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
