import { AudioLines, Copy } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { renameTone, type Tone, type Unit } from '../../../core/show';
import { toneAims } from '../../../core/meaning';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { Unseen } from '../../widgets/shellParts';
import { desk, font } from '../../theme/tokens';
import { DeleteTone } from './DeleteTone';
import { PartRow } from './PartRow';
import { sendTone } from '../../features/sendTone';
import { usePartEdit } from './usePartEdit';
import { WhereUsed } from './WhereUsed';

const Editor = styled.section`
  overflow: auto;
  padding: 16px 24px 30px;
`;

const Head = styled.div`
  display: flex;
  align-items: end;
  gap: 10px;
  margin-bottom: 14px;
  & > :first-child {
    flex: 1;
    max-width: 420px;
  }
  & input {
    font: 700 22px/1.2 ${font.display};
  }
`;

const Parts = styled.div`
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
`;

/** One tone with what it wants of every unit. */
export function ToneEditor({ tone, onCopy }: { readonly tone: Tone; readonly onCopy: () => void }) {
  const show = useShow();
  const aims = toneAims(show, tone);
  const head = useRef<HTMLDivElement>(null);
  const { state } = useLocation();
  const fresh = (state as { readonly fresh?: boolean } | null)?.fresh === true;
  useEffect(() => {
    if (!fresh) return;
    // A tone that was just made: its name comes next.
    const name = head.current?.querySelector('input');
    name?.focus();
    name?.select();
  }, [fresh]);
  const commitName = (name: string): string | null => {
    perform(renameTone(show, tone.id, name), 'rename a tone');
    return name.trim() === '' ? 'Enter a name' : null;
  };
  return (
    <Editor aria-label={tone.name}>
      <Unseen as="h1">{tone.name}</Unseen>
      <Head ref={head}>
        <DraftField label="Tone" value={tone.name} commit={commitName} />
        <MainButton onPress={() => void sendTone(show, tone)} isDisabled={tone.parts.length === 0}>
          <AudioLines size={17} aria-hidden /> Send
        </MainButton>
        <Button onPress={onCopy}>
          <Copy size={16} aria-hidden /> Duplicate
        </Button>
        <DeleteTone tone={tone} />
      </Head>
      <p style={{ marginBottom: 14 }}>
        <WhereUsed toneId={tone.id} />
      </p>
      <Parts>
        {show.units.map((unit, i) => (
          <EditedRow key={unit.id} tone={tone} unit={unit} index={i} brought={aims.get(unit.id)?.slot} />
        ))}
        {show.units.length === 0 && (
          <p style={{ padding: 20 }}>
            No units yet. <Link to={`/show/${show.id}/rig`}>Add the first to the rig</Link>.
          </p>
        )}
      </Parts>
      {show.units.length > 0 && tone.parts.length === 0 && (
        <p style={{ marginTop: 12 }}>
          <Soft>Include the units that this tone is about; all others stay as they are.</Soft>
        </p>
      )}
    </Editor>
  );
}

interface RowProps {
  readonly tone: Tone;
  readonly unit: Unit;
  readonly index: number;
  readonly brought: number | undefined;
}

function EditedRow({ tone, unit, index, brought }: RowProps) {
  const edit = usePartEdit(tone, unit);
  const part = tone.parts.find((p) => p.unitId === unit.id);
  return <PartRow tone={tone} unit={unit} index={index} part={part} brought={brought} {...edit} />;
}
