import { memo, useId, type PointerEvent } from 'react';
import styled from 'styled-components';
import type { Cue, Song, SongTime, Track } from '../../core/show';
import type { Ticks } from '../../core/time';
import { UnitPattern } from '../components/UnitBadge';
import type { Counting } from '../state/store';
import { desk, font } from '../theme/tokens';
import { CueFlag, OpeningFlag } from './CueFlag';
import type { Density } from './density';
import type { Lane } from './lanes';
import { LaneView, QuietLanes } from './LaneView';
import { xOf, tickAtX, type ChartLine } from './layout';
import { GUTTER, lineShape } from './lineShape';
import { LoopMark } from './LoopMark';
import { Playhead } from './Playhead';
import { Wave } from './Wave';

const Box = styled.div`
  position: relative;
  margin-left: ${GUTTER}px;
  cursor: text;
`;

const SectionName = styled.h3<{ readonly $size: number }>`
  position: absolute;
  top: 0;
  font-size: ${(p) => p.$size}px;
  line-height: ${(p) => p.$size * 1.18}px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  & > button {
    padding: 0;
    border: 0;
    background: none;
    font: inherit;
    cursor: pointer;
  }
  & > button:hover {
    text-decoration: underline;
  }
  & small {
    margin-left: 10px;
    font: 500 ${(p) => Math.max(9, p.$size * 0.76)}px / 1 ${font.text};
    color: ${desk.inkSoft};
  }
`;

/** Lies over a sweep's curve, to choose it by pointer and keyboard. */
const SweepHandle = styled.button`
  position: absolute;
  padding: 0;
  border: 0;
  border-radius: 3px;
  background: transparent;
  cursor: pointer;
  &:hover {
    background: rgb(10 81 96 / 14%);
  }
`;

/** A cue that has a flag on its line. */
export interface Flag {
  readonly id: string;
  readonly cue: Cue;
  /** What it places, and where it stands, in words. */
  readonly name: string;
  readonly at: string;
  readonly row: number;
}

interface Props {
  readonly songId: string;
  readonly time: SongTime;
  readonly line: ChartLine;
  readonly lineIndex: number;
  readonly lanes: readonly Lane[];
  readonly flags: readonly Flag[];
  /** The tone that the song opens with, on its first line. */
  readonly opening: string | null;
  readonly tempos: Song['tempo'];
  readonly tracks: readonly Track[];
  /** Pictures of recordings, by the id of their sound. */
  readonly peaks: Readonly<Record<string, Uint8Array>>;
  readonly counting: Counting;
  readonly density: Density;
  /** Pixels that a line may take. */
  readonly paper: number;
  readonly selected: ReadonlySet<string>;
  /** Tick of the caret where it stands in this line. */
  readonly caret: Ticks | null;
  readonly onPlace: (tick: Ticks, again: boolean) => void;
  readonly onSelect: (cueId: string, add: boolean) => void;
  /** A sweep's curve was pressed. */
  readonly onSweep: (sweepId: string) => void;
  /** A section's name, a tempo or a metre was pressed. */
  readonly onFrame: () => void;
  readonly onDrop: (cueId: string, x: number, y: number) => void;
  readonly onNudge: (cueId: string, steps: number) => void;
  readonly onRemove: (cueId: string) => void;
}

/** One line of the chart: section and bar numbers, cues, a lane a unit. */
export const ChartLineView = memo(function ChartLineView(props: Props) {
  const { line, lanes, flags, caret, songId, density, opening, onPlace } = props;
  const id = useId();
  const rows = flags.map((f) => f.row);
  const shape = lineShape(line, lanes, rows, props.tempos, opening !== null, density);
  const { head, lanesTop, bottom, height } = shape;
  const { text } = density;
  const place = (event: PointerEvent<HTMLDivElement>, again: boolean): void => {
    if ((event.target as HTMLElement).closest('button')) return;
    const { left } = event.currentTarget.getBoundingClientRect();
    onPlace(tickAtX(line, event.clientX - left), again);
  };
  return (
    <Box
      data-chart-line={props.lineIndex}
      style={{ width: line.width, height }}
      onPointerDown={(e) => e.button === 0 && place(e, false)}
      onDoubleClick={(e) => place(e as unknown as PointerEvent<HTMLDivElement>, true)}
    >
      <svg
        width={line.width + GUTTER}
        height={height}
        style={{ position: 'absolute', left: -GUTTER, top: 0, overflow: 'visible' }}
        aria-hidden
      >
        <defs>
          {lanes.map(({ id: laneId, index }) => (
            <UnitPattern key={laneId} id={`${id}-${index}`} index={index} opacity={0.55} />
          ))}
        </defs>
        <g transform={`translate(${GUTTER} 0)`}>
          <rect x={0} y={head} width={line.width} height={bottom - head} fill={desk.sheet} />
          {props.tracks.map((track) => {
            const peaks = props.peaks[track.audioId];
            return (
              peaks && (
                <Wave
                  key={track.id}
                  time={props.time}
                  track={track}
                  peaks={peaks}
                  line={line}
                  top={head}
                  height={lanesTop - head}
                />
              )
            );
          })}
          {line.bars.map((bar) => (
            <g key={bar.tick}>
              {gridOf(bar).map(({ x, beat }) => (
                <path
                  key={x}
                  d={`M${x} ${lanesTop}V${bottom}`}
                  stroke={desk.line}
                  strokeWidth={1}
                  strokeDasharray={beat ? '1 3' : '1 7'}
                />
              ))}
              <path d={`M${bar.x} ${lanesTop}V${bottom}`} stroke={desk.line} strokeWidth={1.2} />
              <path d={`M${bar.x} ${head - 12}V${lanesTop}`} stroke={desk.ink} strokeWidth={bar.section ? 2.6 : 1.1} />
              <text x={bar.x + 5} y={head - 5} fontSize={text.number} fontWeight={700} fill={desk.inkSoft}>
                {bar.label}
              </text>
              {bar.newMetre && bar.width > 40 + bar.label.length * text.number * 0.64 && (
                <text
                  x={bar.x + 9 + bar.label.length * text.number * 0.64}
                  y={head - 5}
                  fontSize={text.number}
                  fontWeight={700}
                  fontFamily={font.display}
                  fill={desk.lampDeep}
                >
                  {bar.beats}/{bar.unit}
                </text>
              )}
            </g>
          ))}
          <path d={`M${line.width} ${head - 12}V${bottom}M0 ${head}V${bottom}`} stroke={desk.ink} strokeWidth={1.1} />
          <path d={`M0 ${head}H${line.width}M0 ${bottom}H${line.width}`} stroke={desk.ink} strokeWidth={1.1} />
          {shape.active.map((lane, k) => (
            <LaneView
              key={lane.id}
              lane={lane}
              line={line}
              top={lanesTop + k * density.lane}
              fill={`url(#${id}-${lane.index})`}
              counting={props.counting}
              density={density}
            />
          ))}
          {shape.quiet.length > 0 && (
            <QuietLanes
              lanes={shape.quiet}
              room={Math.max(line.width, props.paper)}
              top={shape.quietTop}
              counting={props.counting}
              density={density}
            />
          )}
        </g>
      </svg>
      {line.bars.map((bar) => {
        const tempo = props.tempos.find((t) => t.at >= bar.tick && t.at < bar.tick + bar.length);
        return bar.section || tempo ? (
          <SectionName
            key={bar.tick}
            $size={text.name}
            style={{ left: bar.x, maxWidth: headRoom(line, props.tempos, bar) }}
          >
            <button type="button" title="To the frame of the song" onClick={props.onFrame}>
              {bar.section?.name}
              {tempo && <small>{tempoWords(tempo)}</small>}
            </button>
          </SectionName>
        ) : null;
      })}
      {opening !== null && (
        <OpeningFlag
          songId={songId}
          name={opening}
          top={head + 1}
          height={density.flag - 3}
          size={text.flag}
          room={line.width}
          onSelect={() => onPlace(0, false)}
        />
      )}
      {shape.active.flatMap((lane, k) =>
        lane.sweeps
          .filter(({ sweep: s }) => s.from >= line.tick && s.from < line.end)
          .map(({ sweep: s, label }) => (
            <SweepHandle
              key={s.id}
              type="button"
              aria-label={label}
              style={{
                left: xOf(line, s.from),
                top: lanesTop + k * density.lane + 1,
                width: Math.max(14, xOf(line, Math.min(s.to, line.end)) - xOf(line, s.from)),
                height: density.lane - 2,
              }}
              onClick={() => props.onSweep(s.id)}
            />
          )),
      )}
      {flags.map(({ cue, name, at, row }, i) => {
        const x = xOf(line, cue.at);
        return (
          <CueFlag
            key={cue.id}
            songId={songId}
            cue={cue}
            name={name}
            at={at}
            x={x}
            top={head + 1 + density.flag * row}
            height={density.flag - 3}
            size={text.flag}
            room={roomOf(line, flags, i)}
            selected={props.selected.has(cue.id)}
            onSelect={props.onSelect}
            onDrop={props.onDrop}
            onNudge={props.onNudge}
            onRemove={props.onRemove}
          />
        );
      })}
      {caret !== null && <Caret x={xOf(line, caret)} top={head - 16} height={bottom - head + 22} />}
      <LoopMark songId={songId} line={line} top={head - 4} />
      <Playhead songId={songId} line={line} top={head - 14} height={bottom - head + 18} />
    </Box>
  );
});

/** Pixels until the next name or tempo over the line. */
function headRoom(line: ChartLine, tempos: Song['tempo'], bar: ChartLine['bars'][number]): number | undefined {
  const next = line.bars.find(
    (b) => b.tick > bar.tick && (b.section || tempos.some((t) => t.at >= b.tick && t.at < b.tick + b.length)),
  );
  return next && next.x - bar.x - 6;
}

/** Lines within a bar: its beats, and parts of them where there is room. */
function gridOf(bar: ChartLine['bars'][number]): { readonly x: number; readonly beat: boolean }[] {
  const perTick = bar.width / bar.length;
  const room = perTick * bar.beatTicks;
  const parts = room > 1200 ? 24 : room > 160 ? 4 : room > 9 ? 1 : 0;
  if (parts === 0) return [];
  const step = bar.beatTicks / parts;
  const count = Math.ceil(bar.length / step - 1e-9) - 1;
  return Array.from({ length: count }, (_, i) => ({
    x: bar.x + (i + 1) * step * perTick,
    beat: (i + 1) % parts === 0,
  }));
}

/** Pixels until the next flag in the same row. */
function roomOf(line: ChartLine, flags: readonly Flag[], i: number): number {
  const next = flags.find((f, k) => k > i && f.row === flags[i]!.row);
  return (next ? xOf(line, next.cue.at) : line.width + 40) - xOf(line, flags[i]!.cue.at) - 3;
}

function tempoWords({ bpm, beat, rampTo }: Song['tempo'][number]): string {
  const sign = beat === 1.5 ? '♩.' : beat === 0.5 ? '♪' : beat === 2 ? '𝅗𝅥' : '♩';
  const round = (x: number): number => Math.round(x * 10) / 10;
  return rampTo === null ? `${sign} = ${round(bpm)}` : `${sign} = ${round(bpm)} → ${round(rampTo)}`;
}

function Caret({ x, top, height }: { readonly x: number; readonly top: number; readonly height: number }) {
  return (
    <svg
      aria-hidden
      width={14}
      height={height}
      style={{ position: 'absolute', left: x - 7, top, pointerEvents: 'none' }}
    >
      <path d="M1 0h12L7 8z" fill={desk.lampDeep} />
      <path d={`M7 6V${height}`} stroke={desk.lampDeep} strokeWidth={2} />
    </svg>
  );
}
