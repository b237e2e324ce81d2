import { useRef, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import styled from 'styled-components';
import { NOWHERE, problem as problemOf } from '../../../core/problems';
import {
  isStructureLine,
  readStructureLine,
  songTime,
  structureCompletions,
  structureEdit,
  type Show,
  type Song,
} from '../../../core/show';
import { formatPosition, parsePosition, type Ticks } from '../../../core/time';
import { placeSentence, sentence } from '../../../wording';
import { Button, FormProblem, Field, Input, Label, MainButton } from '../../widgets/controls';
import { Find, type Found } from '../../widgets/Find';
import { narrow } from '../../theme/narrow';
import { useDraft } from '../../widgets/useDraft';
import { Completions, toFirst } from './Completions';
import { placeables, type Placeable } from './placeables';
import { newId, perform } from '../../state/desk';
import { useApp } from '../../state/store';

const Line = styled.div`
  display: flex;
  align-items: end;
  gap: 8px;
  min-width: 0;
  ${narrow} {
    flex-wrap: wrap;
    & > * {
      min-width: 0;
      max-width: 100%;
    }
  }
`;

export const POSITION_INPUT = 'place-position';
export const TONE_INPUT = 'place-tone';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly caret: Ticks;
  readonly onCaret: (at: Ticks) => void;
  readonly onPlace: (does: Placeable['does'], at: Ticks) => void;
}

/** A bar, a part of the name of a tone or a move (or a preset, a variant, a control with its value), Enter: placed. */
export function PlaceLine({ show, song, caret, onCaret, onPlace }: Props) {
  const { bars } = songTime(song);
  const shown = formatPosition(bars, caret, song.bars);
  const [position, setPosition, drop] = useDraft(shown);
  const counting = useApp((s) => s.counting);
  const [tone, setTone] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  /** How the bar is printed that may be meant. */
  const [meant, setMeant] = useState('');
  const positionField = useRef<HTMLInputElement>(null);

  const read = (): Ticks | undefined => {
    const parsed = parsePosition(bars, position, song.bars);
    setProblem(parsed.ok ? null : placeSentence(parsed.problem));
    setMeant(!parsed.ok && parsed.problem.code === 'bar' ? parsed.problem.meant : '');
    return parsed.ok ? parsed.ticks : undefined;
  };
  /** A line of the song's structure, written into it: whether it could be. */
  const write = (): boolean => {
    setMeant('');
    const line = readStructureLine(song, position);
    const edit = line.ok ? structureEdit(show, song.id, line.line, newId) : null;
    if (!line.ok) setProblem(sentence(line.problem));
    else if (!edit) setProblem(sentence(problemOf('structure.cannot', 'error', NOWHERE, { text: position.trim() })));
    else {
      // Drawn at once: what is typed next takes the place of the whole text.
      flushSync(() => {
        perform(edit, `write ${position.trim()}`);
        setProblem(null);
        drop();
      });
    }
    positionField.current?.select();
    return edit !== null;
  };
  /** Whether the caret went there. */
  const go = (): boolean => {
    // What is half written stays when the field is left.
    if (isStructureLine(position)) return false;
    const at = read();
    if (at !== undefined) onCaret(at);
    return at !== undefined;
  };
  const place = (id: string): void => {
    const at = read();
    const does = placeables(show, tone, counting).find((p) => p.id === id)?.does;
    if (at === undefined || !does) {
      positionField.current?.focus();
      return;
    }
    onPlace(does, at);
    setTone('');
    positionField.current?.focus();
    positionField.current?.select();
  };
  const search = (text: string): Found[] => placeables(show, text, counting);
  const first = (): void => {
    const [best] = search(tone);
    if (best && tone.trim() !== '') place(best.id);
    else if (tone.trim() !== '') setProblem(`No tone, move, preset or control is written like "${tone.trim()}".`);
  };
  return (
    <div>
      <PlaceFields
        position={position}
        ways={structureCompletions(song, position)}
        setPosition={setPosition}
        problem={problem}
        positionField={positionField}
        go={go}
        write={write}
        tone={tone}
        setTone={setTone}
        search={search}
        place={place}
        first={first}
      />
      {problem !== null && <FormProblem>{problem}</FormProblem>}
      {problem !== null && meant !== '' && (
        <Button
          onPress={() => {
            const at = parsePosition(bars, meant, song.bars);
            if (at.ok) onCaret(at.ticks);
            drop();
            setProblem(null);
            document.getElementById(TONE_INPUT)?.focus();
          }}
        >
          Take {meant}
        </Button>
      )}
    </div>
  );
}

/** Letters that the field has room for; a line of the structure is longer. */
const SHORT = 8;

interface PlaceFieldsProps {
  readonly position: string;
  /** Lines of the structure that it may become. */
  readonly ways: readonly string[];
  readonly setPosition: (text: string) => void;
  readonly problem: string | null;
  readonly positionField: RefObject<HTMLInputElement | null>;
  readonly go: () => boolean;
  readonly write: () => boolean;
  readonly tone: string;
  readonly setTone: (value: string) => void;
  readonly search: (text: string) => Found[];
  readonly place: (id: string) => void;
  readonly first: () => void;
}

/** Gives the keyboard to a field, behind what stands in it. */
function toEnd(field: HTMLInputElement | null): void {
  field?.focus();
  field?.setSelectionRange(field.value.length, field.value.length);
}

/** Where, what, and the button that places it. */
function PlaceFields({
  position,
  ways,
  setPosition,
  problem,
  positionField,
  go,
  write,
  tone,
  setTone,
  search,
  place,
  first,
}: PlaceFieldsProps) {
  const list = useRef<HTMLDivElement>(null);
  return (
    <Line role="group" aria-label="Place a tone">
      <div style={{ position: 'relative' }}>
        <Field
          value={position}
          onChange={setPosition}
          isInvalid={problem !== null}
          style={{ width: position.length > SHORT ? 190 : 96 }}
        >
          <Label>
            Bar|beat <kbd>B</kbd>
          </Label>
          <Input
            ref={positionField}
            id={POSITION_INPUT}
            onBlur={go}
            onFocus={(e) => e.currentTarget.select()}
            onKeyDown={(e) => {
              if (toFirst(list.current, e) || e.key !== 'Enter') return;
              if (isStructureLine(position)) write();
              else if (go()) document.getElementById(TONE_INPUT)?.focus();
            }}
          />
        </Field>
        <Completions
          over
          listRef={list}
          lines={ways}
          onTake={(line) => {
            flushSync(() => setPosition(line));
            toEnd(positionField.current);
          }}
          onBack={() => toEnd(positionField.current)}
        />
      </div>
      <div style={{ width: 176 }}>
        <Find
          label="Tone"
          inputId={TONE_INPUT}
          placeholder="part of a name, Enter"
          text={tone}
          onText={setTone}
          search={search}
          onPick={place}
          onEnter={first}
        />
      </div>
      <MainButton isDisabled={tone.trim() === ''} onPress={first}>
        Place
      </MainButton>
    </Line>
  );
}
