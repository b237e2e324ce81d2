import {
  actionCue,
  changeCue,
  exchangeActions,
  indexShow,
  newSweep,
  pasteCues,
  placeCue,
  putSweep,
  removeCues,
  shiftCues,
  songTime,
  stepValues,
  tonesOn,
  type sweepable,
  type Edit,
  type Show,
  type Song,
} from '../../../core/show';
import { CLOCK_TICKS } from '../../../core/clock';
import { barAt, barOfTick, formatPosition, type Ticks } from '../../../core/time';
import { cueWords } from '../../../wording';
import type { ChartLine } from '../../chart/layout';
import { tickAtX } from '../../chart/layout';
import { setCaret } from '../../state/caret';
import { newId, perform } from '../../state/desk';
import { useApp } from '../../state/store';
import { useCueClipboard } from './cueClipboard';
import { wantedOf, type Placeable, type Wanted } from './placeables';
import type { Twice } from './TwiceDialog';
import { snapped, type Snap } from './snap';
import type { Chosen } from './useChosen';

interface Needs {
  readonly show: Show;
  readonly song: Song;
  readonly caret: Ticks;
  readonly snapTo: Snap;
  /** Pixels a quarter, as far as steps of a tick are wanted. */
  readonly fine: boolean;
  readonly lines: readonly ChartLine[];
  readonly chosen: Chosen;
  readonly say: (text: string) => void;
  /** Asks whether a tone takes the place of one that stands there. */
  readonly ask: (twice: Twice | null) => void;
  readonly showLine: (at: Ticks) => void;
  readonly focus: () => void;
}

/** What can be done on a chart, whatever asks for it: keys, pointer or buttons. */
export function chartActs({ show, song, caret, snapTo, fine, lines, chosen, say, ask, showLine, focus }: Needs) {
  const { bars } = songTime(song);
  const list = song.cues.filter((c) => chosen.cues.has(c.id));
  const moveCaret = (at: Ticks): void => {
    setCaret(song.id, at);
    say(formatPosition(bars, at, song.bars));
    showLine(at);
  };
  /** With the tone that is made behind the scenes it is one step. */
  const together = (edits: readonly Edit[], edit: Edit | null): Edit | null =>
    edit && edits.length > 0 ? { kind: 'group', edits: [...edits, edit] } : edit;
  const put = ({ action, edits, name }: Wanted, at: Ticks): void => {
    const id = newId();
    perform(together(edits, placeCue(show, song.id, actionCue(id, at, action))), `place ${name}`);
    setCaret(song.id, at);
    showLine(at);
    chosen.choose(new Set([id]));
    ask(null);
    say(`${name} placed at ${formatPosition(bars, at, song.bars)}`);
  };
  const wantedNow = (does: Placeable['does']): Wanted | null => {
    const wanted = wantedOf(show, does, newId);
    if (!wanted) say('There is no room for another tone.');
    return wanted;
  };
  const place = (does: Placeable['does'], at: Ticks): void => {
    const wanted = wantedNow(does);
    if (!wanted) return;
    const there = wanted.action.kind === 'tone' ? tonesOn(song, at) : [];
    if (there.length === 0) {
      put(wanted, at);
      return;
    }
    const names = there.map((c) => cueWords(show, c.action)).join(' and ');
    const stand = there.length === 1 ? 'stands' : 'stand';
    ask({ wanted, at, there, words: `${names} ${stand} at ${formatPosition(bars, at, song.bars)}` });
  };
  const both = ({ wanted, at }: Twice): void => put(wanted, at);
  /** The first that stood there does it now, and others that stood there go. */
  const replace = ({ wanted, there }: Twice): void => {
    const [first, ...others] = there.map((c) => c.id);
    if (first === undefined) return;
    const edits = [...wanted.edits, ...others.flatMap((id) => removeCues(show, song.id, new Set([id])) ?? [])];
    ask(null);
    perform(together(edits, exchangeActions(show, song.id, new Set([first]), wanted.action)), `exchange a cue`);
    chosen.choose(new Set([first]));
    say(`${wanted.name} in its place`);
  };
  /** Puts something else in the place of what the chosen cues do. */
  const exchange = (does: Placeable['does']): void => {
    const wanted = wantedNow(does);
    if (!wanted) return;
    const label = chosen.cues.size === 1 ? 'exchange a cue' : `exchange ${chosen.cues.size} cues`;
    if (!perform(together(wanted.edits, exchangeActions(show, song.id, chosen.cues, wanted.action)), label)) return;
    say(`${wanted.name} in its place`);
    const [first] = chosen.cues;
    // Where it was typed one goes on.
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-cue="${first}"]`)?.focus());
  };
  const stepValue = (cueId: string, steps: number): void => {
    const ids = chosen.cues.has(cueId) ? chosen.cues : new Set([cueId]);
    perform(stepValues(show, song.id, ids, steps), 'change a value');
  };
  const addSweep = (what: ReturnType<typeof sweepable>[number]): void => {
    const bar = barOfTick(bars, caret);
    const id = newId();
    perform(
      putSweep(show, song.id, newSweep(id, what.unit, what.control, caret, bar.tick + bar.length)),
      'add a sweep',
    );
    chosen.chooseSweep(id);
  };
  const copy = (): void => {
    useCueClipboard.setState({ cues: list });
    say(`${list.length} cues copied`);
  };
  const paste = (): void => {
    const before = new Set(song.cues.map((c) => c.id));
    const edit = pasteCues(show, song.id, useCueClipboard.getState().cues, caret, newId);
    if (!perform(edit, 'paste cues')) return;
    const now = useApp.getState().open?.show;
    const after = now ? (indexShow(now).songs.get(song.id)?.cues ?? []) : [];
    chosen.choose(new Set(after.filter((c) => !before.has(c.id)).map((c) => c.id)));
  };
  /** Moves a cue, and with it those that are chosen together with it. */
  const move = (cueId: string, at: Ticks): void => {
    const cue = song.cues.find((c) => c.id === cueId);
    if (cue && chosen.cues.size > 1 && chosen.cues.has(cueId)) {
      perform(shiftCues(show, song.id, chosen.cues, at - cue.at), `move ${chosen.cues.size} cues`);
    } else perform(changeCue(show, song.id, cueId, { at }), 'move a cue');
    say(`moved to ${formatPosition(bars, at, song.bars)}`);
  };
  const step = (at: Ticks, steps: number): Ticks => {
    if (snapTo === 'bar') {
      const bar = barOfTick(bars, at).bar + (steps < 0 && barOfTick(bars, at).tick < at ? 0 : steps);
      return Math.max(0, Math.min(barAt(bars, bar).tick, barAt(bars, song.bars).tick));
    }
    // Zoomed in to the tick, a step is one.
    const least = fine ? 1 : CLOCK_TICKS;
    const near = steps < 0 ? barOfTick(bars, at - 1) : barOfTick(bars, at);
    const size = snapTo === 'half' ? near.beatTicks / 2 : snapTo === 'free' ? least : near.beatTicks;
    return Math.max(0, Math.min(at + steps * size, songTime(song).end - 1));
  };
  const remove = (cueId: string): void => {
    const ids = chosen.cues.has(cueId) ? chosen.cues : new Set([cueId]);
    const label = ids.size === 1 ? 'remove a cue' : `remove ${ids.size} cues`;
    if (perform(removeCues(show, song.id, ids), label)) say(ids.size === 1 ? 'cue removed' : 'cues removed');
    chosen.clear();
    focus();
  };
  const drop = (cueId: string, x: number, y: number): void => {
    const under = document
      .elementsFromPoint(x, y)
      .find((e) => e.closest('[data-chart-line]'))
      ?.closest<HTMLElement>('[data-chart-line]');
    const line = lines[Number(under?.dataset.chartLine ?? -1)];
    if (under && line) move(cueId, snapped(song, tickAtX(line, x - under.getBoundingClientRect().left), snapTo));
  };

  return { moveCaret, place, both, replace, exchange, stepValue, addSweep, copy, paste, move, step, remove, drop };
}

export type ChartActs = ReturnType<typeof chartActs>;
