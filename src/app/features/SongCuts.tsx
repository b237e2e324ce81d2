import { useState } from 'react';
import { songStarts, songTime, type Song } from '../../core/show';
import { barOfTick, formatBar, parsePosition } from '../../core/time';
import { placeSentence } from '../../wording';
import { Check } from '../widgets/Check';
import { Button, Field, FormProblem, Input, Label, Soft } from '../widgets/controls';

interface Props {
  readonly song: Song;
  /** Bars with which further songs begin. */
  readonly chosen: readonly number[];
  readonly onChange: (bars: readonly number[]) => void;
}

/** Where songs begin in a file that holds several: proposed from its markers and silences, ticked, and typed. */
export function SongCuts({ song, chosen, onChange }: Props) {
  const { bars } = songTime(song);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const starts = songStarts(song);
  const typed = chosen.filter((bar) => !starts.some((s) => s.bar === bar));
  const all = [...starts, ...typed.map((bar) => ({ bar, name: null, silence: 0 }))].sort((a, b) => a.bar - b.bar);
  const set = (bar: number, on: boolean): void =>
    onChange([...chosen.filter((b) => b !== bar), ...(on ? [bar] : [])].sort((a, b) => a - b));
  const add = (): void => {
    const place = parsePosition(bars, text, song.bars);
    if (!place.ok) return setProblem(placeSentence(place.problem));
    const { bar } = barOfTick(bars, place.ticks);
    if (bar < 2 || bar > song.bars) return setProblem(`Expected a bar from 2 to ${song.bars}.`);
    setProblem(null);
    setText('');
    set(bar, true);
  };
  return (
    <div role="group" aria-label="Several songs" style={{ display: 'grid', gap: 6 }}>
      <b>Where further songs begin, if the file holds several</b>
      {all.length > 0 && (
        <div style={{ display: 'grid', gap: 4, maxHeight: 150, overflow: 'auto' }}>
          {all.map(({ bar, name, silence }) => (
            <Check key={bar} isSelected={chosen.includes(bar)} onChange={(on) => set(bar, on)}>
              Bar {formatBar(bars, bar, song.bars)}
              {name === null ? '' : `, ${name}`}
              {silence > 0 ? `, behind ${Math.round(silence)} s of silence` : ''}
            </Check>
          ))}
        </div>
      )}
      <div style={{ display: 'flex', alignItems: 'end', gap: 8 }}>
        <Field
          value={text}
          onChange={(next) => {
            setText(next);
            setProblem(null);
          }}
          style={{ width: 110 }}
        >
          <Label>Another bar</Label>
          <Input
            onKeyDown={(e) => {
              if (e.key === 'Enter' && !e.nativeEvent.isComposing) add();
            }}
          />
        </Field>
        <Button isDisabled={text.trim() === ''} onPress={add}>
          Cut there
        </Button>
        {all.length === 0 && <Soft>No markers and no silence in it: one song, or bars that are typed.</Soft>}
      </div>
      {problem !== null && <FormProblem>{problem}</FormProblem>}
    </div>
  );
}
