import {
  DndContext,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
} from '@dnd-kit/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import type { Finding } from '../../../core/checks';
import { plugCable, pullCable, type Port, type Socket, type Unit } from '../../../core/show';
import { wireLoops } from '../../../core/meaning';
import { LanternMark } from '../../components/LanternMark';
import { UnitBadge } from '../../components/UnitBadge';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, font, unitColour } from '../../theme/tokens';
import {
  BOX_HEIGHT,
  PORT_WIDTH,
  UNIT_WIDTH,
  cablePath,
  layOutRig,
  socketPoint,
  type Box,
  type Point,
} from './rigLayout';

const Board = styled.div`
  position: relative;
  margin: 14px 24px 24px;
`;

const Cables = styled.svg`
  position: absolute;
  inset: 0;
  overflow: visible;
  pointer-events: none;
`;

const Thing = styled.button<{ $faint: boolean; $off: boolean }>`
  position: absolute;
  height: ${BOX_HEIGHT}px;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  align-items: center;
  gap: 8px;
  padding: 0 14px 0 12px;
  border: 1.5px solid ${desk.ink};
  background: ${(p) => (p.$off ? desk.sheetDim : desk.sheet)};
  color: ${desk.ink};
  text-align: left;
  cursor: pointer;
  opacity: ${(p) => (p.$faint ? 0.35 : 1)};
  ${(p) => p.$off && 'border-style: dashed;'}
  &[aria-pressed='true'] {
    box-shadow: 0 0 0 3px ${desk.lamp};
  }
  & b {
    display: block;
    font: 700 15px/1.15 ${font.display};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  & small {
    display: block;
    font-size: 12.5px;
    color: ${desk.inkSoft};
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  & small[data-bad] {
    color: ${desk.rust};
    font-weight: 700;
  }
`;

const PortBox = styled(Thing)`
  width: ${PORT_WIDTH}px;
  grid-template-columns: minmax(0, 1fr) auto;
  border-radius: 4px;
  background: ${(p) => (p.$off ? desk.sheetDim : desk.night)};
  color: ${(p) => (p.$off ? desk.inkSoft : desk.nightText)};
  & small {
    color: ${(p) => (p.$off ? desk.inkSoft : desk.nightSoft)};
  }
`;

const UnitBox = styled(Thing)`
  width: ${UNIT_WIDTH}px;
  border-radius: 4px 16px 4px 16px;
`;

const Hole = styled.span<{ $over: boolean; $side: 'give' | 'take' }>`
  position: absolute;
  width: 18px;
  height: 18px;
  margin: -9px;
  border: 2px solid ${desk.ink};
  border-radius: ${(p) => (p.$side === 'give' ? '50%' : '3px')};
  background: ${(p) => (p.$over ? desk.lamp : '#fff')};
  cursor: grab;
  touch-action: none;
  z-index: 2;
`;

const SocketWord = styled.span`
  position: absolute;
  font-size: 10.5px;
  font-weight: 600;
  color: ${desk.inkSoft};
  pointer-events: none;
`;

/** What is chosen on the rig. */
export type Chosen = { readonly kind: 'unit' | 'port'; readonly id: string } | null;

interface Props {
  readonly chosen: Chosen;
  readonly onChoose: (chosen: Chosen) => void;
  readonly findings: readonly Finding[];
  /** Only this player's units stand out; null for all. */
  readonly playerId: string | null;
}

const DRAG_FROM = { activationConstraint: { distance: 4 } } as const;

const socketKey = (s: Socket): string => `${s.of} ${s.id} ${s.socket}`;

/** The rig as it is wired: ports at the left, units behind them, every cable an end of which can be dragged to another socket. */
export function RigDrawingView({ chosen, onChoose, findings, playerId }: Props) {
  const show = useShow();
  const drawing = useMemo(() => layOutRig(show), [show]);
  const looped = useMemo(
    () => new Set(wireLoops(show).flatMap((way) => way.filter((p) => p.at === 'unit').map((p) => p.id))),
    [show],
  );
  const [pull, setPull] = useState<{ from: Point; to: Point } | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, DRAG_FROM));
  const boxes = new Map([...drawing.ports, ...drawing.units].map((b) => [b.id, b]));
  const pointOf = (s: Socket): Point => socketPoint(boxes.get(s.id)!, s);

  const follow = ({ active, delta }: DragMoveEvent): void => {
    const from = pointOf(active.data.current as Socket);
    setPull({ from, to: { x: from.x + delta.x, y: from.y + delta.y } });
  };
  const drop = ({ active, over }: DragEndEvent): void => {
    setPull(null);
    const from = active.data.current as Socket;
    if (over) perform(plugCable(show, from, over.data.current as Socket), 'move a cable');
    else if (from.of === 'unit') {
      const returned = from.socket !== 'in' && show.units.find((u) => u.id === from.id)?.returns !== null;
      if (from.socket === 'in' || returned) {
        perform(pullCable(show, from.id, from.socket === 'in' ? 'input' : 'returns'), 'pull a cable');
      }
    }
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragMove={follow}
      onDragEnd={drop}
      onDragCancel={() => setPull(null)}
    >
      <Board style={{ width: drawing.width, height: drawing.height }} role="group" aria-label="Drawing of the rig">
        <Cables width={drawing.width} height={drawing.height} aria-hidden>
          {drawing.cables.map((cable) => {
            const index = show.units.findIndex((u) => u.id === cable.unitId);
            const loop = looped.has(cable.unitId);
            const shape = cablePath(cable);
            return (
              <g key={`${cable.unitId} ${cable.which}`} fill="none" strokeLinecap="round">
                {!cable.usb && (
                  <path d={shape} stroke={loop ? desk.rust : unitColour(index)} strokeWidth={5} opacity={0.9} />
                )}
                <path
                  d={shape}
                  stroke={cable.usb ? (loop ? desk.rust : unitColour(index)) : desk.paper}
                  strokeWidth={cable.usb ? 2.5 : 1.8}
                  strokeDasharray={cable.usb ? '9 5' : cable.which === 'returns' ? '2 6' : 'none'}
                />
              </g>
            );
          })}
          {pull && (
            <path
              d={`M${pull.from.x} ${pull.from.y} L${pull.to.x} ${pull.to.y}`}
              stroke={desk.lampDeep}
              strokeWidth={3}
              strokeDasharray="6 5"
            />
          )}
        </Cables>
        {show.ports.map((port, i) => (
          <PortView
            key={port.id}
            port={port}
            box={drawing.ports[i]!}
            pressed={chosen?.kind === 'port' && chosen.id === port.id}
            bad={findings.some((f) => f.place.in === 'port' && f.place.portId === port.id)}
            onChoose={() => onChoose({ kind: 'port', id: port.id })}
          />
        ))}
        {show.units.map((unit, i) => (
          <UnitView
            key={unit.id}
            unit={unit}
            index={i}
            box={drawing.units[i]!}
            pressed={chosen?.kind === 'unit' && chosen.id === unit.id}
            faint={playerId !== null && unit.playerId !== playerId}
            bad={findings.some((f) => f.place.in === 'unit' && f.place.unitId === unit.id && f.severity !== 'note')}
            onChoose={() => onChoose({ kind: 'unit', id: unit.id })}
          />
        ))}
      </Board>
    </DndContext>
  );
}

/** A socket's word stands where no cable passes: above or below it, outside the box. */
function wordPlace({ of, socket }: Socket, x: number, y: number): { left?: number; right?: number; top: number } {
  if (of === 'unit' && socket === 'in') return { left: x - 15, top: y - 26 };
  return { left: x + 4, top: socket === 'out' ? y - 26 : y + 8 };
}

/** A socket that a cable end is dragged from or dropped on. By keyboard, the settings beside the drawing do the same. */
function SocketHole({ socket, box }: { readonly socket: Socket; readonly box: Box }) {
  const { x, y } = socketPoint(box, socket);
  const { setNodeRef: drag, listeners } = useDraggable({ id: `from ${socketKey(socket)}`, data: socket });
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: socketKey(socket), data: socket });
  const gives = socket.socket === 'out' || socket.socket === 'thru';
  return (
    <>
      <Hole
        ref={(node) => {
          drag(node);
          dropRef(node);
        }}
        {...listeners}
        title={`${socket.socket}: drag to another socket`}
        $over={isOver}
        $side={gives ? 'give' : 'take'}
        style={{ left: x, top: y }}
      />
      <SocketWord style={wordPlace(socket, x, y)}>{socket.socket}</SocketWord>
    </>
  );
}

interface PortProps {
  readonly port: Port;
  readonly box: Box;
  readonly pressed: boolean;
  readonly bad: boolean;
  readonly onChoose: () => void;
}

function PortView({ port, box, pressed, bad, onChoose }: PortProps) {
  return (
    <>
      <PortBox
        type="button"
        $faint={false}
        $off={!port.active}
        aria-pressed={pressed}
        onClick={onChoose}
        style={{ left: box.x, top: box.y }}
      >
        <span>
          <b>{port.name}</b>{' '}
          <small>
            {port.cable === 'usb' ? 'USB' : '5-pin'}
            {!port.active && ', off'}
            {port.softThru && ', soft thru'}
            {port.splitter && ', splitter'}
          </small>
        </span>
        {bad && <LanternMark mark="cracked" size={20} night={port.active} />}
      </PortBox>
      <SocketHole socket={{ of: 'port', id: port.id, socket: 'out' }} box={box} />
      <SocketHole socket={{ of: 'port', id: port.id, socket: 'in' }} box={box} />
    </>
  );
}

interface UnitProps extends Omit<PortProps, 'port'> {
  readonly unit: Unit;
  readonly index: number;
  readonly faint: boolean;
}

function UnitView({ unit, index, box, pressed, faint, bad, onChoose }: UnitProps) {
  const { channel, listens } = unit;
  const agrees = listens === 'all' || listens === channel;
  return (
    <>
      <UnitBox
        type="button"
        $faint={faint}
        $off={false}
        aria-pressed={pressed}
        onClick={onChoose}
        style={{ left: box.x, top: box.y }}
      >
        <UnitBadge monogram={unit.monogram} index={index} size={26} />
        <span>
          <b>{unit.name}</b>{' '}
          <small {...(agrees ? {} : { 'data-bad': '' })}>
            {agrees
              ? `channel ${channel}${listens === 'all' ? ', hears all' : ''}`
              : `sent ${channel}, hears ${listens}`}
            {unit.splitter && ', splitter'}
          </small>
        </span>
        {bad && <LanternMark mark="cracked" size={22} />}
      </UnitBox>
      <SocketHole socket={{ of: 'unit', id: unit.id, socket: 'in' }} box={box} />
      <SocketHole socket={{ of: 'unit', id: unit.id, socket: 'out' }} box={box} />
      <SocketHole socket={{ of: 'unit', id: unit.id, socket: 'thru' }} box={box} />
    </>
  );
}
