import { AudioLines, X } from 'lucide-react';
import styled from 'styled-components';
import { labelOf } from '../../../core/addressing';
import { aimOf } from '../../../core/meaning';
import { newPart, type Tone, type TonePart, type Unit } from '../../../core/show';
import { Button, SignButton, Soft } from '../../widgets/controls';
import { UnitBadge } from '../../widgets/UnitBadge';
import { audition } from '../../state/desk';
import { desk } from '../../theme/tokens';
import { PartFields } from './PartFields';
import { ReachedBy } from './ReachedBy';

const Row = styled.section<{ $in: boolean }>`
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 34px;
  gap: 6px 16px;
  align-items: start;
  padding: 12px 16px 12px 14px;
  & + & {
    border-top: 1px solid ${desk.line};
  }
  ${(p) => !p.$in && 'align-items: center;'}
`;

const Who = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  font-weight: 700;
  line-height: 1.15;
  min-height: 34px;
`;

interface Props {
  readonly tone: Tone;
  readonly unit: Unit;
  readonly index: number;
  readonly part: TonePart | undefined;
  /** Slot that a relay rule of another unit brings this one to, where the tone does not name it. */
  readonly brought: number | undefined;
  readonly onPart: (part: TonePart | null, label: string) => void;
  /** Gives the id of the slot at a place, made where it had no entry yet. */
  readonly slotIdAt: (index: number) => string;
}

/** What one tone wants of one unit. */
export function PartRow({ tone, unit, index, part, brought, onPart, slotIdAt }: Props) {
  if (!part) {
    return (
      <Row $in={false} aria-label={unit.name}>
        <Who>
          <UnitBadge monogram={unit.monogram} index={index} />
          {unit.name}
        </Who>
        <Soft>{brought === undefined ? 'left as it is' : `brought to ${slotName(unit, brought)} by a relay rule`}</Soft>
        <div style={{ justifySelf: 'end' }}>
          <Button aria-label={`Include ${unit.name}`} onPress={() => onPart(newPart(unit.id), `include ${unit.name}`)}>
            Include
          </Button>
        </div>
      </Row>
    );
  }
  return (
    <Row $in aria-label={unit.name}>
      <Who>
        <UnitBadge monogram={unit.monogram} index={index} />
        {unit.name}
      </Who>
      <div>
        <PartFields unit={unit} part={part} onPart={onPart} slotIdAt={slotIdAt} />
        <ReachedBy tone={tone} unit={unit} />
      </div>
      <div>
        <SignButton aria-label={`Leave ${unit.name} out`} onPress={() => onPart(null, `leave ${unit.name} out`)}>
          <X size={17} />
        </SignButton>
        <SignButton aria-label={`Send to ${unit.name} now`} onPress={() => void audition(unit.id, aimOf(unit, part))}>
          <AudioLines size={17} />
        </SignButton>
      </div>
    </Row>
  );
}

/** A slot as the unit writes it, with its name. */
export function slotName(unit: Unit, index: number): string {
  const name = unit.slots.find((s) => s.index === index)?.name ?? '';
  return `${labelOf(unit.profile.plan, index)} ${name}`.trim();
}
