import { memo, useId, type PointerEvent } from 'react';
import { UnitPattern } from '../widgets/UnitBadge';
import { desk } from '../theme/tokens';
import { LaneView, QuietLanes } from './LaneView';
import { xOf, tickAtX, type ChartLine } from './layout';
import { GUTTER, lineShape, type LineShape } from './lineShape';
import { LineBars } from './LineBars';
import { LoopMark } from './LoopMark';
import { Playhead } from './Playhead';
import { Wave } from './Wave';
import { type ChartLineProps, partsInTime } from './partsInTime';
import { Caret } from './Caret';
import { Box } from './linePaper';
import type { Density } from './density';

/** One line of the chart: section and bar numbers, cues, a lane a unit. */
export const ChartLineView = memo(function ChartLineView(props: ChartLineProps) {
  const { line, lanes, flags, caret, songId, density, onPlace } = props;
  const id = useId();
  const rows = flags.map((f) => f.row);
  const shape = lineShape(line, lanes, rows, props.tempos, props.opening !== null, density, props.remarks.length > 0);
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
        <LineDrawing
          head={head}
          line={line}
          bottom={bottom}
          props={props}
          lanesTop={lanesTop}
          text={text}
          shape={shape}
          density={density}
          id={id}
        />
      </svg>
      {partsInTime(props, shape)}
      {caret !== null && <Caret x={xOf(line, caret)} top={head - 16} height={bottom - head + 22} />}
      <LoopMark songId={songId} line={line} top={head - 4} />
      <Playhead songId={songId} line={line} top={head - 14} height={bottom - head + 18} />
    </Box>
  );
});

interface LineDrawingProps {
  readonly head: number;
  readonly line: ChartLine;
  readonly bottom: number;
  readonly props: ChartLineProps;
  readonly lanesTop: number;
  readonly text: Density['text'];
  readonly shape: LineShape;
  readonly density: Density;
  readonly id: string;
}

/** What is drawn of a line: its ground, bars, waves, lanes and marks. */
function LineDrawing({ head, line, bottom, props, lanesTop, text, shape, density, id }: LineDrawingProps) {
  return (
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
  );
}
