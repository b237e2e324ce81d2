import { DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react';
import styled from 'styled-components';
import { addressOf, labelOf, slotCount } from '../../../core/addressing';
import type { Unit } from '../../../core/show';
import { slotNumber } from '../../state/numbers';
import type { Counting } from '../../state/store';
import { desk } from '../../theme/tokens';
import { gridColumns, gridRows, rowOf, verticalNeighbour, type GridRow } from './gridRows';
import { listOrder, type ListSort } from './listOrder';
import { SlotCell } from './SlotCell';
import { useSlotSheet, type Run, type SlotActions } from './useSlotSheet';

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

/** What the columns of the list say, and what their numbers count from. */
const Columns = styled.div`
  position: sticky;
  top: -2px;
  z-index: 1;
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr) 92px 84px;
  gap: 10px;
  align-items: end;
  padding: 3px 11px;
  background: ${desk.paper};
  border-bottom: 1.5px solid ${desk.ink};
  font-size: 12px;
  line-height: 1.15;
  color: ${desk.inkSoft};
`;

const COUNTED: Readonly<Record<Counting, string>> = {
  zero: 'Number, from 0',
  one: 'Number, from 1',
  label: 'As the unit labels it',
};

export interface SlotView {
  readonly layout: 'grid' | 'list';
  readonly sort: ListSort;
  /** Part of a name or label that the list is narrowed to. */
  readonly find: string;
}

interface Props {
  readonly unit: Unit;
  readonly view: SlotView;
  readonly counting: Counting;
  readonly selected: number;
  /** Slot that the stand-in is on now. */
  readonly on: number | null;
  /** Songs that each slot sounds in, by its id. */
  readonly songs: ReadonlyMap<string, ReadonlySet<string>>;
  /** Counts how often the keyboard was sent to the chosen slot from elsewhere. */
  readonly summons: number;
  readonly actions: SlotActions;
  /** Is kept at what is chosen. */
  readonly run: RefObject<Run>;
}

/** One object for good: with a new one at every turn all cells would be drawn again. */
const DRAG_FROM = { activationConstraint: { distance: 6 } } as const;

const ROW_HEIGHT = { grid: 48, list: 34 } as const;
const HEADING_HEIGHT = 36;

/** A unit's slots: as a grid in its own order, or as a list that can be sorted and narrowed. Only what is in sight is drawn. */
export function SlotSheet({ unit, view, counting, selected, on, songs, summons, actions, run: kept }: Props) {
  const { plan } = unit.profile;
  const { layout } = view;
  const bySlot = useMemo(() => new Map(unit.slots.map((s) => [s.index, s])), [unit.slots]);
  const order = useMemo(
    () => (layout === 'list' ? listOrder(unit, view.sort, view.find, songs) : null),
    [layout, unit, view.sort, view.find, songs],
  );
  const rows = useMemo(
    (): readonly GridRow[] => (order ? order.map((first) => ({ kind: 'slots', first, count: 1 })) : gridRows(plan)),
    [order, plan],
  );
  const columns = order ? 1 : gridColumns(plan);
  const scroller = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (rows[i]!.kind === 'heading' ? HEADING_HEIGHT : ROW_HEIGHT[layout]),
    overscan: 6,
  });
  useEffect(() => virtual.measure(), [layout, virtual]);
  const [wantFocus, setWantFocus] = useState(false);
  useEffect(() => {
    if (summons > 0) setWantFocus(true);
  }, [summons]);
  useEffect(() => {
    const row = rowOf(rows, selected);
    if (row >= 0 && !inSight(virtual, row)) virtual.scrollToIndex(row, { align: 'auto' });
    if (!wantFocus) return;
    grid.current?.querySelector<HTMLElement>(`[data-index="${selected}"]`)?.focus();
    setWantFocus(false);
  }, [rows, selected, wantFocus, virtual]);

  const count = slotCount(plan);
  const beside = (index: number, step: 1 | -1): number => {
    if (!order) return index + step;
    const at = order.indexOf(index);
    return order[Math.max(0, Math.min(order.length - 1, at + step))] ?? index;
  };
  const sheet = useSlotSheet(
    selected,
    {
      count,
      page: columns * 8,
      vertical: (index, step) => (order ? beside(index, step) : verticalNeighbour(rows, index, step)),
      horizontal: (index, step) => (order ? index : beside(index, step)),
    },
    actions,
    () => setWantFocus(true),
  );
  const { run, draft, hands } = sheet;
  useEffect(() => {
    kept.current = { first: run.first, count: run.count };
  }, [kept, run.first, run.count]);

  const sensors = useSensors(useSensor(PointerSensor, DRAG_FROM));
  const drop = ({ active, over }: DragEndEvent): void => {
    const from = (active.data.current as { index: number } | undefined)?.index;
    const to = (over?.data.current as { index: number } | undefined)?.index;
    if (from === undefined || to === undefined || from === to) return;
    const carried = from >= run.first && from < run.first + run.count ? run : { first: from, count: 1 };
    const first = Math.max(0, Math.min(count - carried.count, to - (from - carried.first)));
    actions.onMove(carried.first, carried.count, first);
    hands.choose(to, false);
  };

  const cell = (index: number) => {
    const slot = bySlot.get(index);
    const address = layout === 'list' ? addressOf(plan, index) : undefined;
    return (
      <SlotCell
        key={index}
        layout={layout}
        index={index}
        label={labelOf(plan, index)}
        number={slotNumber(plan, index, counting)}
        name={slot?.name ?? ''}
        named={slot !== undefined}
        songs={slot ? (songs.get(slot.id)?.size ?? 0) : 0}
        on={on === index}
        chosen={index >= run.first && index < run.first + run.count}
        current={index === selected}
        draft={draft?.index === index ? draft.text : null}
        aside={address ? `${plan.bank.send === 'none' ? '' : `${address.bank} · `}${address.program}` : ''}
        hands={hands}
      />
    );
  };

  return (
    <Scroller ref={scroller} onCopy={sheet.onCopy} onPaste={sheet.onPaste}>
      {layout === 'list' && (
        <Columns aria-hidden>
          <span>{COUNTED[counting]}</span>
          <span>Preset</span>
          <span>Songs</span>
          <span>{plan.bank.send === 'none' ? 'Program, from 0' : 'Bank · program, from 0'}</span>
        </Columns>
      )}
      <SlotGrid
        sensors={sensors}
        drop={drop}
        grid={grid}
        unit={unit}
        rows={rows}
        columns={columns}
        virtual={virtual}
        cell={cell}
      />
    </Scroller>
  );
}

interface SlotGridProps {
  readonly sensors: ReturnType<typeof useSensors>;
  readonly drop: ({ active, over }: DragEndEvent) => void;
  readonly grid: RefObject<HTMLDivElement | null>;
  readonly unit: Unit;
  readonly rows: readonly GridRow[];
  readonly columns: number;
  readonly virtual: Virtualizer<HTMLDivElement, Element>;
  readonly cell: (index: number) => ReactNode;
}

/** The slots in rows, as far as they are in sight. */
function SlotGrid({ sensors, drop, grid, unit, rows, columns, virtual, cell }: SlotGridProps) {
  return (
    <DndContext sensors={sensors} onDragEnd={drop} accessibility={NO_SPEECH}>
      <div
        ref={grid}
        data-home
        role="grid"
        aria-label={`Slots of ${unit.name}`}
        aria-multiselectable
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
              {Array.from({ length: row.count }, (_, i) => cell(row.first + i))}
            </Line>
          );
        })}
      </div>
    </DndContext>
  );
}

/** Whether a row is wholly in sight: scrolling to where one is makes the browser lay everything out. */
function inSight(virtual: Virtualizer<HTMLDivElement, Element>, row: number): boolean {
  const item = virtual.measurementsCache[row];
  const { scrollOffset, scrollRect } = virtual;
  if (!item || scrollOffset === null || !scrollRect) return false;
  return item.start >= scrollOffset && item.end <= scrollOffset + scrollRect.height;
}

/** Moving by keyboard has keys of its own here; the screen reader is told of the cells. */
const NO_SPEECH = {
  announcements: {
    onDragStart: () => undefined,
    onDragOver: () => undefined,
    onDragEnd: () => undefined,
    onDragCancel: () => undefined,
  },
  screenReaderInstructions: { draggable: 'Alt and an arrow moves the chosen slots.' },
};
