import {
  DndContext,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type Active,
  type DndContextProps,
  type DragEndEvent,
  type DragMoveEvent,
  type Over,
} from '@dnd-kit/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import type { Finding } from '../../../core/checks';
import { indexShow, plugCable, pullCable, type Show, type Socket } from '../../../core/show';
import { wireLoops } from '../../../core/meaning';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk, unitColour } from '../../theme/tokens';
import { cablePath, layOutRig, socketPoint, type Point, type RigDrawing } from './rigLayout';
import { PortView, UnitView } from './RigBoxes';

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
      accessibility={speech(show)}
    >
      <Board style={{ width: drawing.width, height: drawing.height }} role="group" aria-label="Drawing of the rig">
        <CableLines drawing={drawing} looped={looped} pull={pull} />
        <PortBoxes drawing={drawing} chosen={chosen} findings={findings} onChoose={onChoose} />
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

/** What is dragged and where it hangs, told by the names on the boxes. */
function speech(show: Show): NonNullable<DndContextProps['accessibility']> {
  const { ports, units } = indexShow(show);
  const name = ({ of, id, socket }: Socket): string =>
    `${(of === 'port' ? ports : units).get(id)?.name ?? 'a box'}, ${socket}`;
  const of = (end: Active | Over): string => name(end.data.current as Socket);
  return {
    announcements: {
      onDragStart: ({ active }) => `A cable end is taken at ${of(active)}.`,
      onDragOver: ({ over }) => (over ? `Over ${of(over)}.` : 'Over no socket.'),
      onDragEnd: ({ active, over }) =>
        over ? `From ${of(active)} to ${of(over)}.` : `The cable end of ${of(active)} hangs in no socket.`,
      onDragCancel: ({ active }) => `The cable end of ${of(active)} stays where it was.`,
    },
    screenReaderInstructions: { draggable: 'The list of cables beside the drawing is worked with the keyboard.' },
  };
}

interface PortBoxesProps {
  readonly drawing: RigDrawing;
  readonly chosen: Chosen;
  readonly findings: readonly Finding[];
  readonly onChoose: (chosen: Chosen) => void;
}

function PortBoxes({ drawing, chosen, findings, onChoose }: PortBoxesProps) {
  const show = useShow();
  return (
    <>
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
    </>
  );
}

interface CableLinesProps {
  readonly drawing: RigDrawing;
  readonly looped: Set<string>;
  readonly pull: { from: Point; to: Point } | null;
}

/** The cables of the drawing. */
function CableLines({ drawing, looped, pull }: CableLinesProps) {
  const show = useShow();
  return (
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
  );
}
