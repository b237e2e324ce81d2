import { useRef, type KeyboardEvent, type Ref } from 'react';
import styled from 'styled-components';
import { desk, font } from '../../theme/tokens';

const List = styled.div<{ $over: boolean }>`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  ${(p) =>
    p.$over &&
    `
    position: absolute;
    top: 100%;
    left: 0;
    z-index: 3;
    width: max-content;
    max-width: 560px;
    margin-top: 4px;
    padding: 7px;
    border: 1.5px solid ${desk.ink};
    border-radius: 3px 12px 3px 12px;
    background: ${desk.sheet};
  `}
  & button {
    padding: 3px 9px;
    border: 1.5px solid ${desk.line};
    border-radius: 3px 9px 3px 9px;
    background: ${desk.field};
    color: ${desk.ink};
    font: 600 13px/1.4 ${font.bytes};
    cursor: pointer;
  }
  & button:hover {
    background: ${desk.tideWash};
  }
`;

interface Props {
  readonly lines: readonly string[];
  readonly onTake: (line: string) => void;
  /** Gives the keyboard back to the field. */
  readonly onBack: () => void;
  /** It lies over what is below, in place of moving it. */
  readonly over?: boolean;
  readonly listRef?: Ref<HTMLDivElement>;
}

/** Gives the keyboard from a field to the first of the lines offered under it, where there is one. */
export function toFirst(list: HTMLElement | null, event: KeyboardEvent): boolean {
  const first = event.key === 'ArrowDown' && !event.nativeEvent.isComposing ? list?.querySelector('button') : null;
  if (!first) return false;
  event.preventDefault();
  first.focus();
  return true;
}

/** What a line of the structure may become: taken by pointer, or with the arrow down and Enter. */
export function Completions({ lines, onTake, onBack, over = false, listRef }: Props) {
  const buttons = useRef<(HTMLButtonElement | null)[]>([]);
  if (lines.length === 0) return null;
  const onKey = (event: KeyboardEvent, i: number): void => {
    const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
    if (event.key === 'Escape' || (step === -1 && i === 0)) onBack();
    else if (step === undefined) return;
    else buttons.current[Math.min(lines.length - 1, i + step)]?.focus();
    event.preventDefault();
  };
  return (
    <List ref={listRef} role="group" aria-label="Ways to go on" $over={over}>
      {lines.map((line, i) => (
        <button
          key={line}
          type="button"
          ref={(el) => {
            buttons.current[i] = el;
          }}
          onPointerDown={(e) => e.preventDefault()}
          onClick={() => onTake(line)}
          onKeyDown={(e) => onKey(e, i)}
        >
          {line}
        </button>
      ))}
    </List>
  );
}
