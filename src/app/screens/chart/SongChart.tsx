import { useVirtualizer } from '@tanstack/react-virtual';
import { startTransition, useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import styled from 'styled-components';
import { tinykeys } from 'tinykeys';
import { songTime, type Song } from '../../../core/show';
import type { Ticks } from '../../../core/time';
import { ChartLineView } from '../../chart/ChartLineView';
import { SCALES, lineOf } from '../../chart/layout';
import { GUTTER } from '../../chart/lineShape';
import { Soft } from '../../widgets/controls';
import { goHome } from '../../widgets/home';
import { takesText } from '../../widgets/takesText';
import { setCaret, useCaret } from '../../state/caret';
import { loadPeaks, useSounds } from '../../state/sound';
import { useApp, useShow } from '../../state/store';
import { useSight } from '../../state/useSight';
import { useSteady } from '../../state/useSteady';
import { ChartBar } from './ChartBar';
import { ChartSide, type SidePart } from './ChartSide';
import { POSITION_INPUT, TONE_INPUT } from './PlaceLine';
import { snapped, type Snap } from './snap';
import { onChartKey } from './chartKeys';
import { useChart, type Zoom, type ChartModel } from './useChart';
import { useOneByOne } from './useOneByOne';
import { chartActs } from './chartActs';
import type { Typed } from './ExchangePart';
import { TwiceDialog, type Twice } from './TwiceDialog';
import { useChosen } from './useChosen';
import { stacked, tallPane } from '../../theme/narrow';
import { Unseen } from '../../widgets/shellParts';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 286px;
  ${stacked}
`;

/** Around the lines, in pixels. */
const PADDING = { left: 12, right: 16, top: 12 };

const Paper = styled.div`
  overflow: hidden auto;
  scrollbar-gutter: stable;
  padding: ${PADDING.top}px ${PADDING.right}px ${PADDING.top}px ${PADDING.left}px;
  outline-offset: -3px;
  ${tallPane}
`;

/** The room that the last chart had, in pixels: the next one mostly has the same. */
let lastSize = { width: 880, height: 600 };

/** Its id. */

/** Pixels a quarter from which on single ticks can be told apart. */
const TICK_SCALE = 440;

interface Props {
  readonly song: Song;
  /** A place, and what is chosen there: `at` in ticks, `cue` or `sweep` an id. */
  readonly search: URLSearchParams;
}

/** A song laid out as lines of bars, what is placed on them, and the panels beside it. */
export function SongChart({ song, search }: Props) {
  const show = useShow();
  const paper = useRef<HTMLDivElement>(null);
  const size = useRoom(paper);
  const [scale, setScale] = useState(SCALES.indexOf(28));
  const [whole, setWhole] = useState(false);
  const [snapTo, setSnapTo] = useState<Snap>('beat');
  const chosen = useChosen(search.get('cue'), search.get('sweep'));
  const [part, setPart] = useState<SidePart>('here');
  const [said, setSaid] = useState('');
  const [twice, setTwice] = useState<Twice | null>(null);
  const [typed, setTyped] = useState<Typed | null>(null);
  const caret = useCaretOf(song, search);
  const zoom: Zoom = whole ? { kind: 'whole', height: size.height } : { kind: 'scale', scale: SCALES[scale]! };
  const model = useChart(show, song, size.width, zoom);
  const { lines } = model;
  const sweep = song.sweeps.find((s) => s.id === chosen.sweepId);

  useSight({ songId: song.id });
  useEffect(() => {
    void loadPeaks(show, song);
  }, [show, song]);
  const { virtual, showLine } = useLines(paper, model, search);

  const acts = chartActs({
    show,
    song,
    caret,
    snapTo,
    fine: SCALES[scale]! >= TICK_SCALE,
    lines,
    chosen,
    say: setSaid,
    ask: setTwice,
    showLine,
    focus: goHome,
  });
  usePlaceKey();

  const cues = useMemo(() => song.cues.filter((c) => chosen.cues.has(c.id)), [song.cues, chosen.cues]);
  const asides = useSteady({
    onPart: (to: SidePart) => {
      chosen.clear();
      setPart(to);
    },
    onCopy: acts.copy,
    onSweep: chosen.chooseSweep,
    onClose: chosen.clear,
    onExchange: acts.exchange,
    onTyped: () => setTyped(null),
  });
  const bar = useSteady({
    onCaret: acts.moveCaret,
    onPlace: acts.place,
    onSnap: setSnapTo,
    onScale: (to: number) => {
      setWhole(false);
      setScale(to);
    },
    onWhole: setWhole,
    onSweep: acts.addSweep,
  });
  const hands = useHands({ song, chosen, acts, snapTo, setPart, setTyped });

  return (
    <Page>
      <ChartBar show={show} song={song} caret={caret} snapTo={snapTo} scale={scale} whole={whole} {...bar} />
      <Paper
        ref={paper}
        data-home
        tabIndex={0}
        role="group"
        aria-label={`Chart of ${song.title}`}
        onKeyDown={(e) => onChartKey(e, { show, song, caret, snapTo, lines, chosen, acts })}
      >
        <ChartLines
          song={song}
          model={model}
          virtual={virtual}
          width={size.width}
          caret={caret}
          selected={chosen.cues}
          hands={hands}
        />
        {song.cues.length === 0 && (
          <p style={{ margin: '8px 0 0 46px' }}>
            <Soft>Nothing is placed yet: choose a bar, type part of a tone's name, press Enter.</Soft>
          </p>
        )}
      </Paper>
      <ChartSide
        show={show}
        song={song}
        at={caret}
        snapTo={snapTo}
        part={part}
        cues={cues}
        selected={chosen.cues}
        sweep={sweep}
        typed={typed}
        {...asides}
      />
      <TwiceDialog twice={twice} onReplace={acts.replace} onBoth={acts.both} onClose={() => setTwice(null)} />
      <Unseen role="status">{said}</Unseen>
    </Page>
  );
}

/** The room that the paper has for its lines, in pixels; followed as it changes. */
function useRoom(paper: RefObject<HTMLDivElement | null>): { readonly width: number; readonly height: number } {
  const [size, setSize] = useState(() => lastSize);
  useEffect(() => {
    const element = paper.current;
    if (!element) return undefined;
    const observer = new ResizeObserver(() => {
      const { clientWidth, clientHeight } = element;
      const width = clientWidth - GUTTER - PADDING.left - PADDING.right;
      const height = clientHeight - 2 * PADDING.top;
      if (width === lastSize.width && height === lastSize.height) return;
      lastSize = { width, height };
      // All lines are laid out anew: what plays goes before that.
      startTransition(() => setSize(lastSize));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [paper]);
  return size;
}

/** The caret of a song; it begins where the address says. */
function useCaretOf(song: Song, search: URLSearchParams): Ticks {
  useEffect(() => {
    const at = Number(search.get('at') ?? Number.NaN);
    if (at >= 0) setCaret(song.id, Math.min(at, songTime(song).end - 1));
    else if (useCaret.getState().songId !== song.id) setCaret(song.id, 0);
    // Only when the place is opened: later the caret goes its own ways.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [song.id, search]);
  return useCaret((s) => (s.songId === song.id ? s.at : 0));
}

/** The lines that are in sight, scrolled to the place that the address says. */
function useLines(paper: RefObject<HTMLDivElement | null>, { lines, heights }: ChartModel, search: URLSearchParams) {
  // Opened at a place it begins there: lines that are scrolled to are drawn all at once.
  const [initialOffset] = useState(() => {
    const at = Number(search.get('at') ?? Number.NaN);
    return at >= 0 ? heights.slice(0, lineOf(lines, at)).reduce((sum, height) => sum + height, 0) : 0;
  });
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => paper.current,
    estimateSize: (i) => heights[i]!,
    // Lines are tall: one more at either end is there before it is scrolled to.
    overscan: 1,
    // Known before it is measured, so that lines are drawn piece by piece, not all at once when it is.
    initialRect: {
      width: lastSize.width + GUTTER + PADDING.left + PADDING.right,
      height: lastSize.height + 2 * PADDING.top,
    },
    initialOffset,
    useFlushSync: false,
  });
  // Heights change with the song and the zoom.
  useEffect(() => virtual.measure(), [heights, virtual]);
  const showLine = useCallback(
    (at: Ticks) => virtual.scrollToIndex(lineOf(lines, at), { align: 'auto' }),
    [lines, virtual],
  );
  const opened = useRef(false);
  useEffect(() => {
    if (opened.current || lines.length === 0 || !search.has('at')) return;
    opened.current = true;
    showLine(Number(search.get('at')));
  }, [lines, search, showLine]);
  return { virtual, showLine };
}

/** B leads to the field that places something. */
function usePlaceKey(): void {
  useEffect(() =>
    tinykeys(window, {
      b: (event) => {
        if (takesText(event.target)) return;
        event.preventDefault();
        document.getElementById(POSITION_INPUT)?.focus();
      },
    }),
  );
}

interface Hands {
  readonly song: Song;
  readonly chosen: ReturnType<typeof useChosen>;
  readonly acts: ReturnType<typeof chartActs>;
  readonly snapTo: Snap;
  readonly setPart: (part: SidePart) => void;
  readonly setTyped: (typed: Typed) => void;
}

/** What is done with what stands on the lines, by pointer and by keys. */
const useHands = ({ song, chosen, acts, snapTo, setPart, setTyped }: Hands) =>
  useSteady({
    onPlace: (tick: Ticks, again: boolean) => {
      chosen.clear();
      acts.moveCaret(snapped(song, tick, snapTo));
      if (again) document.getElementById(TONE_INPUT)?.focus();
    },
    onSelect: chosen.pick,
    onSweep: chosen.chooseSweep,
    onRemark: (at: Ticks) => {
      chosen.clear();
      setPart('here');
      // Just where it stands: the snap would lead past it.
      acts.moveCaret(at);
    },
    onFrame: () => {
      chosen.clear();
      setPart('frame');
    },
    onDrop: acts.drop,
    onNudge: (id: string, steps: number) => {
      const cue = song.cues.find((c) => c.id === id);
      if (cue) acts.move(id, acts.step(cue.at, steps));
    },
    onRemove: acts.remove,
    onType: (id: string, text: string) => {
      if (!chosen.cues.has(id)) chosen.choose(new Set([id]));
      setTyped({ text });
    },
    onStep: acts.stepValue,
  });

interface ChartLinesProps {
  readonly song: Song;
  readonly model: ChartModel;
  readonly virtual: ReturnType<typeof useLines>['virtual'];
  readonly width: number;
  readonly caret: Ticks;
  readonly selected: ReadonlySet<string>;
  readonly hands: ReturnType<typeof useHands>;
}

/** The lines that are in sight, drawn one after the other. */
function ChartLines({ song, model, virtual, width, caret, selected, hands }: ChartLinesProps) {
  const counting = useApp((s) => s.counting);
  const peaks = useSounds((s) => s.peaks);
  const items = virtual.getVirtualItems();
  const drawn = useOneByOne(items.length);
  return (
    <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
      {items.slice(0, drawn).map((item) => (
        <div
          key={item.key}
          style={{
            position: 'absolute',
            top: 0,
            left: 0,
            transform: `translateY(${item.start}px)`,
            contain: 'layout style',
          }}
        >
          <ChartLineView
            songId={song.id}
            time={model.time}
            line={model.lines[item.index]!}
            lineIndex={item.index}
            lanes={model.lanes[item.index]!}
            flags={model.flags[item.index]!}
            remarks={model.remarks[item.index]!}
            opening={item.index === 0 ? model.opening : null}
            tempos={song.tempo}
            tracks={song.tracks}
            peaks={peaks}
            counting={counting}
            density={model.density}
            paper={width}
            selected={selected}
            caret={lineOf(model.lines, caret) === item.index ? caret : null}
            {...hands}
          />
        </div>
      ))}
    </div>
  );
}
