import { memo, useId, type PointerEvent } from 'react';
import styled from 'styled-components';
import type { UnitState } from '../../core/rig';
import type { StateChange } from '../../core/compile';
import { songTime, type Cue, type Show, type Song, type Sweep, type Unit } from '../../core/show';
import { formatPosition, type Ticks } from '../../core/time';
import { sweepWords } from '../../wording';
import { UnitPattern } from '../components/UnitBadge';
import { slotNumber, variantNumber } from '../state/numbers';
import type { Counting } from '../state/store';
import { desk, font, unitColour } from '../theme/tokens';
import { CueFlag, OpeningFlag } from './CueFlag';
import { xOf, tickAtX, type ChartLine } from './layout';
import { Playhead } from './Playhead';
import { SweepCurve } from './SweepCurve';
import { Wave } from './Wave';

export const GUTTER = 46;
const NAMES = 22;
const NUMBERS = 18;
const CUES = 29;
const LANE = 20;
const FOOT = 14;

/** Names of sections and tempos take a row of their own, on lines that have one. */
const headHeight = (line: ChartLine, tempos: Song['tempo']): number =>
  NUMBERS + (line.bars.some((b) => b.section) || tempos.some((t) => t.at >= line.tick && t.at < line.end) ? NAMES : 4);

const rowCount = (rows: readonly number[]): number => Math.max(0, ...rows) + 1;

export const lineHeight = (line: ChartLine, tempos: Song['tempo'], rows: readonly number[], lanes: number): number =>
  headHeight(line, tempos) + CUES * rowCount(rows) + lanes * LANE + FOOT;

const Box = styled.div`
  position: relative;
  margin-left: ${GUTTER}px;
  cursor: text;
`;

const SectionName = styled.h3`
  position: absolute;
  top: 0;
  font-size: 17px;
  line-height: 20px;
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
    font: 500 13px/20px ${font.text};
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

/** A lane on one line: a unit's, with the change that reaches into it and those within; or all of a player's in one. */
export interface Lane {
  readonly id: string;
  /** Null where a player's units share the lane. */
  readonly unit: Unit | null;
  /** The player. */
  readonly name: string;
  readonly index: number;
  /** Sent nothing while a song plays. */
  readonly hushed: boolean;
  /** The first and the last of their player's lanes. */
  readonly first: boolean;
  readonly last: boolean;
  readonly before: StateChange | undefined;
  readonly changes: readonly StateChange[];
  /** Ticks of raw messages and taps; of a player's lane, of all changes. */
  readonly messages: readonly Ticks[];
}

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly line: ChartLine;
  readonly lineIndex: number;
  readonly lanes: readonly Lane[];
  readonly cues: readonly Cue[];
  /** Row of each cue's flag. */
  readonly rows: readonly number[];
  readonly tempos: Song['tempo'];
  /** Pictures of recordings, by the id of their sound. */
  readonly peaks: Readonly<Record<string, Uint8Array>>;
  readonly counting: Counting;
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
  const { line, lanes, cues, caret, song, onPlace } = props;
  const id = useId();
  const head = headHeight(line, props.tempos);
  const height = lineHeight(line, props.tempos, props.rows, lanes.length);
  const flags = CUES * rowCount(props.rows);
  const bottom = head + flags + lanes.length * LANE;
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
          {song.tracks.map((track) => {
            const peaks = props.peaks[track.audioId];
            return (
              peaks && (
                <Wave key={track.id} song={song} track={track} peaks={peaks} line={line} top={head} height={flags} />
              )
            );
          })}
          {line.bars.map((bar) => (
            <g key={bar.tick}>
              {gridOf(bar).map(({ x, beat }) => (
                <path
                  key={x}
                  d={`M${x} ${head + flags}V${bottom}`}
                  stroke={desk.line}
                  strokeWidth={1}
                  strokeDasharray={beat ? '1 3' : '1 7'}
                />
              ))}
              <path d={`M${bar.x} ${head + flags}V${bottom}`} stroke={desk.line} strokeWidth={1.2} />
              <path
                d={`M${bar.x} ${head - 12}V${head + flags}`}
                stroke={desk.ink}
                strokeWidth={bar.section ? 2.6 : 1.1}
              />
              <text x={bar.x + 5} y={head - 5} fontSize={12.5} fontWeight={700} fill={desk.inkSoft}>
                {bar.label}
              </text>
              {bar.newMetre && bar.width > 40 + bar.label.length * 8 && (
                <text
                  x={bar.x + 9 + bar.label.length * 8}
                  y={head - 5}
                  fontSize={12.5}
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
          {lanes.map((lane, k) => (
            <LaneView
              key={lane.id}
              lane={lane}
              line={line}
              top={head + flags + k * LANE}
              fill={`url(#${id}-${lane.index})`}
              counting={props.counting}
              sweeps={lane.unit ? song.sweeps.filter((s) => s.unitId === lane.unit?.id) : NO_SWEEPS}
            />
          ))}
        </g>
      </svg>
      {line.bars.map((bar) => {
        const tempo = props.tempos.find((t) => t.at >= bar.tick && t.at < bar.tick + bar.length);
        return bar.section || tempo ? (
          <SectionName key={bar.tick} style={{ left: bar.x, maxWidth: headRoom(line, props.tempos, bar) }}>
            <button type="button" title="To the frame of the song" onClick={props.onFrame}>
              {bar.section?.name}
              {tempo && <small>{tempoWords(tempo)}</small>}
            </button>
          </SectionName>
        ) : null;
      })}
      {props.lineIndex === 0 && (
        <OpeningFlag
          show={props.show}
          song={song}
          top={head + 2}
          height={CUES - 4}
          room={line.width}
          onSelect={() => onPlace(0, false)}
        />
      )}
      {lanes.flatMap((lane, k) =>
        song.sweeps
          .filter((s) => s.unitId === lane.unit?.id && s.from >= line.tick && s.from < line.end)
          .map((s) => (
            <SweepHandle
              key={s.id}
              type="button"
              aria-label={`${formatPosition(songTime(song).bars, s.from, song.bars)} ${sweepWords(props.show, s)}`}
              style={{
                left: xOf(line, s.from),
                top: head + flags + k * LANE + 1,
                width: Math.max(14, xOf(line, Math.min(s.to, line.end)) - xOf(line, s.from)),
                height: LANE - 2,
              }}
              onClick={() => props.onSweep(s.id)}
            />
          )),
      )}
      {cues.map((cue, i) => {
        const x = xOf(line, cue.at);
        return (
          <CueFlag
            key={cue.id}
            show={props.show}
            song={song}
            cue={cue}
            x={x}
            top={head + 2 + CUES * props.rows[i]!}
            height={CUES - 4}
            room={roomOf(line, cues, props.rows, i)}
            selected={props.selected.has(cue.id)}
            onSelect={props.onSelect}
            onDrop={props.onDrop}
            onNudge={props.onNudge}
            onRemove={props.onRemove}
          />
        );
      })}
      {caret !== null && <Caret x={xOf(line, caret)} top={head - 16} height={bottom - head + 22} />}
      <Playhead songId={song.id} line={line} top={head - 14} height={bottom - head + 18} />
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
function roomOf(line: ChartLine, cues: readonly Cue[], rows: readonly number[], i: number): number {
  const next = cues.findIndex((_, k) => k > i && rows[k] === rows[i]);
  return (next < 0 ? line.width + 40 : xOf(line, cues[next]!.at)) - xOf(line, cues[i]!.at) - 3;
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

const NO_SWEEPS: readonly Sweep[] = [];

interface LaneProps {
  readonly lane: Lane;
  readonly line: ChartLine;
  readonly top: number;
  readonly fill: string;
  readonly counting: Counting;
  readonly sweeps: readonly Sweep[];
}

/** A unit's states as stretches of its pattern, each with what it is on. */
function LaneView({ lane, line, top, fill, counting, sweeps }: LaneProps) {
  const { unit, index, before, changes, messages, hushed } = lane;
  const stretches = [
    ...(before ? [{ at: line.tick, state: before.state, carried: true }] : []),
    ...changes.map((c) => ({ ...c, carried: false })),
  ];
  const colour = unitColour(index);
  return (
    <g opacity={hushed ? 0.4 : 1}>
      <path d={`M${-GUTTER + 4} ${top + LANE}H${line.width}`} stroke={desk.line} strokeWidth={1} />
      {/* One bracket a player. */}
      <path
        d={`M${-GUTTER + 2} ${top + (lane.first ? 3 : 0)}V${top + LANE - (lane.last ? 3 : 0)}`}
        stroke={desk.ink}
        strokeWidth={2.4}
      />
      <text
        x={-GUTTER + 8}
        y={top + 14.5}
        fontSize={unit ? 13 : 11.5}
        fontWeight={800}
        fontFamily={font.display}
        fill={unit ? colour : desk.ink}
      >
        {unit ? unit.monogram : lane.name.slice(0, 5)}
      </text>
      {unit && <rect x={-16} y={top + 5} width={12} height={LANE - 9} fill={fill} />}
      {hushed && <path d={`M${-GUTTER + 7} ${top + 10}H-2`} stroke={desk.ink} strokeWidth={1.6} />}
      {stretches.map((s, i) => {
        const x = xOf(line, s.at);
        const end = i + 1 < stretches.length ? xOf(line, stretches[i + 1]!.at) : line.width;
        return (
          <g key={`${s.at} ${i}`}>
            <rect x={x} y={top + LANE - 6} width={Math.max(0, end - x - 2)} height={5} fill={fill} />
            {!s.carried && <path d={`M${x + 1} ${top + 2}v${LANE - 3}`} stroke={colour} strokeWidth={2.6} />}
          </g>
        );
      })}
      {sweeps.map((sweep) => {
        const control = unit?.profile.controls.find((c) => c.id === sweep.controlId);
        return (
          control && (
            <SweepCurve
              key={sweep.id}
              sweep={sweep}
              control={control}
              line={line}
              top={top + 2}
              height={LANE - 5}
              colour={colour}
            />
          )
        );
      })}
      {messages.length > 0 && (
        <path
          d={messages.map((t) => `M${xOf(line, t).toFixed(1)} ${top + 3}v${LANE - 6}`).join('')}
          stroke={colour}
          strokeWidth={1.4}
        />
      )}
      {/* Names last: nothing is drawn through them. */}
      {stretches.map((s, i) => {
        const x = xOf(line, s.at);
        const end = i + 1 < stretches.length ? xOf(line, stretches[i + 1]!.at) : line.width;
        const words = unit ? stateName(unit, s.state, counting) : '';
        const room = Math.floor((end - x - 12) / 6.4);
        return (
          room > 2 && (
            <text
              key={`${s.at} ${i}`}
              x={x + 6}
              y={top + 12}
              fontSize={12}
              paintOrder="stroke"
              stroke={desk.sheet}
              strokeWidth={5}
              strokeLinejoin="round"
              fill={s.carried ? desk.inkSoft : desk.ink}
            >
              {words.length > room ? `${words.slice(0, Math.max(1, room - 1))}…` : words}
            </text>
          )
        );
      })}
    </g>
  );
}

/** A unit's state by name, or by number where numbers are asked for. */
export function stateName(unit: Unit, state: UnitState, counting: Counting): string {
  const { plan, variants } = unit.profile;
  const parts: string[] = [];
  if (state.slot !== null) {
    const name = unit.slots.find((s) => s.index === state.slot)?.name;
    parts.push(counting === 'label' && name ? name : slotNumber(plan, state.slot, counting));
  }
  if (variants && typeof state.variant === 'number') parts.push(variantNumber(variants.names, state.variant, counting));
  return parts.join(' · ');
}
