import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { labelOf, slotCount } from '../../../core/addressing';
import type { Slot, Unit } from '../../../core/show';
import { slotNumber } from '../../state/numbers';
import type { Counting } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { gridColumns, gridRows, rowOf, verticalNeighbour, type GridRow } from './gridRows';

const Scroller = styled.div`
  height: 100%;
  overflow: auto;
  padding: 2px 12px 16px 20px;
`;

const Heading = styled.h3`
  position: absolute;
  left: 0;
  right: 0;
  font-size: 16px;
  padding-top: 10px;
  color: ${desk.inkSoft};
`;

const Line = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  display: grid;
  gap: 4px;
  padding-bottom: 4px;
`;

const Cell = styled.div<{ $named: boolean; $on: boolean }>`
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-width: 0;
  padding: 2px 7px 3px;
  border: 1.5px solid ${(p) => (p.$named ? desk.lineStrong : desk.line)};
  border-radius: 3px 9px 3px 9px;
  background: ${(p) => (p.$on ? desk.lampWash : p.$named ? desk.sheet : 'transparent')};
  cursor: pointer;
  &[aria-selected='true'] {
    border-color: ${desk.tide};
    box-shadow: inset 0 0 0 1.5px ${desk.tide};
  }
  & > b {
    font: 700 13px/1.2 ${font.display};
    color: ${(p) => (p.$named ? desk.tide : desk.inkSoft)};
    white-space: nowrap;
  }
  & > span {
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
  }
  & > input {
    width: 100%;
    padding: 0;
    border: 0;
    border-bottom: 2px solid ${desk.tide};
    background: transparent;
    font-size: 14px;
    line-height: 1.2;
    outline: none;
  }
`;

interface Props {
  readonly unit: Unit;
  readonly counting: Counting;
  readonly selected: number;
  /** Slot that the stand-in is on now. */
  readonly on: number | null;
  readonly onSelect: (index: number) => void;
  /** Counts how often the keyboard was sent to the chosen slot from elsewhere. */
  readonly summons: number;
  readonly onName: (index: number, name: string) => void;
  readonly onSend: (index: number) => void;
}

const ROW_HEIGHT = 48;
const HEADING_HEIGHT = 36;

/** A unit's slots in its own order and labelling. Arrows move, Enter or typing names, Space sends. */
export function SlotGrid({ unit, counting, selected, on, onSelect, summons, onName, onSend }: Props) {
  const { plan } = unit.profile;
  const rows = useMemo(() => gridRows(plan), [plan]);
  const columns = gridColumns(plan);
  const bySlot = useMemo(() => new Map(unit.slots.map((s) => [s.index, s])), [unit.slots]);
  const scroller = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLDivElement>(null);
  const [draft, setDraft] = useState<{ readonly index: number; readonly text: string } | null>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (rows[i]!.kind === 'heading' ? HEADING_HEIGHT : ROW_HEIGHT),
    overscan: 6,
  });
  const [wantFocus, setWantFocus] = useState(false);
  useEffect(() => {
    if (summons > 0) setWantFocus(true);
  }, [summons]);
  useEffect(() => {
    virtual.scrollToIndex(Math.max(0, rowOf(rows, selected)), { align: 'auto' });
    if (!wantFocus) return;
    grid.current?.querySelector<HTMLElement>(`[data-index="${selected}"]`)?.focus();
    setWantFocus(false);
  }, [rows, selected, wantFocus, virtual]);

  const count = slotCount(plan);
  const go = (index: number): void => {
    onSelect(Math.max(0, Math.min(count - 1, index)));
    setWantFocus(true);
  };
  const commit = (next: number | null): void => {
    if (draft) onName(draft.index, draft.text);
    setDraft(null);
    if (next !== null) go(next);
  };
  const edit = (index: number, text: string): void => setDraft({ index, text });

  const onCellKey = (event: KeyboardEvent, index: number): void => {
    const moves: Readonly<Record<string, number>> = {
      ArrowRight: index + 1,
      ArrowLeft: index - 1,
      ArrowDown: verticalNeighbour(rows, index, 1),
      ArrowUp: verticalNeighbour(rows, index, -1),
      Home: 0,
      End: count - 1,
      PageDown: index + columns * 8,
      PageUp: index - columns * 8,
    };
    const to = moves[event.key];
    if (to !== undefined) go(to);
    else if (event.key === 'Enter' || event.key === 'F2') edit(index, bySlot.get(index)?.name ?? '');
    else if (event.key === ' ') onSend(index);
    else if (event.key === 'Delete') onName(index, '');
    else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) edit(index, event.key);
    else return;
    event.preventDefault();
  };
  const onDraftKey = (event: KeyboardEvent, index: number): void => {
    event.stopPropagation();
    if (event.nativeEvent.isComposing) return;
    if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      commit(index + (event.shiftKey ? -1 : 1));
    } else if (event.key === 'Escape') {
      setDraft(null);
      go(index);
    }
  };

  const drawCell = (index: number) => {
    const slot: Slot | undefined = bySlot.get(index);
    const editing = draft?.index === index;
    const label = labelOf(plan, index);
    return (
      <Cell
        key={index}
        role="gridcell"
        data-index={index}
        tabIndex={index === selected && !editing ? 0 : -1}
        aria-selected={index === selected}
        aria-label={`${label} ${slot?.name ?? ''}`.trim()}
        title={slot?.name}
        $named={slot !== undefined}
        $on={on === index}
        onClick={() => {
          if (!editing) go(index);
        }}
        onDoubleClick={() => edit(index, slot?.name ?? '')}
        onKeyDown={(event) => !editing && onCellKey(event, index)}
      >
        <b>{slotNumber(plan, index, counting)}</b>{' '}
        {editing ? (
          <input
            autoFocus
            aria-label={`Name of ${label}`}
            value={draft.text}
            maxLength={120}
            onChange={(e) => edit(index, e.target.value)}
            onKeyDown={(event) => onDraftKey(event, index)}
            onBlur={() => commit(null)}
          />
        ) : (
          <span>{slot?.name ?? ''}</span>
        )}
      </Cell>
    );
  };

  return (
    <Scroller ref={scroller}>
      <div
        ref={grid}
        role="grid"
        aria-label={`Slots of ${unit.name}`}
        aria-rowcount={rows.length}
        aria-colcount={columns}
        style={{ height: virtual.getTotalSize(), position: 'relative' }}
      >
        {virtual.getVirtualItems().map((item) => {
          const row: GridRow = rows[item.index]!;
          const style = { transform: `translateY(${item.start}px)`, height: item.size };
          if (row.kind === 'heading') {
            return (
              <Heading key={item.key} role="row" style={style}>
                <span role="rowheader">
                  {row.group.name}, {row.group.count} slots
                </span>
              </Heading>
            );
          }
          return (
            <Line
              key={item.key}
              role="row"
              aria-rowindex={item.index + 1}
              style={{ ...style, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
            >
              {Array.from({ length: row.count }, (_, i) => drawCell(row.first + i))}
            </Line>
          );
        })}
      </div>
    </Scroller>
  );
}
