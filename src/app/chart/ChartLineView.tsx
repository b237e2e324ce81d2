import { memo, useId, type PointerEvent } from 'react';
import { UnitPattern } from '../widgets/UnitBadge';
import { desk } from '../theme/tokens';
import { LaneView, QuietLanes } from './LaneView';
import { xOf, tickAtX } from './layout';
import { GUTTER, lineShape, type LineShape } from './lineShape';
import { LineBars } from './LineBars';
import { LoopMark } from './LoopMark';
import { Playhead } from './Playhead';
import { Wave } from './Wave';
import { type ChartLineProps, partsInTime } from './partsInTime';
import { Caret } from './Caret';
import { Box } from './linePaper';

/** One line of the chart: section and bar numbers, cues, a lane a unit. */
export const ChartLineView = memo(function ChartLineView(props: ChartLineProps) {
  const { line, lanes, flags, caret, songId, density, onPlace } = props;
  const id = useId();
  const rows = flags.map((f) => f.row);
  const shape = lineShape(line, lanes, rows, props.tempos, props.opening !== null, density, props.remarks.length > 0);
  const { head, bottom, height } = shape;
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
        <LineDrawing {...props} shape={shape} patternId={id} />
      </svg>
      {partsInTime(props, shape)}
      {caret !== null && <Caret x={xOf(line, caret)} top={head - 16} height={bottom - head + 22} />}
      <LoopMark songId={songId} line={line} top={head - 4} />
      <Playhead songId={songId} line={line} top={head - 14} height={bottom - head + 18} />
    </Box>
  );
});

interface LineDrawingProps extends ChartLineProps {
  readonly shape: LineShape;
  /** Of the patterns of units: this, a dash, and the index of the unit. */
  readonly patternId: string;
}

/** What is drawn of a line: its ground, bars, waves, lanes and marks. */
function LineDrawing({
  line,
  tracks,
  peaks: known,
  time,
  counting,
  density,
  paper,
  shape,
  patternId,
}: LineDrawingProps) {
  const { head, lanesTop, bottom } = shape;
  return (
    <g transform={`translate(${GUTTER} 0)`}>
      <rect x={0} y={head} width={line.width} height={bottom - head} fill={desk.sheet} />
      {tracks.map((track) => {
        const peaks = known[track.audioId];
        return (
          peaks && (
            <Wave
              key={track.id}
              time={time}
              track={track}
              peaks={peaks}
              line={line}
              top={head}
              height={lanesTop - head}
            />
          )
        );
      })}
      <LineBars line={line} head={head} lanesTop={lanesTop} bottom={bottom} size={density.text.number} />
      <path d={`M${line.width} ${head - 12}V${bottom}M0 ${head}V${bottom}`} stroke={desk.ink} strokeWidth={1.1} />
      <path d={`M0 ${head}H${line.width}M0 ${bottom}H${line.width}`} stroke={desk.ink} strokeWidth={1.1} />
      {shape.active.map((lane, k) => (
        <LaneView
          key={lane.id}
          lane={lane}
          line={line}
          top={lanesTop + k * density.lane}
          fill={`url(#${patternId}-${lane.index})`}
          counting={counting}
          density={density}
        />
      ))}
      {shape.quiet.length > 0 && (
        <QuietLanes
          lanes={shape.quiet}
          room={Math.max(line.width, paper)}
          top={shape.quietTop}
          counting={counting}
          density={density}
        />
      )}
    </g>
  );
}
