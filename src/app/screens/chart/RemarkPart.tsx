import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { LIMITS, putRemark, removeRemark, songTime, type Show, type Song, type Remark } from '../../../core/show';
import { formatPosition, parsePosition, type Ticks, type BarMap } from '../../../core/time';
import { Check } from '../../widgets/Check';
import { Button, Field, Input, Label, SignButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { newId, perform } from '../../state/desk';
import { take } from './frameParts';
import { Row } from './panelParts';

const Box = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding: 0 16px 16px;
  & h3 {
    font-size: 15px;
  }
`;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly at: Ticks;
}

/** Lines of text at places of the song: those that stand at the caret, and a new one. */
export function RemarkPart({ show, song, at }: Props) {
  const { bars } = songTime(song);
  const [text, setText] = useState('');
  const place = formatPosition(bars, at, song.bars);
  const here = song.remarks.filter((r) => r.at === at);
  const add = (): void => {
    if (perform(putRemark(show, song.id, { id: newId(), at, text, onStage: true }), 'add a remark')) setText('');
  };
  return (
    <Box aria-label="Remarks">
      <h3>Remarks</h3>
      {here.map((remark) => (
        <RemarkFields key={remark.id} remark={remark} bars={bars} song={song} show={show} />
      ))}
      <NewRemark text={text} setText={setText} place={place} add={add} />
      {song.remarks.length > 0 && here.length === 0 && (
        <Soft style={{ fontSize: 13 }}>A remark is changed where it stands: press it on the chart.</Soft>
      )}
    </Box>
  );
}

interface NewRemarkProps {
  readonly text: string;
  readonly setText: (value: string) => void;
  readonly place: string;
  readonly add: () => void;
}

/** Adds a remark at the caret. */
function NewRemark({ text, setText, place, add }: NewRemarkProps) {
  return (
    <Row style={{ flexWrap: 'nowrap', alignItems: 'end' }}>
      <Field value={text} onChange={setText} maxLength={LIMITS.remark} style={{ flex: 1 }}>
        <Label>A remark at {place}</Label>
        <Input
          placeholder="wait for the harp"
          onKeyDown={(e) => {
            if (e.key === 'Enter' && !e.nativeEvent.isComposing) add();
          }}
        />
      </Field>
      <Button isDisabled={text.trim() === ''} onPress={add} aria-label={`Add the remark at ${place}`}>
        <Plus size={15} aria-hidden /> Add
      </Button>
    </Row>
  );
}

interface RemarkFieldsProps {
  readonly remark: Remark;
  readonly bars: BarMap;
  readonly song: Song;
  readonly show: Show;
}

/** A remark: its bar, and what it says. */
function RemarkFields({ remark, bars, song, show }: RemarkFieldsProps) {
  return (
    <div role="group" aria-label={`Remark ${remark.text}`} style={{ display: 'grid', gap: 6 }}>
      <Row style={{ flexWrap: 'nowrap' }}>
        <DraftField
          label="Bar|beat"
          value={formatPosition(bars, remark.at, song.bars)}
          style={{ width: 72 }}
          commit={(typed) => {
            const to = parsePosition(bars, typed, song.bars);
            if (!to.ok) return 'bar|beat, as in 17|3';
            return take(putRemark(show, song.id, { ...remark, at: to.ticks }), 'move a remark', 'another place');
          }}
        />
        <DraftField
          label="Remark"
          value={remark.text}
          style={{ flex: 1 }}
          commit={(typed) => take(putRemark(show, song.id, { ...remark, text: typed }), 'change a remark', 'a text')}
        />
        <SignButton
          aria-label={`Remove the remark ${remark.text}`}
          onPress={() => perform(removeRemark(show, song.id, remark.id), 'remove a remark')}
        >
          <Trash2 size={15} />
        </SignButton>
      </Row>
      <Check
        isSelected={remark.onStage}
        onChange={(onStage) => perform(putRemark(show, song.id, { ...remark, onStage }), 'change a remark')}
      >
        Shown on stage
      </Check>
    </div>
  );
}
