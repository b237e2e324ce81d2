import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { tinykeys } from 'tinykeys';
import {
  actionCue,
  changeCue,
  indexShow,
  newSweep,
  pasteCues,
  placeCue,
  putSweep,
  removeCues,
  shiftCues,
  songTime,
  type sweepable,
  type Cue,
  type Song,
} from '../../core/show';
import { TICKS_PER_QUARTER, barAt, barOfTick, formatPosition, type Ticks } from '../../core/time';
import { ChartLineView } from '../chart/ChartLineView';
import { SCALES, lineOf, tickAtX, xOf } from '../chart/layout';
import { GUTTER } from '../chart/lineShape';
import { AddSong } from '../components/AddSong';
import { Soft } from '../components/controls';
import { setCaret, useCaret } from '../state/caret';
import { newId, perform } from '../state/desk';
import { loadPeaks, useSounds } from '../state/sound';
import { useApp, useShow } from '../state/store';
import { useSight } from '../state/useSight';
import { useSteady } from '../state/useSteady';
import { cueWords } from '../../wording';
import { useCueClipboard } from './chart/cueClipboard';
import { ChartBar } from './chart/ChartBar';
import { ChartSide, type SidePart } from './chart/ChartSide';
import { POSITION_INPUT, TONE_INPUT } from './chart/PlaceLine';
import { snapped, type Snap } from './chart/snap';
import { useChart, type Zoom } from './chart/useChart';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 286px;
`;

/** Around the lines, in pixels. */
const PADDING = { left: 12, right: 16, top: 12 };

const Paper = styled.div`
  overflow: hidden auto;
  scrollbar-gutter: stable;
  padding: ${PADDING.top}px ${PADDING.right}px ${PADDING.top}px ${PADDING.left}px;
  outline-offset: -3px;
`;

const Nothing = styled.div`
  display: grid;
  place-content: center;
  gap: 12px;
  height: 100%;
  max-width: 460px;
  margin: 0 auto;
`;

const NOTHING: ReadonlySet<string> = new Set();

/** A song as lines of bars, and everything that is placed on them. */
export function ChartScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { songId } = useParams();
  const [search] = useSearchParams();
  // Without a song in the address: the one that was last looked at, or the first of the set.
  const last = useCaret((s) => s.songId);
  const { songs } = indexShow(show);
  const song = songs.get(songId ?? last ?? '') ?? songs.get(show.set[0]?.songId ?? '') ?? show.songs[0];
  if (!song) {
    return (
      <Nothing>
        <h1>No songs yet</h1>
        <p>A song is a name, a tempo and a metre to begin with.</p>
        <div>
          <AddSong onAdded={(id) => void navigate(`/show/${show.id}/chart/${id}`)} />
        </div>
      </Nothing>
    );
  }
  return <SongChart key={`${song.id} ${search}`} song={song} search={search} />;
}

interface Props {
  readonly song: Song;
  /** A place, and what is chosen there: `at` in ticks, `cue` or `sweep` an id. */
  readonly search: URLSearchParams;
}

function SongChart({ song, search }: Props) {
  const show = useShow();
  const counting = useApp((s) => s.counting);
  const peaks = useSounds((s) => s.peaks);
  const paper = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 880, height: 600 });
  const [scale, setScale] = useState(SCALES.indexOf(28));
  const [whole, setWhole] = useState(false);
  const [snapTo, setSnapTo] = useState<Snap>('beat');
  const [selected, setSelected] = useState<ReadonlySet<string>>(() => {
    const cue = search.get('cue');
    return cue === null ? NOTHING : new Set([cue]);
  });
  const [sweepId, setSweepId] = useState<string | null>(() => search.get('sweep'));
  const [part, setPart] = useState<SidePart>('here');
  const [said, setSaid] = useState('');
  const caret = useCaret((s) => (s.songId === song.id ? s.at : 0));
  const zoom: Zoom = whole ? { kind: 'whole', height: size.height } : { kind: 'scale', scale: SCALES[scale]! };
  const model = useChart(show, song, size.width, zoom);
  const { lines } = model;
  const { bars } = songTime(song);
  const chosen = song.cues.filter((c) => selected.has(c.id));
  const sweep = song.sweeps.find((s) => s.id === sweepId);
  const choose = (ids: ReadonlySet<string>): void => {
    setSelected(ids);
    setSweepId(null);
  };

  useSight({ songId: song.id });
  useEffect(() => {
    void loadPeaks(show, song);
  }, [show, song]);
  useEffect(() => {
    const at = Number(search.get('at') ?? Number.NaN);
    if (at >= 0) setCaret(song.id, Math.min(at, songTime(song).end - 1));
    else if (useCaret.getState().songId !== song.id) setCaret(song.id, 0);
    // Only when the place is opened: later the caret goes its own ways.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [song.id, search]);
  useEffect(() => {
    const element = paper.current;
    if (!element) return undefined;
    const observer = new ResizeObserver(() => {
      const { clientWidth, clientHeight } = element;
      setSize({ width: clientWidth - GUTTER - PADDING.left - PADDING.right, height: clientHeight - 2 * PADDING.top });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => paper.current,
    estimateSize: (i) => model.heights[i]!,
    overscan: 3,
  });
  // Heights change with the song and the zoom.
  useEffect(() => virtual.measure(), [model.heights, virtual]);
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

  const moveCaret = (at: Ticks): void => {
    setCaret(song.id, at);
    setSaid(formatPosition(bars, at, song.bars));
    showLine(at);
  };
  const place = (action: Cue['action'], at: Ticks): void => {
    const id = newId();
    const name = cueWords(show, action);
    perform(placeCue(show, song.id, actionCue(id, at, action)), `place ${name}`);
    setCaret(song.id, at);
    showLine(at);
    choose(new Set([id]));
    setSaid(`${name} placed at ${formatPosition(bars, at, song.bars)}`);
  };
  const addSweep = (what: ReturnType<typeof sweepable>[number]): void => {
    const bar = barOfTick(bars, caret);
    const id = newId();
    perform(
      putSweep(show, song.id, newSweep(id, what.unit, what.control, caret, bar.tick + bar.length)),
      'add a sweep',
    );
    choose(NOTHING);
    setSweepId(id);
  };
  const copy = (): void => {
    useCueClipboard.setState({ cues: chosen });
    setSaid(`${chosen.length} cues copied`);
  };
  const paste = (): void => {
    const before = new Set(song.cues.map((c) => c.id));
    const edit = pasteCues(show, song.id, useCueClipboard.getState().cues, caret, newId);
    if (!perform(edit, 'paste cues')) return;
    const now = useApp.getState().open?.show;
    const after = now ? (indexShow(now).songs.get(song.id)?.cues ?? []) : [];
    choose(new Set(after.filter((c) => !before.has(c.id)).map((c) => c.id)));
  };
  /** Moves a cue, and with it those that are chosen together with it. */
  const move = (cueId: string, at: Ticks): void => {
    const cue = song.cues.find((c) => c.id === cueId);
    if (cue && selected.size > 1 && selected.has(cueId)) {
      perform(shiftCues(show, song.id, selected, at - cue.at), `move ${selected.size} cues`);
    } else perform(changeCue(show, song.id, cueId, { at }), 'move a cue');
    setSaid(`moved to ${formatPosition(bars, at, song.bars)}`);
  };
  const step = (at: Ticks, steps: number): Ticks => {
    if (snapTo === 'bar') {
      const bar = barOfTick(bars, at).bar + (steps < 0 && barOfTick(bars, at).tick < at ? 0 : steps);
      return Math.max(0, Math.min(barAt(bars, bar).tick, barAt(bars, song.bars).tick));
    }
    // Zoomed in to the tick, a step is one.
    const fine = SCALES[scale]! >= 440 ? 1 : TICKS_PER_QUARTER / 24;
    const near = steps < 0 ? barOfTick(bars, at - 1) : barOfTick(bars, at);
    const size = snapTo === 'half' ? near.beatTicks / 2 : snapTo === 'free' ? fine : near.beatTicks;
    return Math.max(0, Math.min(at + steps * size, songTime(song).end - 1));
  };
  const remove = (cueId: string): void => {
    const ids = selected.has(cueId) ? selected : new Set([cueId]);
    const label = ids.size === 1 ? 'remove a cue' : `remove ${ids.size} cues`;
    if (perform(removeCues(show, song.id, ids), label)) setSaid(ids.size === 1 ? 'cue removed' : 'cues removed');
    choose(NOTHING);
    paper.current?.focus();
  };
  const drop = (cueId: string, x: number, y: number): void => {
    const under = document
      .elementsFromPoint(x, y)
      .find((e) => e.closest('[data-chart-line]'))
      ?.closest<HTMLElement>('[data-chart-line]');
    const line = lines[Number(under?.dataset.chartLine ?? -1)];
    if (under && line) move(cueId, snapped(song, tickAtX(line, x - under.getBoundingClientRect().left), snapTo));
  };

  useEffect(() =>
    tinykeys(window, {
      b: (event) => {
        if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select')) return;
        event.preventDefault();
        document.getElementById(POSITION_INPUT)?.focus();
      },
    }),
  );

  const onKey = (event: KeyboardEvent): void => {
    const command = event.ctrlKey || event.metaKey;
    if (command && event.key === 'c' && chosen.length > 0) copy();
    else if (command && event.key === 'x' && chosen.length > 0) {
      copy();
      remove(chosen[0]!.id);
    } else if (command && event.key === 'v') paste();
    else if (command && event.key === 'a') choose(new Set(song.cues.map((c) => c.id)));
    else {
      onCaretKey(event);
      return;
    }
    event.preventDefault();
  };
  const onCaretKey = (event: KeyboardEvent): void => {
    if (event.target !== paper.current) return;
    const i = lineOf(lines, caret);
    const vertical = (by: number): Ticks => {
      const to = lines[Math.max(0, Math.min(lines.length - 1, i + by))]!;
      return snapped(song, tickAtX(to, Math.min(xOf(lines[i]!, caret), to.width - 1)), snapTo);
    };
    const moves: Readonly<Record<string, () => Ticks>> = {
      ArrowRight: () => step(caret, 1),
      ArrowLeft: () => step(caret, -1),
      ArrowDown: () => vertical(1),
      ArrowUp: () => vertical(-1),
      Home: () => (event.ctrlKey ? 0 : lines[i]!.tick),
      End: () => (event.ctrlKey ? barAt(bars, song.bars).tick : lines[i]!.bars.at(-1)!.tick),
    };
    const to = moves[event.key];
    if (to) moveCaret(to());
    else if (/^[1-9]$/.test(event.key) && show.core[Number(event.key) - 1]) {
      place({ kind: 'tone', toneId: show.core[Number(event.key) - 1]!, reload: false }, caret);
      paper.current?.focus();
    } else if (event.key === 'Enter') document.getElementById(TONE_INPUT)?.focus();
    else return;
    event.preventDefault();
  };

  const hands = useSteady({
    onPlace: (tick: Ticks, again: boolean) => {
      choose(NOTHING);
      moveCaret(snapped(song, tick, snapTo));
      if (again) document.getElementById(TONE_INPUT)?.focus();
    },
    onSelect: (id: string, add: boolean) => {
      if (!add) choose(new Set([id]));
      else choose(selected.has(id) ? new Set([...selected].filter((x) => x !== id)) : new Set([...selected, id]));
    },
    onSweep: (id: string) => {
      choose(NOTHING);
      setSweepId(id);
    },
    onFrame: () => {
      choose(NOTHING);
      setPart('frame');
    },
    onDrop: drop,
    onNudge: (id: string, steps: number) => {
      const cue = song.cues.find((c) => c.id === id);
      if (cue) move(id, step(cue.at, steps));
    },
    onRemove: remove,
  });

  return (
    <Page>
      <ChartBar
        show={show}
        song={song}
        caret={caret}
        snapTo={snapTo}
        scale={scale}
        onCaret={moveCaret}
        onPlace={place}
        onSnap={setSnapTo}
        whole={whole}
        onScale={(to) => {
          setWhole(false);
          setScale(to);
        }}
        onWhole={setWhole}
        onSweep={addSweep}
      />
      <Paper ref={paper} tabIndex={0} role="group" aria-label={`Chart of ${song.title}`} onKeyDown={onKey}>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index]!;
            return (
              <div
                key={item.key}
                style={{ position: 'absolute', top: 0, left: 0, transform: `translateY(${item.start}px)` }}
              >
                <ChartLineView
                  songId={song.id}
                  time={model.time}
                  line={line}
                  lineIndex={item.index}
                  lanes={model.lanes[item.index]!}
                  flags={model.flags[item.index]!}
                  opening={item.index === 0 ? model.opening : null}
                  tempos={song.tempo}
                  tracks={song.tracks}
                  peaks={peaks}
                  counting={counting}
                  density={model.density}
                  paper={size.width}
                  selected={selected}
                  caret={lineOf(lines, caret) === item.index ? caret : null}
                  {...hands}
                />
              </div>
            );
          })}
        </div>
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
        part={part}
        onPart={(to) => {
          choose(NOTHING);
          setPart(to);
        }}
        cues={chosen}
        selected={selected}
        sweep={sweep}
        onCopy={copy}
        onSweep={(id) => {
          choose(NOTHING);
          setSweepId(id);
        }}
        onClose={() => choose(NOTHING)}
      />
      <span
        role="status"
        style={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)' }}
      >
        {said}
      </span>
    </Page>
  );
}
