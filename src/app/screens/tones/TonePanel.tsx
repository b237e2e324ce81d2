import { AudioLines, Copy, Radio, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { aimOf, compareTones, type ToneDifference } from '../../../core/meaning';
import { captureOver, newPart, renameTone, setToneNotes, type Tone, type Unit } from '../../../core/show';
import { differenceWords } from '../../../wording';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { UnitBadge } from '../../widgets/UnitBadge';
import { audition, newId, perform } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { DeleteTone } from './DeleteTone';
import { PartFields } from './PartFields';
import { ReachedBy } from './ReachedBy';
import { sendTone } from '../../features/sendTone';
import { usePartEdit } from './usePartEdit';
import { WhereUsed } from './WhereUsed';

const Box = styled.section`
  display: grid;
  gap: 11px;
  align-content: start;
  padding: 16px 18px;
  & h2 {
    display: flex;
    align-items: center;
    gap: 9px;
    font-size: 18px;
    padding-top: 10px;
    border-top: 1.5px solid ${desk.line};
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

const Differences = styled.ul`
  display: grid;
  gap: 3px;
  margin: 0;
  padding-left: 18px;
  font-size: 13.5px;
`;

interface Props {
  readonly tone: Tone;
  readonly unit: Unit | null;
  readonly onCopy: () => void;
}

const NONE = 'none';

/** The chosen tone, and what it wants of the chosen unit. */
export function TonePanel({ tone, unit, onCopy }: Props) {
  const show = useShow();
  const [other, setOther] = useState(NONE);
  const against = show.tones.find((t) => t.id === other && t.id !== tone.id);
  const differences = against ? compareTones(show, tone, against) : [];
  return (
    <Box aria-label={`Tone ${tone.name}`}>
      <DraftField
        label="Tone"
        value={tone.name}
        commit={(name) => {
          perform(renameTone(show, tone.id, name), 'rename a tone');
          return name.trim() === '' ? 'Enter a name' : null;
        }}
      />
      <DraftField
        label="Notes, printed on the tone sheet"
        value={tone.notes}
        commit={(text) => {
          perform(setToneNotes(show, tone.id, text), 'change the notes of a tone');
          return null;
        }}
      />
      <Row>
        <MainButton onPress={() => void sendTone(show, tone)} isDisabled={tone.parts.length === 0}>
          <AudioLines size={16} aria-hidden /> Send
        </MainButton>
        <Button onPress={onCopy}>
          <Copy size={15} aria-hidden /> Duplicate
        </Button>
        <DeleteTone tone={tone} />
      </Row>
      <WhereUsed toneId={tone.id} />
      {unit && <PartBox tone={tone} unit={unit} />}
      <h2>Compare</h2>
      <Pick
        label="With"
        value={against ? other : NONE}
        onPick={setOther}
        choices={[{ id: NONE, name: 'no other tone' }, ...show.tones.filter((t) => t.id !== tone.id)]}
      />
      {against && <ToneDifferences tone={tone} against={against} differences={differences} />}
      <p>
        <Link to={`/show/${show.id}/tones/${tone.id}`}>All units of this tone, one below the other</Link>
      </p>
    </Box>
  );
}

interface ToneDifferencesProps {
  readonly tone: Tone;
  readonly against: Tone;
  readonly differences: ToneDifference[];
}

/** In what two tones differ. */
function ToneDifferences({ tone, against, differences }: ToneDifferencesProps) {
  const show = useShow();
  return (
    <>
      <Soft>
        {tone.name} / {against.name}
      </Soft>
      {differences.length === 0 ? (
        <p>They sound alike.</p>
      ) : (
        <Differences aria-label="Differences">
          {differences.map((d, i) => (
            <li key={i}>{differenceWords(show, d)}</li>
          ))}
        </Differences>
      )}
    </>
  );
}

function PartBox({ tone, unit }: { readonly tone: Tone; readonly unit: Unit }) {
  const show = useShow();
  const rig = useNews((s) => s.news.rig);
  const { onPart, slotIdAt } = usePartEdit(tone, unit);
  const part = tone.parts.find((p) => p.unitId === unit.id);
  const capture = captureOver(show, rig, tone.id, unit.id, newId);
  return (
    <>
      <h2>
        <UnitBadge monogram={unit.monogram} index={show.units.indexOf(unit)} size={22} />
        {unit.name}
      </h2>
      {part ? (
        <>
          <PartFields unit={unit} part={part} onPart={onPart} slotIdAt={slotIdAt} />
          <ReachedBy tone={tone} unit={unit} />
        </>
      ) : (
        <Soft>This tone leaves it as it is.</Soft>
      )}
      <Row>
        {part ? (
          <>
            <Button onPress={() => void audition(unit.id, aimOf(unit, part))}>
              <AudioLines size={15} aria-hidden /> Send to it
            </Button>
            <Button onPress={() => onPart(null, `leave ${unit.name} out`)}>
              <X size={15} aria-hidden /> Leave it out
            </Button>
          </>
        ) : (
          <Button onPress={() => onPart(newPart(unit.id), `include ${unit.name}`)}>Include {unit.name}</Button>
        )}
        <Button
          isDisabled={capture === null}
          onPress={() => perform(capture, `capture ${unit.name} into ${tone.name}`)}
        >
          <Radio size={15} aria-hidden /> Capture what it is on now
        </Button>
      </Row>
    </>
  );
}
