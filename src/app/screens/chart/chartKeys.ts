import type { KeyboardEvent } from 'react';
import { songTime, type Show, type Song } from '../../../core/show';
import { barAt, type Ticks } from '../../../core/time';
import { lineOf, tickAtX, xOf, type ChartLine } from '../../chart/layout';
import { TONE_INPUT } from './PlaceLine';
import { snapped, type Snap } from './snap';
import type { ChartActs } from './chartActs';
import type { Chosen } from './useChosen';

interface Needs {
  readonly show: Show;
  readonly song: Song;
  readonly caret: Ticks;
  readonly snapTo: Snap;
  readonly lines: readonly ChartLine[];
  readonly chosen: Chosen;
  readonly acts: ChartActs;
}

/** The keys of a chart that has the focus itself: the caret's ways, core tones, copy and paste. */
export function onChartKey(event: KeyboardEvent<HTMLElement>, needs: Needs): void {
  const { song, chosen, acts } = needs;
  const [firstId] = chosen.cues;
  if (!(event.ctrlKey || event.metaKey)) {
    onCaretKey(event, needs);
    return;
  }
  if (event.key === 'c' && firstId !== undefined) acts.copy();
  else if (event.key === 'x' && firstId !== undefined) {
    acts.copy();
    acts.remove(firstId);
  } else if (event.key === 'v') acts.paste();
  else if (event.key === 'a') chosen.choose(new Set(song.cues.map((c) => c.id)));
  else {
    onCaretKey(event, needs);
    return;
  }
  event.preventDefault();
}

function onCaretKey(event: KeyboardEvent<HTMLElement>, { show, song, caret, snapTo, lines, acts }: Needs): void {
  const paper = event.currentTarget;
  if (event.target !== paper) return;
  const { bars } = songTime(song);
  const i = lineOf(lines, caret);
  const vertical = (by: number): Ticks => {
    const to = lines[Math.max(0, Math.min(lines.length - 1, i + by))]!;
    return snapped(song, tickAtX(to, Math.min(xOf(lines[i]!, caret), to.width - 1)), snapTo);
  };
  const moves: Readonly<Record<string, () => Ticks>> = {
    ArrowRight: () => acts.step(caret, 1),
    ArrowLeft: () => acts.step(caret, -1),
    ArrowDown: () => vertical(1),
    ArrowUp: () => vertical(-1),
    Home: () => (event.ctrlKey ? 0 : lines[i]!.tick),
    End: () => (event.ctrlKey ? barAt(bars, song.bars).tick : lines[i]!.bars.at(-1)!.tick),
  };
  const to = moves[event.key];
  const core = /^[1-9]$/.test(event.key) ? show.core[Number(event.key) - 1] : undefined;
  if (to) acts.moveCaret(to());
  else if (core !== undefined) {
    acts.place({ kind: 'tone', toneId: core, reload: false }, caret);
    paper.focus();
  } else if (event.key === 'Enter') document.getElementById(TONE_INPUT)?.focus();
  else return;
  event.preventDefault();
}
