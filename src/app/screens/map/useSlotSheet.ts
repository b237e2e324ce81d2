import { useLayoutEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';

/** What a sheet of slots does to the map. */
export interface SlotActions {
  readonly onSelect: (index: number) => void;
  readonly onName: (index: number, name: string) => void;
  readonly onClear: (first: number, count: number) => void;
  readonly onMove: (first: number, count: number, to: number) => void;
  readonly onPaste: (first: number, text: string) => void;
  readonly onSend: (index: number) => void;
  /** Text of a run of slots, for other programs. */
  readonly textOf: (first: number, count: number) => string;
}

export interface Draft {
  readonly index: number;
  readonly text: string;
}

/** Slots from the first to the last of a selection. */
export interface Run {
  readonly first: number;
  readonly count: number;
}

/** What cells need to answer keys and pointer; the same object as long as the sheet lives. */
export interface SlotHands {
  readonly choose: (index: number, extend: boolean) => void;
  readonly edit: (index: number, text: string) => void;
  readonly commit: (next: number | null) => void;
  readonly cellKey: (event: KeyboardEvent, index: number) => void;
  readonly draftKey: (event: KeyboardEvent, index: number) => void;
}

interface Layout {
  readonly count: number;
  /** Slots that a page key passes. */
  readonly page: number;
  /** The slot above or below in this layout. */
  readonly vertical: (index: number, step: 1 | -1) => number;
  /** The slot before or after. */
  readonly horizontal: (index: number, step: 1 | -1) => number;
}

export const runOf = (anchor: number, selected: number): Run => ({
  first: Math.min(anchor, selected),
  count: Math.abs(selected - anchor) + 1,
});

/**
 * How a sheet of slots is worked: one is chosen, Shift reaches from there, typing names,
 * Alt and an arrow moves what is chosen. The same for every layout of the slots.
 */
export function useSlotSheet(selected: number, layout: Layout, actions: SlotActions, focus: () => void) {
  // Where the run begins, for the slot that it ends at; when another is chosen from elsewhere, the run is over.
  const [anchor, setAnchor] = useState({ at: selected, end: selected });
  const [draft, setDraft] = useState<Draft | null>(null);
  const from = anchor.end === selected ? anchor.at : selected;
  const run = runOf(from, selected);

  const choose = (index: number, extend: boolean, base = from): void => {
    const to = Math.max(0, Math.min(layout.count - 1, index));
    setAnchor({ at: extend ? base : to, end: to });
    actions.onSelect(to);
    focus();
  };
  const edit = (index: number, text: string): void => setDraft({ index, text });
  const commit = (next: number | null): void => {
    if (draft) actions.onName(draft.index, draft.text);
    setDraft(null);
    if (next !== null) choose(next, false);
  };
  const shift = (moved: Run, by: number): void => {
    const first = Math.max(0, Math.min(layout.count - moved.count, moved.first + by));
    if (first === moved.first) return;
    actions.onMove(moved.first, moved.count, first);
    const last = first + moved.count - 1;
    const down = from <= selected;
    setAnchor(down ? { at: first, end: last } : { at: last, end: first });
    actions.onSelect(down ? last : first);
    focus();
  };

  /** What keys in a cell are about. A cell can have the keyboard without being chosen, when something else gave it. */
  const ownRun = (index: number): Run => (index === selected ? run : { first: index, count: 1 });
  const runUnder = (event: ClipboardEvent): Run => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-index]');
    return ownRun(cell ? Number(cell.dataset.index) : selected);
  };
  const cellKey = (event: KeyboardEvent, index: number): void => {
    const moves: Readonly<Record<string, () => number>> = {
      ArrowRight: () => layout.horizontal(index, 1),
      ArrowLeft: () => layout.horizontal(index, -1),
      ArrowDown: () => layout.vertical(index, 1),
      ArrowUp: () => layout.vertical(index, -1),
      Home: () => 0,
      End: () => layout.count - 1,
      PageDown: () => index + layout.page,
      PageUp: () => index - layout.page,
    };
    const own = ownRun(index);
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    const to = moves[event.key];
    if (to && event.altKey && event.key.startsWith('Arrow')) shift(own, to() - index);
    else if (to) choose(to(), event.shiftKey, index === selected ? from : index);
    else if (event.key === 'Enter' || event.key === 'F2') edit(index, actions.textOf(index, 1));
    else if (event.key === ' ') actions.onSend(index);
    else if (event.key === 'Delete' || event.key === 'Backspace') actions.onClear(own.first, own.count);
    else if (event.key.length === 1 && plain) edit(index, event.key);
    else return;
    event.preventDefault();
  };
  const draftKey = (event: KeyboardEvent, index: number): void => {
    event.stopPropagation();
    if (event.nativeEvent.isComposing) return;
    if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      commit(index + (event.shiftKey ? -1 : 1));
    } else if (event.key === 'Escape') {
      setDraft(null);
      choose(index, false);
    }
  };
  const onCopy = (event: ClipboardEvent): void => {
    if (draft) return;
    const own = runUnder(event);
    event.clipboardData.setData('text/plain', actions.textOf(own.first, own.count));
    event.preventDefault();
  };
  const onPaste = (event: ClipboardEvent): void => {
    if (draft) return;
    event.preventDefault();
    actions.onPaste(runUnder(event).first, event.clipboardData.getData('text/plain'));
  };

  // Cells keep one object for good, so that only those that changed are drawn again.
  const latest = useRef<SlotHands | null>(null);
  useLayoutEffect(() => {
    latest.current = { choose, edit, commit, cellKey, draftKey };
  });
  const [hands] = useState<SlotHands>(() => ({
    choose: (index, extend) => latest.current?.choose(index, extend),
    edit: (index, text) => latest.current?.edit(index, text),
    commit: (next) => latest.current?.commit(next),
    cellKey: (event, index) => latest.current?.cellKey(event, index),
    draftKey: (event, index) => latest.current?.draftKey(event, index),
  }));
  return { run, draft, hands, onCopy, onPaste };
}
