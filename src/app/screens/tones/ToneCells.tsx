import type { KeyboardEvent } from 'react';
import styled from 'styled-components';
import { toneAims } from '../../../core/meaning';
import { slotsById, toneUses, type Tone, type Unit } from '../../../core/show';
import { partWords, songsWords } from '../../../wording';
import { LanternMark } from '../../widgets/LanternMark';
import { useToneMark } from '../../state/marks';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { slotName } from './PartRow';

const Name = styled.div`
  position: sticky;
  left: 0;
  z-index: 2;
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr);
  align-content: center;
  gap: 0 8px;
  padding: 0 8px 0 14px;
  border-bottom: 1px solid ${desk.line};
  border-right: 1.5px solid ${desk.ink};
  background: ${desk.paper};
  cursor: pointer;
  & > svg {
    grid-row: span 2;
    align-self: center;
  }
  & > b {
    font: 700 16px/1.2 ${font.display};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & > small {
    font-size: 12.5px;
    color: ${desk.inkSoft};
  }
`;

const Cell = styled.div<{ $in: boolean }>`
  display: grid;
  align-content: center;
  padding: 0 8px;
  border-bottom: 1px solid ${desk.line};
  border-right: 1px solid ${desk.line};
  background: ${(p) => (p.$in ? desk.sheet : 'transparent')};
  cursor: pointer;
  line-height: 1.25;
  &[aria-selected='true'] {
    box-shadow: inset 0 0 0 2px ${desk.tide};
  }
  &:hover {
    background: ${desk.tideWash};
  }
  & > b,
  & > span,
  & > small {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  /* What stands alone has room for two lines. */
  & > :only-child {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    white-space: normal;
  }
  & > b {
    font-size: 13.5px;
  }
  & > span {
    font-size: 13px;
    color: ${desk.tide};
  }
  & > small {
    font-size: 12px;
    color: ${desk.inkSoft};
  }
`;

interface CellProps {
  readonly tone: Tone;
  readonly selected: boolean;
  readonly onClick: () => void;
  readonly onKey: (event: KeyboardEvent) => void;
}

export function NameCell({ tone, selected, first, onClick, onKey }: CellProps & { readonly first: boolean }) {
  const show = useShow();
  const mark = useToneMark(show, tone.id);
  return (
    <Name
      role="rowheader"
      aria-selected={selected}
      aria-label={`${tone.name} ${songsWords(toneUses(show, tone.id).length)}`}
      tabIndex={selected || first ? 0 : -1}
      onClick={onClick}
      onKeyDown={onKey}
      style={selected ? { boxShadow: `inset 0 0 0 2px ${desk.tide}` } : {}}
    >
      <LanternMark mark={mark} size={24} />
      <b>{tone.name}</b> <small>{songsWords(toneUses(show, tone.id).length)}</small>
    </Name>
  );
}

export function PartCell({ tone, unit, selected, onClick, onKey }: CellProps & { readonly unit: Unit }) {
  const show = useShow();
  const part = tone.parts.find((p) => p.unitId === unit.id);
  const brought = part ? undefined : toneAims(show, tone).get(unit.id)?.slot;
  const words = part ? partWords(unit, part) : null;
  const gone = part !== undefined && part.slotId !== null && !slotsById(unit).has(part.slotId);
  const variant = words && words.variant !== '' ? `${unit.profile.variants?.word} ${words.variant}` : '';
  const relayed = brought === undefined ? '' : `by relay: ${slotName(unit, brought)}`;
  const text = [words?.slot ?? '', variant, words?.rest ?? '', relayed].filter((t) => t !== '').join(' ');
  return (
    <Cell
      role="gridcell"
      $in={part !== undefined}
      aria-selected={selected}
      aria-label={[`${tone.name}, ${unit.name}`, text].filter((t) => t !== '').join(': ')}
      tabIndex={selected ? 0 : -1}
      title={text}
      onClick={onClick}
      onKeyDown={onKey}
    >
      {words && words.slot !== '' && <b style={gone ? { color: desk.rust } : {}}>{words.slot}</b>}{' '}
      {variant !== '' && <span>{variant}</span>} {words && words.rest !== '' && <small>{words.rest}</small>}{' '}
      {relayed !== '' && <small>{relayed}</small>}
    </Cell>
  );
}
