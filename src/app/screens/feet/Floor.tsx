import { Layers, Pin } from 'lucide-react';
import { useRef, type KeyboardEvent, type ReactNode, type RefObject } from 'react';
import styled from 'styled-components';
import type { Controller } from '../../../core/addressing';
import type { ColourName } from '../../../core/show';
import { ColourMark } from '../../features/ColourPick';
import { Unseen } from '../../widgets/shellParts';
import { desk, font } from '../../theme/tokens';

/** What is drawn on one switch. */
export interface Plate {
  readonly id: string;
  readonly label: string;
  /** What it does when it is pressed, and smaller what else it does. */
  readonly name: string;
  readonly others: readonly string[];
  readonly kind: 'tone' | 'other' | 'page' | 'bare';
  /** It stands on every page. */
  readonly everywhere: boolean;
  readonly pinned: boolean;
  /** A colour that stands for something. */
  readonly colour: ColourName | null;
  readonly wrong: boolean;
  readonly lit: boolean;
}

const Board = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $columns }) => $columns}, minmax(0, 1fr));
  gap: 10px;
  padding: 12px;
  border: 1.5px solid ${desk.ink};
  border-radius: 6px 26px 6px 26px;
  background: ${desk.sheetDim};
  touch-action: manipulation;
`;

const Key = styled.button<{ $chosen: boolean; $kind: Plate['kind']; $wrong: boolean }>`
  position: relative;
  display: grid;
  grid-template-rows: auto 1fr auto;
  gap: 4px;
  min-height: 104px;
  padding: 9px 11px 8px;
  border: ${({ $chosen }) => ($chosen ? 3 : 1.5)}px solid ${({ $wrong }) => ($wrong ? desk.rust : desk.ink)};
  border-radius: 5px 20px 5px 20px;
  background: ${({ $chosen, $kind }) => ($chosen ? desk.lampWash : $kind === 'bare' ? 'transparent' : desk.sheet)};
  border-style: ${({ $kind, $chosen }) => ($kind === 'bare' && !$chosen ? 'dashed' : 'solid')};
  color: ${desk.ink};
  text-align: left;
  cursor: pointer;
  user-select: none;
  & > strong {
    align-self: center;
    font: 700 19px/1.12 ${font.display};
    overflow-wrap: anywhere;
    display: -webkit-box;
    -webkit-line-clamp: 3;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }
  & > small {
    font-size: 12.5px;
    line-height: 1.3;
    color: ${desk.inkSoft};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Top = styled.span`
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12.5px;
  font-weight: 600;
  color: ${desk.inkSoft};
`;

/** A switch's own light: full where it is on. */
const Light = styled.i<{ $lit: boolean }>`
  width: 26px;
  height: 8px;
  margin-left: auto;
  border: 1.5px solid ${desk.ink};
  border-radius: 2px 6px 2px 6px;
  background: ${({ $lit }) => ($lit ? desk.lamp : 'transparent')};
`;

interface Props {
  readonly label: string;
  readonly controller: Controller;
  readonly plates: readonly Plate[];
  readonly chosen: ReadonlySet<string>;
  /** Chooses a switch: alone, with those up to it, or besides those that are chosen. */
  readonly onChoose: (id: string, how: 'alone' | 'to' | 'besides') => void;
  /** A key on the chosen switches that the floor does not use itself; true where it was used. */
  readonly onKey: (event: KeyboardEvent<HTMLElement>) => boolean;
  readonly children?: ReactNode;
}

const ARROWS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

type Placed = Controller['switches'][number];

/** The nearest switch in a direction; undefined at the edge. */
export function neighbour(
  switches: readonly Placed[],
  from: Placed,
  rows: number,
  columns: number,
): Placed | undefined {
  const ahead = switches.filter(
    (s) =>
      (rows !== 0 && Math.sign(s.row - from.row) === rows) ||
      (columns !== 0 && s.row === from.row && Math.sign(s.column - from.column) === columns),
  );
  const distance = (s: Placed): number => Math.abs(s.row - from.row) * 100 + Math.abs(s.column - from.column);
  return ahead.toSorted((a, b) => distance(a) - distance(b))[0];
}

/** The controller as it lies on the floor: switches in their places. Arrows go from one to the next, with Shift they take more. */
export function Floor({ label, controller, plates, chosen, onChoose, onKey, children }: Props) {
  const board = useRef<HTMLDivElement>(null);
  /** The keyboard goes on by an arrow, which says itself what is chosen. */
  const walking = useRef(false);
  const { switches } = controller;
  const columns = Math.max(...switches.map((s) => s.column)) + 1;
  const byId = new Map(plates.map((p) => [p.id, p]));
  const [first] = chosen;
  const tabStop = first ?? switches[0]!.id;
  const onKeyDown = (event: KeyboardEvent<HTMLElement>, at: Placed): void => {
    if (onKey(event)) {
      event.preventDefault();
      return;
    }
    const way = event.altKey || event.ctrlKey || event.metaKey ? undefined : ARROWS[event.key];
    const next = way && neighbour(switches, at, ...way);
    if (!next) return;
    event.preventDefault();
    walking.current = true;
    board.current?.querySelector<HTMLElement>(`[data-switch="${next.id}"]`)?.focus();
    walking.current = false;
    onChoose(next.id, event.shiftKey ? 'besides' : 'alone');
  };
  return (
    <Board ref={board} data-home $columns={columns} role="group" aria-label={label}>
      {switches
        .toSorted((a, b) => a.row - b.row || a.column - b.column)
        .map((placed) => {
          const plate = byId.get(placed.id)!;
          return (
            <SwitchKey
              key={placed.id}
              placed={placed}
              tabStop={tabStop}
              chosen={chosen}
              plate={plate}
              onChoose={onChoose}
              walking={walking}
              onKeyDown={onKeyDown}
              controller={controller}
            />
          );
        })}
      {children}
    </Board>
  );
}

interface SwitchKeyProps {
  readonly placed: Placed;
  readonly tabStop: string;
  readonly chosen: ReadonlySet<string>;
  readonly plate: Plate;
  readonly onChoose: (id: string, how: 'alone' | 'to' | 'besides') => void;
  readonly walking: RefObject<boolean>;
  readonly onKeyDown: (event: KeyboardEvent<HTMLElement>, at: Placed) => void;
  readonly controller: Controller;
}

/** A switch of the drawn floor. */
function SwitchKey({ placed, tabStop, chosen, plate, onChoose, walking, onKeyDown, controller }: SwitchKeyProps) {
  return (
    <Key
      type="button"
      data-switch={placed.id}
      tabIndex={placed.id === tabStop ? 0 : -1}
      aria-pressed={chosen.has(placed.id)}
      $chosen={chosen.has(placed.id)}
      $kind={plate.kind}
      $wrong={plate.wrong}
      style={{ gridRow: placed.row + 1, gridColumn: placed.column + 1 }}
      onClick={(e) => onChoose(placed.id, e.shiftKey ? 'to' : e.ctrlKey || e.metaKey ? 'besides' : 'alone')}
      onFocus={(e) => {
        // Whoever comes here by keyboard means this switch.
        if (!walking.current && !chosen.has(placed.id) && e.target.matches(':focus-visible')) {
          onChoose(placed.id, 'alone');
        }
      }}
      onKeyDown={(e) => onKeyDown(e, placed)}
    >
      <Top>
        {plate.colour && <ColourMark $colour={plate.colour} style={{ height: 14 }} title={plate.colour} />}
        {`${plate.label}:`}
        {plate.everywhere && <Layers size={14} aria-label="on every page" />}
        {plate.pinned && <Pin size={13} aria-label="pinned" />}
        {controller.lights && <Light $lit={plate.lit} />}
      </Top>
      <strong>{plate.name || <Unseen>nothing</Unseen>}</strong>
      <small>{plate.others.join(' · ')}</small>
    </Key>
  );
}
