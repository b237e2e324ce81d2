import { useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { TextArea } from 'react-aria-components';
import styled from 'styled-components';
import { rewriteStructure, structureCompletions, structureLines, type Show, type Song } from '../../../core/show';
import { sentence } from '../../../wording';
import { Button, Field, FormProblem, Label, MainButton, Soft, inputLook } from '../../widgets/controls';
import { useDraft } from '../../widgets/useDraft';
import { newId, perform } from '../../state/desk';
import { font } from '../../theme/tokens';
import { Completions, toFirst } from './Completions';
import { Row } from './panelParts';

const Lines = styled(TextArea)`
  ${inputLook}
  width: 100%;
  min-height: 150px;
  font: 14px/1.5 ${font.bytes};
  white-space: pre;
  resize: vertical;
`;

/** The whole structure as lines that can be edited, copied and pasted: what is gone from them is gone from the song. */
export function StructureText({ show, song }: { readonly show: Show; readonly song: Song }) {
  const written = structureLines(song).join('\n');
  const [text, setText, drop] = useDraft(written);
  const [problem, setProblem] = useState<string | null>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  const list = useRef<HTMLDivElement>(null);
  /** Where the keyboard is in the text; null where nothing is typed. */
  const [at, setAt] = useState<number | null>(null);
  const start = at === null ? 0 : text.lastIndexOf('\n', at - 1) + 1;
  const until = at === null || !text.includes('\n', at) ? text.length : text.indexOf('\n', at);
  // In the middle of a line somebody changes it; at its end it may go on.
  const ways = at === until ? structureCompletions(song, text.slice(start, until)) : [];
  const complete = (line: string): void => {
    flushSync(() => setText(`${text.slice(0, start)}${line}${text.slice(until)}`));
    area.current?.focus();
    area.current?.setSelectionRange(start + line.length, start + line.length);
  };
  const take = (): void => {
    const read = rewriteStructure(show, song.id, text, newId);
    if (!read.ok) {
      setProblem(`Line ${read.row}: ${sentence(read.problem)}`);
      return;
    }
    setProblem(null);
    if (read.edit) perform(read.edit, 'rewrite the structure');
    drop();
  };
  return (
    <>
      <Field value={text} onChange={setText} isInvalid={problem !== null}>
        <Label>Structure as text</Label>
        <Lines
          ref={area}
          spellCheck={false}
          onSelect={(e) => setAt(e.currentTarget.selectionEnd)}
          onKeyDown={(e) => void toFirst(list.current, e)}
        />
      </Field>
      <Completions listRef={list} lines={ways} onTake={complete} onBack={() => area.current?.focus()} />
      {problem !== null && <FormProblem>{problem}</FormProblem>}
      <Row>
        <MainButton isDisabled={text === written} onPress={take}>
          Take these lines
        </MainButton>
        <Button isDisabled={text === written} onPress={drop}>
          As it is
        </Button>
      </Row>
      <Soft style={{ fontSize: 13 }}>
        One thing a line: 17 7/8 · 1 tempo 126 · 41 ramp 132 to 57 until 45 · 9 Chorus · 25 = 18 · pickup 2 · call Solo
        2 before 33. The field Bar|beat takes each of them, and 33 move to 49.
      </Soft>
    </>
  );
}
