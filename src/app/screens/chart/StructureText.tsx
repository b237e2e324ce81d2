import { useState } from 'react';
import { TextArea } from 'react-aria-components';
import styled from 'styled-components';
import { rewriteStructure, structureLines, type Show, type Song } from '../../../core/show';
import { sentence } from '../../../wording';
import { Button, Field, FormProblem, Label, MainButton, Soft, inputLook } from '../../widgets/controls';
import { useDraft } from '../../widgets/useDraft';
import { newId, perform } from '../../state/desk';
import { font } from '../../theme/tokens';
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
        <Lines spellCheck={false} />
      </Field>
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
