import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { aimOf } from '../../../core/meaning';
import { setTonePart, type Tone, type Unit } from '../../../core/show';
import { UnitBadge } from '../../widgets/UnitBadge';
import { audition, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { NameCell, PartCell } from './ToneCells';

const Scroller = styled.div`
  overflow: auto;
  min-height: 0;
  min-width: 0;
  border-top: 1.5px solid ${desk.ink};
`;

const NAME_WIDTH = 196;

const CELL_WIDTH = 138;

const ROW_HEIGHT = 62;

const Row = styled.div`
  display: grid;
  position: absolute;
  left: 0;
  top: 0;
  height: ${ROW_HEIGHT}px;
`;

const HeadRow = styled.div`
  display: grid;
  position: sticky;
  top: 0;
  z-index: 3;
  height: 40px;
  background: ${desk.paper};
  border-bottom: 1.5px solid ${desk.ink};
  & > div {
    display: flex;
    align-items: center;
    gap: 7px;
    padding: 0 8px;
    font: 700 14px/1.1 ${font.display};
    overflow: hidden;
  }
  & > div:first-child {
    position: sticky;
    left: 0;
    background: ${desk.paper};
    padding-left: 16px;
  }
`;

/** A cell of the sheet: a tone and, unless its name is meant, a unit. */
export interface ToneCell {
  readonly toneId: string;
  readonly unitId: string | null;
}

interface Props {
  readonly tones: readonly Tone[];
  readonly units: readonly Unit[];
  readonly chosen: ToneCell | null;
  readonly onChoose: (cell: ToneCell) => void;
  /** Enter on a cell: to what it is edited with. */
  readonly onOpen: () => void;
}

/** Tones against units. Arrows move, Enter edits, Space sends, Delete leaves the unit out; Ctrl C and V copy a cell to another tone. */
export function ToneSheet({ tones, units, chosen, onChoose, onOpen }: Props) {
  const show = useShow();
  const scroller = useRef<HTMLDivElement>(null);
  const copied = useRef<{ unitId: string; toneId: string } | null>(null);
  const wantFocus = useRef(false);
  const virtual = useVirtualizer({
    count: tones.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 4,
  });
  const columns = `${NAME_WIDTH}px repeat(${units.length}, ${CELL_WIDTH}px)`;
  const width = NAME_WIDTH + units.length * CELL_WIDTH;
  const rowAt = tones.findIndex((t) => t.id === chosen?.toneId);
  const columnAt = units.findIndex((u) => u.id === chosen?.unitId);
  useEffect(() => {
    if (rowAt >= 0) virtual.scrollToIndex(rowAt, { align: 'auto' });
    if (!wantFocus.current) return;
    const cell = scroller.current?.querySelector<HTMLElement>('[aria-selected="true"]');
    if (!cell) return;
    cell.focus({ preventScroll: true });
    cell.scrollIntoView({ inline: 'nearest', block: 'nearest' });
    wantFocus.current = false;
  }, [rowAt, columnAt, virtual]);
  const go = (row: number, column: number): void => {
    const tone = tones[Math.max(0, Math.min(tones.length - 1, row))];
    const unit = column < 0 ? null : units[Math.min(units.length - 1, column)];
    if (!tone) return;
    wantFocus.current = true;
    onChoose({ toneId: tone.id, unitId: unit?.id ?? null });
  };
  const onKey = (event: KeyboardEvent, tone: Tone, unit: Unit | null): void => {
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [8, 0],
      PageUp: [-8, 0],
    };
    const move = moves[event.key];
    const command = event.ctrlKey || event.metaKey;
    const part = unit && tone.parts.find((p) => p.unitId === unit.id);
    if (move) go(rowAt + move[0], Math.max(-1, columnAt + move[1]));
    else if (event.key === 'Enter') onOpen();
    else if (event.key === ' ' && unit && part) void audition(unit.id, aimOf(unit, part));
    else if (event.key === 'Delete' && unit) {
      perform(setTonePart(show, tone.id, unit.id, null), `leave ${unit.name} out of ${tone.name}`);
    } else if (command && event.key === 'c' && unit) copied.current = { unitId: unit.id, toneId: tone.id };
    else if (command && event.key === 'v' && unit && copied.current?.unitId === unit.id) {
      const from = show.tones.find((t) => t.id === copied.current?.toneId);
      const source = from?.parts.find((p) => p.unitId === unit.id) ?? null;
      perform(setTonePart(show, tone.id, unit.id, source), `copy ${unit.name} to ${tone.name}`);
    } else return;
    event.preventDefault();
  };
  return (
    <Scroller ref={scroller}>
      <div data-home role="grid" aria-label="Tones against units" aria-rowcount={tones.length + 1} style={{ width }}>
        <HeadRow role="row" style={{ gridTemplateColumns: columns }}>
          <div role="columnheader">Tone</div>
          {units.map((u) => (
            <div key={u.id} role="columnheader" title={u.name}>
              <UnitBadge monogram={u.monogram} index={show.units.indexOf(u)} size={20} />
              {u.name}
            </div>
          ))}
        </HeadRow>
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const tone = tones[item.index]!;
            return (
              <ToneRow
                key={tone.id}
                item={item}
                columns={columns}
                width={width}
                tone={tone}
                rowAt={rowAt}
                columnAt={columnAt}
                chosen={chosen}
                go={go}
                onKey={onKey}
                units={units}
              />
            );
          })}
        </div>
      </div>
    </Scroller>
  );
}

interface ToneRowProps {
  readonly item: VirtualItem;
  readonly columns: string;
  readonly width: number;
  readonly tone: Tone;
  readonly rowAt: number;
  readonly columnAt: number;
  readonly chosen: ToneCell | null;
  readonly go: (row: number, column: number) => void;
  readonly onKey: (event: KeyboardEvent, tone: Tone, unit: Unit | null) => void;
  readonly units: readonly Unit[];
}

/** A tone with what it says of each unit. */
function ToneRow({ item, columns, width, tone, rowAt, columnAt, chosen, go, onKey, units }: ToneRowProps) {
  return (
    <Row
      role="row"
      aria-rowindex={item.index + 2}
      style={{ gridTemplateColumns: columns, width, transform: `translateY(${item.start}px)` }}
    >
      <NameCell
        tone={tone}
        selected={item.index === rowAt && columnAt < 0}
        first={chosen === null && item.index === 0}
        onClick={() => go(item.index, -1)}
        onKey={(e) => onKey(e, tone, null)}
      />
      {units.map((unit, column) => (
        <PartCell
          key={unit.id}
          tone={tone}
          unit={unit}
          selected={item.index === rowAt && column === columnAt}
          onClick={() => go(item.index, column)}
          onKey={(e) => onKey(e, tone, unit)}
        />
      ))}
    </Row>
  );
}
