import { useDraggable, useDroppable } from '@dnd-kit/core';
import styled from 'styled-components';
import type { Port, Socket, Unit } from '../../../core/show';
import { LanternMark } from '../../widgets/LanternMark';
import { UnitBadge } from '../../widgets/UnitBadge';
import { desk, font } from '../../theme/tokens';
import { BOX_HEIGHT, PORT_WIDTH, UNIT_WIDTH, socketPoint, type Box } from './rigLayout';

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
  background: ${(p) => (p.$over ? desk.lamp : desk.field)};
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

const socketKey = (s: Socket): string => `${s.of} ${s.id} ${s.socket}`;

/** A socket's word stands where no cable passes: above or below it, outside the box. */
function wordPlace({ of, socket }: Socket, x: number, y: number): { left?: number; right?: number; top: number } {
  if (of === 'unit' && socket === 'in') return { left: x - 15, top: y - 26 };
  return { left: x + 4, top: socket === 'out' ? y - 26 : y + 8 };
}

/** A socket that a cable end is dragged from or dropped on. By keyboard, the settings beside the drawing do the same. */
function SocketHole({ socket, of, box }: { readonly socket: Socket; readonly of: string; readonly box: Box }) {
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
        role="img"
        aria-label={`${of}, ${socket.socket}`}
        title={`${of}, ${socket.socket}: drag to another socket`}
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

export function PortView({ port, box, pressed, bad, onChoose }: PortProps) {
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
      <SocketHole socket={{ of: 'port', id: port.id, socket: 'out' }} of={`port ${port.name}`} box={box} />
      <SocketHole socket={{ of: 'port', id: port.id, socket: 'in' }} of={`port ${port.name}`} box={box} />
    </>
  );
}

interface UnitProps extends Omit<PortProps, 'port'> {
  readonly unit: Unit;
  readonly index: number;
  readonly faint: boolean;
}

export function UnitView({ unit, index, box, pressed, faint, bad, onChoose }: UnitProps) {
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
      <SocketHole socket={{ of: 'unit', id: unit.id, socket: 'in' }} of={unit.name} box={box} />
      <SocketHole socket={{ of: 'unit', id: unit.id, socket: 'out' }} of={unit.name} box={box} />
      <SocketHole socket={{ of: 'unit', id: unit.id, socket: 'thru' }} of={unit.name} box={box} />
    </>
  );
}
