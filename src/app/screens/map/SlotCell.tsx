import { useDraggable, useDroppable } from '@dnd-kit/core';
import { Music2 } from 'lucide-react';
import { memo } from 'react';
import styled from 'styled-components';
import { desk, font } from '../../theme/tokens';
import type { SlotHands } from './useSlotSheet';

const Frame = styled.div<{ $named: boolean; $on: boolean; $over: boolean }>`
  min-width: 0;
  border: 1.5px solid ${(p) => (p.$named ? desk.lineStrong : desk.line)};
  border-radius: 3px 9px 3px 9px;
  background: ${(p) => (p.$on ? desk.lampWash : p.$named ? desk.sheet : 'transparent')};
  cursor: pointer;
  user-select: none;
  ${(p) => p.$over && `border-style: dashed; border-color: ${desk.lampDeep};`}
  &[aria-selected='true'] {
    border-color: ${desk.tide};
    box-shadow: inset 0 0 0 1.5px ${desk.tide};
  }
`;

const GridCell = styled(Frame)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  grid-template-rows: 16px auto;
  align-content: center;
  padding: 2px 7px 3px;
`;

const ListCell = styled(Frame)`
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr) 92px 84px;
  align-items: center;
  gap: 10px;
  height: 100%;
  padding: 0 10px;
`;

const Place = styled.b<{ $named: boolean }>`
  font: 700 13px/1.2 ${font.display};
  color: ${(p) => (p.$named ? desk.tide : desk.inkSoft)};
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
`;

const Name = styled.span`
  grid-row: 2;
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 14px;
  line-height: 1.25;
  min-height: 17px;
  @media (max-width: 1150px) {
    font-size: 13px;
    letter-spacing: -0.02em;
  }
`;

const NameField = styled.input`
  grid-row: 2;
  grid-column: 1 / -1;
  width: 100%;
  padding: 0;
  border: 0;
  border-bottom: 2px solid ${desk.tide};
  background: transparent;
  font-size: 14px;
  line-height: 1.2;
  outline: none;
`;

const Used = styled.small`
  grid-area: 1 / 2;
  display: flex;
  height: 15px;
  align-items: center;
  gap: 2px;
  font: 700 11.5px/1 ${font.display};
  color: ${desk.lampDeep};
  &::before {
    content: attr(data-songs);
  }
`;

const usedIn = (songs: number): string => `used in ${songs} ${songs === 1 ? 'song' : 'songs'}`;

const Quiet = styled.small`
  font-size: 12.5px;
  color: ${desk.inkSoft};
  text-align: right;
`;

export interface SlotCellProps {
  readonly layout: 'grid' | 'list';
  readonly index: number;
  readonly label: string;
  /** The place in the chosen counting. */
  readonly number: string;
  readonly name: string;
  readonly named: boolean;
  readonly songs: number;
  readonly on: boolean;
  readonly chosen: boolean;
  /** Takes the keyboard. */
  readonly current: boolean;
  readonly draft: string | null;
  /** Program and the like, for the list. */
  readonly aside: string;
  readonly hands: SlotHands;
}

/** One slot, to be chosen, named, dragged and dropped on. */
export const SlotCell = memo(function SlotCell(props: SlotCellProps) {
  const { layout, index, label, number, name, named, songs, on, chosen, current, draft, aside, hands } = props;
  const { setNodeRef: setDrag, listeners } = useDraggable({ id: `slot-${index}`, data: { index } });
  const { setNodeRef: setDrop, isOver } = useDroppable({ id: `place-${index}`, data: { index } });
  const editing = draft !== null;
  const Box = layout === 'grid' ? GridCell : ListCell;
  const inner = layout === 'grid' ? {} : { gridArea: 'auto' };
  return (
    <Box
      ref={(node) => {
        setDrag(node);
        setDrop(node);
      }}
      role="gridcell"
      data-index={index}
      tabIndex={current && !editing ? 0 : -1}
      aria-selected={chosen}
      aria-label={`${label} ${name}`.trim()}
      title={name}
      aria-description={songs > 0 ? usedIn(songs) : undefined}
      $named={named}
      $on={on}
      $over={isOver}
      {...(editing ? {} : { onPointerDown: listeners?.onPointerDown as React.PointerEventHandler | undefined })}
      onClick={(event) => {
        if (!editing) hands.choose(index, event.shiftKey);
      }}
      onDoubleClick={() => hands.edit(index, name)}
      onKeyDown={(event) => !editing && hands.cellKey(event, index)}
    >
      <Place $named={named}>{number}</Place>{' '}
      {editing ? (
        <NameField
          autoFocus
          aria-label={`Name of ${label}`}
          style={inner}
          value={draft}
          maxLength={120}
          onChange={(e) => hands.edit(index, e.target.value)}
          onKeyDown={(event) => hands.draftKey(event, index)}
          onBlur={() => hands.commit(null)}
        />
      ) : (
        <Name style={inner}>{name}</Name>
      )}
      {layout === 'grid' && songs > 0 && (
        <Used data-songs={songs} title={usedIn(songs)}>
          <Music2 size={11} aria-hidden />
        </Used>
      )}
      {layout === 'list' && (
        <>
          <Quiet>{songs > 0 ? `${songs} ${songs === 1 ? 'song' : 'songs'}` : ''}</Quiet>
          <Quiet>{aside}</Quiet>
        </>
      )}
    </Box>
  );
});
