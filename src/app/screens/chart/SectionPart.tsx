import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import {
  copySection,
  moveSection,
  newSection,
  putSection,
  removeSection,
  songTime,
  type Song,
  type Section,
  type Show,
} from '../../../core/show';
import { barOfTick, formatBar, parsePosition, type BarMap } from '../../../core/time';
import { Button, Field, Input, Label, SignButton } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { newId, perform } from '../../state/desk';
import { Row } from './panelParts';
import { take, type FrameProps } from './frameParts';

export function SectionPart({ show, song, bar }: FrameProps & { readonly bar: number }) {
  const { bars } = songTime(song);
  const [before, setBefore] = useState('');
  const target = parsePosition(bars, before, song.bars);
  const targetBar = before.trim() === 'end' ? song.bars + 1 : target.ok ? barOfTick(bars, target.ticks).bar : undefined;
  const first = song.pickup > 0 ? 0 : 1;
  return (
    <>
      <h3>Sections</h3>
      {song.sections.map((section) => (
        <SectionFields key={section.id} section={section} bars={bars} song={song} show={show} />
      ))}
      <div>
        <Button
          isDisabled={song.sections.some((s) => s.bar === Math.max(first, bar))}
          onPress={() => {
            const section = newSection(newId(), `Section ${song.sections.length + 1}`, Math.max(first, bar));
            perform(putSection(show, song.id, section), 'add a section');
            // Its name comes next.
            requestAnimationFrame(() => {
              const [, field] = document.querySelectorAll<HTMLInputElement>(`[data-section="${section.id}"] input`);
              field?.focus();
              field?.select();
            });
          }}
        >
          <Plus size={14} aria-hidden /> Section at bar {formatBar(bars, Math.max(first, bar), song.bars)}
        </Button>
      </div>
      {song.sections.length > 0 && (
        <MoveSections before={before} setBefore={setBefore} targetBar={targetBar} song={song} show={show} />
      )}
    </>
  );
}

interface MoveSectionsProps {
  readonly before: string;
  readonly setBefore: (value: string) => void;
  readonly targetBar: number | undefined;
  readonly song: Song;
  readonly show: Show;
}

/** Sections moved or copied to another bar. */
function MoveSections({ before, setBefore, targetBar, song, show }: MoveSectionsProps) {
  return (
    <>
      <Field value={before} onChange={setBefore} style={{ width: 170 }}>
        <Label>Move or copy a section to bar (or end)</Label>
        <Input placeholder="17" />
      </Field>
      {targetBar !== undefined &&
        song.sections.map((s) => {
          const moving = moveSection(show, song.id, s.id, targetBar);
          return (
            <Row key={s.id}>
              <span style={{ flex: 1, lineHeight: '34px' }}>{s.name}</span>
              <Button isDisabled={!moving} onPress={() => perform(moving, `move ${s.name}`)}>
                Move
              </Button>
              <Button onPress={() => perform(copySection(show, song.id, s.id, targetBar, newId), `copy ${s.name}`)}>
                Copy
              </Button>
            </Row>
          );
        })}
    </>
  );
}

interface SectionFieldsProps {
  readonly section: Section;
  readonly bars: BarMap;
  readonly song: Song;
  readonly show: Show;
}

/** A section: its bar, its name, and away with it. */
function SectionFields({ section, bars, song, show }: SectionFieldsProps) {
  return (
    <Row data-section={section.id} style={{ flexWrap: 'nowrap' }} role="group" aria-label={`Section ${section.name}`}>
      <DraftField
        label="Bar"
        value={formatBar(bars, section.bar, song.bars)}
        style={{ width: 52 }}
        commit={(text) => {
          const to = parsePosition(bars, text, song.bars);
          if (!to.ok) return 'a bar';
          const edit = putSection(show, song.id, { ...section, bar: barOfTick(bars, to.ticks).bar });
          return take(edit, 'move the start of a section', 'a bar where no section begins');
        }}
      />
      <DraftField
        label="Section"
        value={section.name}
        style={{ flex: 1 }}
        commit={(name) => take(putSection(show, song.id, { ...section, name }), 'rename a section', 'a name')}
      />
      <SignButton
        aria-label={`Remove the section ${section.name}`}
        onPress={() => perform(removeSection(show, song.id, section.id), 'remove a section')}
      >
        <Trash2 size={15} />
      </SignButton>
    </Row>
  );
}
