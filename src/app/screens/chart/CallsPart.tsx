import { useState } from 'react';
import { callEverySection, newCall, setCall, songTime, type Song } from '../../../core/show';
import { barOfTick, formatBar, parsePosition } from '../../../core/time';
import { placeSentence } from '../../../wording';
import { Button, Field, Input, Label, Soft } from '../../widgets/controls';
import { newId, perform } from '../../state/desk';
import { useVoice } from '../../state/words';
import { CallPart } from './CallPart';
import { Row } from './panelParts';
import type { Props } from './TrackPart';

/** What is heard in the ears ahead of the song, of its sections, and of any bar. */
export function CallsPart({ show, song }: Props) {
  const { bars } = songTime(song);
  const { failed } = useVoice();
  const barName = (bar: number): string => `bar ${formatBar(bars, bar, song.bars)}`;
  const places = [
    ...song.sections.map(({ id, name, bar, call }) => ({
      bar,
      name: `${name}, ${barName(bar)}`,
      says: name,
      place: { of: 'section', id } as const,
      call,
    })),
    ...song.calls.map(({ id, bar, call }) => ({
      bar,
      name: `Before ${barName(bar)}`,
      says: sectionAt(song, bar),
      place: { of: 'bar', id, bar } as const,
      call,
    })),
  ].sort((a, b) => a.bar - b.bar);
  return (
    <>
      <h3>Calls in the ears</h3>
      {failed && <Soft role="status">The voice could not be loaded: tones are heard in its place.</Soft>}
      <Row>
        {song.sections.some((x) => x.call === null) && (
          <Button onPress={() => perform(callEverySection(show, song.id, newCall()), 'call ahead of every section')}>
            Call ahead of every section
          </Button>
        )}
      </Row>
      <AddCall show={show} song={song} />
      <CallPart
        show={show}
        song={song}
        place={{ of: 'song' }}
        name="The song itself"
        says={song.title}
        call={song.announce}
      />
      {places.map(({ place, name, says, call }) => (
        <CallPart key={place.id} show={show} song={song} place={place} name={name} says={says} call={call} />
      ))}
    </>
  );
}

/** The section that a bar lies in; the song itself before the first. */
const sectionAt = (song: Song, bar: number): string => song.sections.findLast((s) => s.bar <= bar)?.name ?? song.title;

/** A new call ahead of a bar; where a section begins there, it is the section's. */
function AddCall({ show, song }: Props) {
  const { bars } = songTime(song);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const add = (): void => {
    const to = parsePosition(bars, text, song.bars);
    if (!to.ok) return setProblem(placeSentence(to.problem));
    const { bar } = barOfTick(bars, to.ticks);
    if (bar < 1) return setProblem('A call is ahead of bar 1 or a later one.');
    const section = song.sections.find((s) => s.bar === bar);
    const taken = section ? section.call !== null : song.calls.some((c) => c.bar === bar);
    if (taken) return setProblem(`Bar ${text.trim()} has a call already.`);
    const place = section ? ({ of: 'section', id: section.id } as const) : ({ of: 'bar', id: newId(), bar } as const);
    if (!perform(setCall(show, song.id, place, newCall()), `call ahead of bar ${text.trim()}`)) return;
    setText('');
    setProblem(null);
  };
  return (
    <>
      <Row style={{ flexWrap: 'nowrap', alignItems: 'end' }}>
        <Field
          value={text}
          onChange={(typed) => {
            setText(typed);
            setProblem(null);
          }}
          style={{ width: 110 }}
        >
          <Label>Call ahead of bar</Label>
          <Input
            inputMode="numeric"
            onKeyDown={(e) => {
              if (e.key === 'Enter' && !e.nativeEvent.isComposing) add();
            }}
          />
        </Field>
        <Button isDisabled={text.trim() === ''} onPress={add}>
          Add a call
        </Button>
      </Row>
      {problem !== null && <Soft role="alert">{problem}</Soft>}
    </>
  );
}
