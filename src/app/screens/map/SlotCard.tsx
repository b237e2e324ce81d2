import { AudioLines, Plus } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { addressOf, groupOf, labelOf, slotMessages } from '../../../core/addressing';
import { toHex } from '../../../core/midi';
import { indexShow, setSlotField, slotUses, toneUses, type Slot, type Unit } from '../../../core/show';
import { songsWords } from '../../../wording';
import { newId, perform } from '../../state/desk';
import { TimeField } from '../../features/TimeField';
import { Bytes, Button, MainButton, Soft } from '../../widgets/controls';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { SlotStart } from './SlotStart';

const Card = styled.section`
  display: grid;
  gap: 12px;
  padding: 16px 18px 18px;
  border-bottom: 1.5px solid ${desk.ink};
  & h2 {
    font-size: 24px;
  }
`;

const Ways = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 10px;
  margin: 0;
  & dt {
    color: ${desk.inkSoft};
    font-size: 13px;
    line-height: 24px;
  }
  & dd {
    margin: 0;
    font: 700 15px/24px ${font.display};
    font-variant-numeric: tabular-nums;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

interface Props {
  readonly unit: Unit;
  readonly index: number;
  readonly slot: Slot | undefined;
  readonly onSend: () => void;
  readonly onTone: () => void;
}

/** One slot in all countings, its bytes, and where it is used. */
export function SlotCard({ unit, index, slot, onSend, onTone }: Props) {
  const show = useShow();
  const { plan } = unit.profile;
  const address = addressOf(plan, index);
  const messages = slotMessages(plan, unit.channel, index, null);
  const withBank = plan.bank.send !== 'none';
  const uses = slot ? slotUses(show, unit.id, slot.id) : [];
  return (
    <Card aria-label="Chosen slot">
      <h2>
        {labelOf(plan, index)} <span style={{ fontWeight: 500 }}>{slot?.name ?? ''}</span>
      </h2>
      <Ways>
        <dt>on the unit</dt>
        <dd>
          {labelOf(plan, index)}{' '}
          <Soft style={{ fontWeight: 400 }}>{plan.groups.length > 1 ? groupOf(plan, index).group.name : ''}</Soft>
        </dd>
        <dt>counted from 0</dt>
        <dd>
          {address ? `${withBank ? `bank ${address.bank}, ` : ''}program ${address.program}` : 'no program calls it'}
        </dd>
        <dt>counted from 1</dt>
        <dd>{address ? `${withBank ? `bank ${address.bank + 1}, ` : ''}program ${address.program + 1}` : '–'}</dd>
        <dt>on the wire</dt>
        <dd>
          <Bytes>{messages?.map((m) => toHex(m, ' ').toUpperCase()).join('  ·  ') ?? 'nothing'}</Bytes>
        </dd>
      </Ways>
      <Row>
        <MainButton onPress={onSend}>
          <AudioLines size={17} aria-hidden /> Send
        </MainButton>
        <Button onPress={onTone} isDisabled={!slot}>
          <Plus size={16} aria-hidden /> Make a tone of it
        </Button>
      </Row>
      <TimeField
        label="From the program change to the sound (ms)"
        time={slot?.recall ?? null}
        otherwise={unit.profile.times.recall}
        set={(time) => {
          perform(setSlotField(show, unit.id, index, 'recall', time, newId()), 'change the time of a preset');
          return null;
        }}
      />
      <SlotStart unit={unit} index={index} slot={slot} />
      <div>
        {uses.length === 0 ? (
          <Soft>{slot ? 'No tone uses it yet.' : 'Nameless so far: press Enter and type.'}</Soft>
        ) : (
          uses.map((id) => (
            <div key={id}>
              <Link to={`/show/${show.id}/tones/${id}`}>{indexShow(show).tones.get(id)?.name}</Link>{' '}
              <Soft>{songsWords(toneUses(show, id).length)}</Soft>
            </div>
          ))
        )}
      </div>
    </Card>
  );
}
