import type { Sweep } from '../../core/show';
import type { Counting } from '../state/store';
import { desk, font, unitColour } from '../theme/tokens';
import type { Density } from './density';
import { fitted, stateName, textWidth, type Lane } from './lanes';
import { roomFor, xOf, type ChartLine, type Span } from './layout';
import { GUTTER } from './lineShape';
import { SweepCurve } from './SweepCurve';

interface LaneProps {
  readonly lane: Lane;
  readonly line: ChartLine;
  readonly top: number;
  readonly fill: string;
  readonly counting: Counting;
  readonly density: Density;
}

/** A unit's states as stretches of its pattern, each with what it is on. */
export function LaneView({ lane, line, top, fill, counting, density }: LaneProps) {
  const { unit, index, before, changes, messages, hushed, sweeps } = lane;
  const { lane: height, text } = density;
  const stretches = [
    ...(before ? [{ at: line.tick, state: before.state, carried: true }] : []),
    ...changes.map((c) => ({ ...c, carried: false })),
  ].map((s, i, all) => ({
    ...s,
    x: xOf(line, s.at),
    end: i + 1 < all.length ? xOf(line, all[i + 1]!.at) : line.width,
  }));
  const colour = unitColour(index);
  const marks = messages.map((t) => xOf(line, t));
  // Words keep clear of what is drawn.
  const marked = marks.map((x) => ({ from: x - 3, to: x + 3 }));
  const drawn: readonly Span[] = [...marked, ...sweeps.map(({ sweep }) => sweepSpan(line, sweep))];
  return (
    <g opacity={hushed ? 0.4 : 1}>
      <path d={`M${-GUTTER + 4} ${top + height}H${line.width}`} stroke={desk.line} strokeWidth={1} />
      {/* One bracket a player. */}
      <path
        d={`M${-GUTTER + 2} ${top + (lane.first ? 3 : 0)}V${top + height - (lane.last ? 3 : 0)}`}
        stroke={lane.bracket ?? desk.ink}
        strokeWidth={lane.bracket ? 4 : 2.4}
      />
      <text
        x={-GUTTER + 8}
        y={top + height * 0.74}
        fontSize={unit ? text.lane + 1 : text.lane}
        fontWeight={800}
        fontFamily={font.display}
        fill={unit ? colour : desk.ink}
      >
        {unit ? unit.monogram : lane.name.slice(0, 6)}
      </text>
      {unit && <rect x={-15} y={top + 4} width={11} height={height - 8} fill={fill} />}
      {hushed && <path d={`M${-GUTTER + 7} ${top + height / 2}H-2`} stroke={desk.ink} strokeWidth={1.6} />}
      {stretches.map((s) => (
        <g key={`${s.at} ${s.carried}`}>
          <rect x={s.x} y={top + height - 5} width={Math.max(0, s.end - s.x - 2)} height={4} fill={fill} />
          {!s.carried && <path d={`M${s.x + 1} ${top + 2}v${height - 3}`} stroke={colour} strokeWidth={2.6} />}
        </g>
      ))}
      {sweeps.map(({ sweep }) => {
        const control = unit?.profile.controls.find((c) => c.id === sweep.controlId);
        return (
          control && (
            <SweepCurve
              key={sweep.id}
              sweep={sweep}
              control={control}
              line={line}
              top={top + 2}
              height={height - 5}
              colour={colour}
            />
          )
        );
      })}
      {marks.length > 0 && (
        <path
          d={marks.map((x) => `M${x.toFixed(1)} ${top + 3}v${height - 6}`).join('')}
          stroke={colour}
          strokeWidth={1.4}
        />
      )}
      {stretches.map((s) => {
        const words = unit ? stateName(unit, s.state, counting) : '';
        const span = { from: s.x + 6, to: s.end - 6 };
        const size = textWidth(words, text.lane);
        const clear = roomFor(span, drawn, size);
        // Far behind a sweep they would read as something that begins there: rather over its curve, and never left out.
        const near = clear.from - span.from < NEAR && clear.to - clear.from >= Math.min(size, LEAST_ROOM);
        const room = near ? clear : roomFor(span, marked, size);
        const shown = fitted(words, room.to - room.from, text.lane);
        return (
          shown !== '' && (
            <g key={`${s.at} ${s.carried}`}>
              {!near && (
                <rect
                  x={room.from - 3}
                  y={top + 2}
                  width={textWidth(shown, text.lane) + 6}
                  height={height - 7}
                  fill={desk.sheet}
                />
              )}
              <text
                x={room.from}
                y={top + height * 0.66}
                fontSize={text.lane}
                paintOrder="stroke"
                stroke={desk.sheet}
                strokeWidth={4}
                strokeLinejoin="round"
                fill={s.carried ? desk.inkSoft : desk.ink}
              >
                {shown}
              </text>
            </g>
          )
        );
      })}
    </g>
  );
}

/** Pixels below which words are cut to nothing worth reading. */
const LEAST_ROOM = 40;

/** Pixels behind the start of a stretch in which words still belong to it. */
const NEAR = 120;

const sweepSpan = (line: ChartLine, sweep: Sweep): Span => ({
  from: xOf(line, Math.max(sweep.from, line.tick)) - 3,
  to: xOf(line, Math.min(sweep.to, line.end)) + 3,
});

interface QuietProps {
  readonly lanes: readonly Lane[];
  /** Pixels that the row may take: beside a short line there is room. */
  readonly room: number;
  readonly top: number;
  readonly counting: Counting;
  readonly density: Density;
}

/** The lanes in which nothing happens on a line, in one thin row that still says what each is on. */
export function QuietLanes({ lanes, room: whole, top, counting, density }: QuietProps) {
  const size = density.text.thin;
  const items = lanes.map((lane) => {
    const { unit } = lane;
    const state = unit && lane.before?.state;
    const name = unit ? unit.monogram : lane.name;
    const words = unit ? (state ? stateName(unit, state, counting) : '–') : '';
    return { lane, name, words, width: textWidth(`${name}  ${words}`, size) + 16 };
  });
  const until = (i: number): number => items.slice(0, i).reduce((sum, item) => sum + item.width, 0);
  const share = Math.min(1, (whole - 4) / until(items.length));
  return (
    <g>
      {items.map(({ lane, name, words, width }, i) => {
        const room = width * share - textWidth(`${name}  `, size) - 10;
        return (
          <text
            key={lane.id}
            x={4 + until(i) * share}
            y={top + density.thin * 0.74}
            fontSize={size}
            fill={desk.inkSoft}
            opacity={lane.hushed ? 0.5 : 1}
          >
            <title>{`${lane.unit?.name ?? lane.name}: ${words}`}</title>
            <tspan fontWeight={800} fontFamily={font.display} fill={lane.unit ? unitColour(lane.index) : desk.ink}>
              {name}
            </tspan>{' '}
            {fitted(words, room, size)}
          </text>
        );
      })}
    </g>
  );
}
