import { memo, useId, type PointerEvent } from 'react';
import type { Song, SongTime, Track } from '../../core/show';
import type { Ticks } from '../../core/time';
import { UnitPattern } from '../components/UnitBadge';
import type { Counting } from '../state/store';
import { desk } from '../theme/tokens';
import { CueFlag, OpeningFlag } from './CueFlag';
import type { Density } from './density';
import type { Lane } from './lanes';
import { LaneView, QuietLanes } from './LaneView';
import { xOf, tickAtX, type ChartLine } from './layout';
import { GUTTER, lineShape } from './lineShape';
import { LineBars } from './LineBars';
import { LoopMark } from './LoopMark';
import { Playhead } from './Playhead';
import { Wave } from './Wave';
import { type Flag, headRoom, roomOf, tempoWords } from './lineParts';
import { Caret } from './Caret';
import { Box, SectionName, SweepHandle } from './linePaper';

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
          <LineBars line={line} head={head} lanesTop={lanesTop} bottom={bottom} size={text.number} />
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
