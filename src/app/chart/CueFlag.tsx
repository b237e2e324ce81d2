import { memo, useRef, useState, type PointerEvent } from 'react';
import styled from 'styled-components';
import { OPENING_CUE } from '../../core/meaning';
import type { Cue } from '../../core/show';
import { LanternMark, lanternWords } from '../widgets/LanternMark';
import { useCueMark } from '../state/marks';
import { desk, font } from '../theme/tokens';

const Flag = styled.button<{ $selected: boolean; $muted: boolean; $ground: string; $size: number }>`
  position: absolute;
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 0 8px 0 3px;
  border: 1.5px solid ${(p) => (p.$selected ? desk.tide : desk.ink)};
  border-left-width: 4px;
  border-radius: 0 10px 3px 0;
  background: ${(p) => (p.$selected ? desk.tideWash : p.$ground)};
  color: ${desk.ink};
  font: 700 ${(p) => p.$size}px / 1 ${font.display};
  text-align: left;
  cursor: grab;
  touch-action: none;
  opacity: ${(p) => (p.$muted ? 0.5 : 1)};
  text-decoration: ${(p) => (p.$muted ? 'line-through' : 'none')};
  z-index: ${(p) => (p.$selected ? 2 : 1)};
  box-shadow: ${(p) => (p.$selected ? `0 0 0 2px ${desk.tide}` : 'none')};
  & > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

interface OpeningProps {
  readonly songId: string;
  /** Of the tone. */
  readonly name: string;
  readonly top: number;
  readonly height: number;
  /** Of its text, in pixels. */
  readonly size: number;
  readonly room: number;
  readonly onSelect: () => void;
}

/** What the song opens with, in front of everything else. It stays where it is. */
export const OpeningFlag = memo(function OpeningFlag({
  songId,
  name,
  top,
  height,
  size,
  room,
  onSelect,
}: OpeningProps) {
  const mark = useCueMark(songId, OPENING_CUE);
  if (room < 40) return null;
  return (
    <Flag
      type="button"
      aria-label={`Opening ${name}, ${lanternWords(mark)}`}
      title={`The song opens with ${name}`}
      $selected={false}
      $size={size}
      $muted={false}
      $ground={mark === 'cracked' ? desk.rustWash : mark === 'lit' ? desk.lampWash : desk.field}
      style={{
        left: 0,
        top,
        height,
        maxWidth: room,
        cursor: 'pointer',
        borderStyle: 'dashed',
        borderLeftStyle: 'solid',
      }}
      onClick={onSelect}
    >
      <LanternMark mark={mark} size={Math.round(size * 1.35)} silent />
      <span>{name}</span>
    </Flag>
  );
});

/** Pixels that a pointer moves before it is a drag. */
const DRAG_FROM = 4;

/** Keys that step the value a cue sets, and by how many steps. */
const STEPS: Readonly<Record<string, number>> = { '+': 1, '-': -1, PageUp: 10, PageDown: -10 };

interface Props {
  readonly songId: string;
  readonly cue: Cue;
  /** What it places, and where it stands, in words. */
  readonly name: string;
  readonly at: string;
  readonly x: number;
  readonly top: number;
  readonly height: number;
  /** Of its text, in pixels. */
  readonly size: number;
  /** Pixels until the next cue. */
  readonly room: number;
  readonly selected: boolean;
  /** With `add`, beside what is chosen already. */
  readonly onSelect: (cueId: string, add: boolean) => void;
  /** Let go after a drag; page pixels of the place. */
  readonly onDrop: (cueId: string, x: number, y: number) => void;
  readonly onNudge: (cueId: string, steps: number) => void;
  readonly onRemove: (cueId: string) => void;
  /** A letter or figure was typed on it. */
  readonly onType: (cueId: string, text: string) => void;
  /** The value that it sets is stepped. */
  readonly onStep: (cueId: string, steps: number) => void;
}

/** A cue on its place: lantern and tone. Drag or Alt+arrows move it, Delete takes it away. */
export const CueFlag = memo(function CueFlag({
  songId,
  cue,
  name,
  at,
  x,
  top,
  height,
  size,
  room,
  selected,
  onSelect,
  onDrop,
  onNudge,
  onRemove,
  onType,
  onStep,
}: Props) {
  const mark = useCueMark(songId, cue.id);
  const start = useRef<{ readonly x: number; readonly y: number } | null>(null);
  const [shift, setShift] = useState<{ readonly x: number; readonly y: number } | null>(null);

  const onPointerDown = (event: PointerEvent<HTMLButtonElement>): void => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { x: event.clientX, y: event.clientY };
  };
  const onPointerMove = (event: PointerEvent<HTMLButtonElement>): void => {
    if (!start.current) return;
    const moved = { x: event.clientX - start.current.x, y: event.clientY - start.current.y };
    if (shift || Math.hypot(moved.x, moved.y) > DRAG_FROM) setShift(moved);
  };
  const onPointerUp = (event: PointerEvent<HTMLButtonElement>): void => {
    start.current = null;
    if (!shift) return;
    // The flag's left edge, as it was dragged, is the place.
    onDrop(cue.id, event.currentTarget.getBoundingClientRect().left, event.clientY);
    setShift(null);
  };

  return (
    <Flag
      type="button"
      aria-label={`${at} ${name}, ${cue.muted ? 'muted' : lanternWords(mark)}`}
      aria-pressed={selected}
      data-cue={cue.id}
      title={name}
      $selected={selected}
      $size={size}
      $muted={cue.muted}
      $ground={mark === 'cracked' ? desk.rustWash : mark === 'lit' ? desk.lampWash : desk.field}
      style={{
        left: x,
        top,
        height,
        maxWidth: Math.max(30, room),
        transform: shift ? `translate(${shift.x}px, ${shift.y}px)` : undefined,
      }}
      onClick={(event) => onSelect(cue.id, event.shiftKey || event.ctrlKey || event.metaKey)}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onKeyDown={(event) => {
        if (event.key === 'Delete' || event.key === 'Backspace') onRemove(cue.id);
        else if (event.altKey && event.key === 'ArrowLeft') onNudge(cue.id, -1);
        else if (event.altKey && event.key === 'ArrowRight') onNudge(cue.id, 1);
        else if (event.ctrlKey || event.metaKey || event.altKey) return;
        else if (STEPS[event.key] !== undefined && cue.action.kind === 'control') onStep(cue.id, STEPS[event.key]!);
        // What is typed takes its place.
        else if (/^[^\s?]$/u.test(event.key)) onType(cue.id, event.key);
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <LanternMark mark={mark} size={Math.round(size * 1.35)} silent />
      <span>{name}</span>
    </Flag>
  );
});
