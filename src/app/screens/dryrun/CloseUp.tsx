import { useId } from 'react';
import styled from 'styled-components';
import { DIN_BYTE_MICROS } from '../../../core/midi';
import { indexShow, type Show, type Song } from '../../../core/show';
import type { Verdict } from '../../../core/simulate';
import type { Micros } from '../../../core/time';
import type { SongPicture, StateSpan } from '../../../core/proof';
import { UnitBadge } from '../../widgets/UnitBadge';
import type { Run } from '../../state/proofs';
import { useWidth } from '../../state/useWidth';
import { desk, font, unitColour } from '../../theme/tokens';
import { closeSpan, placeOf, spanText } from './runFacts';

const Box = styled.div`
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 16px 4px 16px;
  padding: 10px 12px 6px 8px;
`;

const Badges = styled.div`
  display: grid;
  align-content: start;
`;

const ROW = 40;
const MOST_ROWS = 4;
const AXIS = 30;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly run: Run;
  readonly verdict: Verdict;
}

/** One change from near: when its bytes left, when the unit was silent, what it was on, against what was wanted. */
export function CloseUp({ show, song, run, verdict }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const [from, to] = closeSpan(run, verdict);
  const x = (at: Micros): number => ((at - from) / (to - from)) * width;
  const shown = run.picture.units.filter(
    (u) =>
      u.unitId === verdict.unitId ||
      u.sent.some((s) => s.at >= from && s.at <= to) ||
      u.heard.some((s) => s.gap && s.to >= from && s.from <= to),
  );
  const units = [
    ...shown.filter((u) => u.unitId === verdict.unitId),
    ...shown.filter((u) => u.unitId !== verdict.unitId),
  ].slice(0, MOST_ROWS);
  const height = units.length * ROW + AXIS;
  const index = new Map(show.units.map((u, i) => [u.id, i]));
  const step = tickStep((to - from) / 1000);
  const marks: number[] = [];
  for (let ms = Math.ceil((from - verdict.due) / 1000 / step) * step; ms * 1000 + verdict.due <= to; ms += step) {
    marks.push(ms);
  }
  return (
    <Box>
      <UnitBadges units={units} show={show} index={index} />
      <div ref={ref}>
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`Close look at ${placeOf(song, verdict.due)}: bytes, gaps and sounds of ${units.length} ${units.length === 1 ? 'unit' : 'units'}`}
        >
          {marks.map((ms) => (
            <MillisLine key={ms} x={x} verdict={verdict} millis={ms} height={height} />
          ))}
          {units.map((unit, row) => (
            <UnitRow
              key={unit.unitId}
              show={show}
              unit={unit}
              y={row * ROW}
              index={index.get(unit.unitId) ?? 0}
              x={x}
              from={from}
              to={to}
              right={width}
            />
          ))}
          <line x1={x(verdict.due)} x2={x(verdict.due)} y1={0} y2={height - AXIS} stroke={desk.ink} strokeWidth={2.5} />
          <BeatLabel x={x} verdict={verdict} height={height} song={song} />
        </svg>
      </div>
    </Box>
  );
}

interface BeatLabelProps {
  readonly x: (at: Micros) => number;
  readonly verdict: Verdict;
  readonly height: number;
  readonly song: Song;
}

function BeatLabel({ x, verdict, height, song }: BeatLabelProps) {
  return (
    <text
      x={x(verdict.due)}
      y={height - 9}
      textAnchor="middle"
      fontSize={15}
      fontWeight={800}
      fill={desk.ink}
      fontFamily={font.display}
    >
      {placeOf(song, verdict.due)}
    </text>
  );
}

interface UnitBadgesProps {
  readonly units: SongPicture['units'];
  readonly show: Show;
  readonly index: Map<string, number>;
}

function UnitBadges({ units, show, index }: UnitBadgesProps) {
  return (
    <Badges>
      {units.map(({ unitId }) => (
        <span key={unitId} style={{ height: ROW, display: 'grid', alignContent: 'center' }}>
          <UnitBadge
            monogram={indexShow(show).units.get(unitId)?.monogram ?? ''}
            index={index.get(unitId) ?? 0}
            size={26}
          />
        </span>
      ))}
    </Badges>
  );
}

interface MillisLineProps {
  readonly x: (at: Micros) => number;
  readonly verdict: Verdict;
  readonly millis: number;
  readonly height: number;
}

/** A line of the scale in milliseconds from the beat. */
function MillisLine({ x, verdict, millis, height }: MillisLineProps) {
  return (
    <g>
      <line
        x1={x(verdict.due + millis * 1000)}
        x2={x(verdict.due + millis * 1000)}
        y1={0}
        y2={height - AXIS}
        stroke={desk.line}
        strokeWidth={1}
      />
      {Math.abs(x(verdict.due + millis * 1000) - x(verdict.due)) > 46 && (
        <text
          x={x(verdict.due + millis * 1000)}
          y={height - 10}
          textAnchor="middle"
          fontSize={12}
          fill={desk.inkSoft}
          fontFamily={font.text}
        >
          {millis > 0 ? '+' : '−'}
          {Math.abs(millis)} ms
        </text>
      )}
    </g>
  );
}

/** A round number of milliseconds that gives some six marks. */
function tickStep(millis: number): number {
  const rough = millis / 6;
  const base = 10 ** Math.floor(Math.log10(rough));
  return [1, 2, 5, 10].map((k) => k * base).find((s) => s >= rough) ?? base * 10;
}

interface RowProps {
  readonly show: Show;
  readonly unit: SongPicture['units'][number];
  readonly y: number;
  readonly index: number;
  readonly x: (at: Micros) => number;
  readonly from: Micros;
  readonly to: Micros;
  /** Where the sight ends, in pixels. */
  readonly right: number;
}

function UnitRow({ show, unit, y, index, x, from, to, right }: RowProps) {
  const id = useId();
  const { profile } = indexShow(show).units.get(unit.unitId) ?? {};
  if (!profile) return null;
  const inSight = (s: StateSpan): boolean => s.to > from && s.from < to;
  const left = (s: StateSpan): number => Math.max(0, x(s.from));
  const width = (s: StateSpan): number => Math.min(right, x(s.to)) - left(s);
  const colour = unitColour(index);
  return (
    <g>
      <defs>
        <pattern id={id} width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={7} height={7} fill={desk.field} />
          <rect width={3} height={7} fill={desk.lineStrong} />
        </pattern>
      </defs>
      {unit.wanted.filter(inSight).map((s) => (
        <HeardSpan key={s.from} left={left} span={s} y={y} width={width} />
      ))}
      {unit.heard.filter(inSight).map((s) => {
        const text = s.gap ? (profile.silentInGap ? 'silent: loads' : 'loads, old sound rings') : spanText(profile, s);
        return (
          <g key={s.from}>
            <rect
              x={left(s)}
              y={y + 7}
              width={Math.max(1.5, width(s) - 1)}
              height={20}
              fill={s.gap ? `url(#${id})` : desk.field}
              stroke={s.gap ? desk.lineStrong : colour}
              strokeWidth={1.5}
            />
            {width(s) > text.length * 7.4 && (
              <text
                x={left(s) + 7}
                y={y + 21.5}
                fontSize={13}
                fontWeight={700}
                fill={s.gap ? desk.ink : colour}
                fontFamily={font.text}
                stroke={s.gap ? desk.field : 'none'}
                strokeWidth={3.5}
                paintOrder="stroke"
              >
                {text}
              </text>
            )}
          </g>
        );
      })}
      {unit.sent
        .filter((s) => s.at >= from && s.at <= to)
        .map((s, i) => (
          <SentMark key={i} x={x} message={s} y={y} />
        ))}
      <line x1={0} x2={right} y1={y + ROW - 1} y2={y + ROW - 1} stroke={desk.line} />
    </g>
  );
}

interface SentMarkProps {
  readonly x: (at: Micros) => number;
  readonly message: SongPicture['units'][number]['sent'][number];
  readonly y: number;
}

function SentMark({ x, message, y }: SentMarkProps) {
  return (
    <rect
      x={x(message.at)}
      y={y + 30}
      width={Math.max(2, x(message.at + message.bytes.length * DIN_BYTE_MICROS) - x(message.at))}
      height={6}
      fill={desk.ink}
    />
  );
}

interface HeardSpanProps {
  readonly left: (s: StateSpan) => number;
  readonly span: StateSpan;
  readonly y: number;
  readonly width: (s: StateSpan) => number;
}

/** What is heard of the unit for a while. */
function HeardSpan({ left, span, y, width }: HeardSpanProps) {
  return (
    <g>
      <rect x={left(span) + 1} y={y + 2} width={Math.max(0, width(span) - 3)} height={4} fill={desk.lampDeep} />
    </g>
  );
}
