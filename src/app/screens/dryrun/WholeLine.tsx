import { useId, useMemo } from 'react';
import styled from 'styled-components';
import { indexShow, songTime, type Show, type Song, type Section } from '../../../core/show';
import type { Verdict } from '../../../core/simulate';
import { barAt, ticksToSeconds, type Micros } from '../../../core/time';
import { UnitBadge } from '../../widgets/UnitBadge';
import type { Run } from '../../state/proofs';
import { useWidth } from '../../state/useWidth';
import { desk, font, unitColour } from '../../theme/tokens';
import { placeOf, spanText, wrongSpans } from './runFacts';
import type { SongPicture } from '../../../core/proof';

const Box = styled.div`
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr);
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 16px 4px 16px;
  padding: 8px 12px 4px 8px;
`;

const HEAD = 20;

/** A box as a piece of a path: a song has thousands of them. */
const box = (left: number, top: number, wide: number, high: number): string =>
  `M${left.toFixed(2)} ${top}h${wide.toFixed(2)}v${high}h${(-wide).toFixed(2)}z`;

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly run: Run;
  readonly chosen: Verdict | undefined;
  readonly onChoose: (verdict: Verdict) => void;
}

/** The whole song: of each unit what it was on, where it loaded, and where a change did not land. */
export function WholeLine({ show, song, run, chosen, onChoose }: Props) {
  const id = useId();
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const { picture } = run;
  const { units, landings, end } = picture;
  const row = units.length > 7 ? 18 : 23;
  const height = HEAD + units.length * row + 4;
  const x = (at: Micros): number => (Math.max(0, at) / end) * width;
  const time = songTime(song);
  const sectionAt = (bar: number): number => x(ticksToSeconds(time.tempo, barAt(time.bars, bar).tick) * 1e6);
  const before = show.tolerance.before * 1000;
  const wrong = useMemo(() => units.map((unit) => wrongSpans(unit, before)), [units, before]);
  const rowOf = new Map(units.map((u, i) => [u.unitId, i]));
  const choose = (event: React.MouseEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const at = ((event.clientX - box.left) / box.width) * end;
    const unit = Math.floor((((event.clientY - box.top) / box.height) * height - HEAD) / row);
    const own = landings.filter((v) => rowOf.get(v.unitId) === unit);
    const near = (own.length > 0 ? own : landings).toSorted((a, b) => Math.abs(a.due - at) - Math.abs(b.due - at))[0];
    if (near) onChoose(near);
  };
  const names = song.sections.toSorted((a, b) => a.bar - b.bar);
  return (
    <Box>
      <UnitNames units={units} show={show} row={row} />
      <div ref={ref}>
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`What each unit is on through ${song.title}`}
          style={{ cursor: 'pointer' }}
          onClick={choose}
        >
          <defs>
            <clipPath id={id}>
              <rect width={width} height={height} />
            </clipPath>
          </defs>
          <g clipPath={`url(#${id})`}>
            <SectionLines names={names} sectionAt={sectionAt} width={width} height={height} />
            <UnitLines units={units} show={show} row={row} x={x} />
            <WrongMarks wrong={wrong} x={x} row={row} landings={landings} width={width} rowOf={rowOf} />
            {chosen && <ChosenLine x={x} chosen={chosen} height={height} song={song} />}
          </g>
        </svg>
      </div>
    </Box>
  );
}

interface UnitNamesProps {
  readonly units: SongPicture['units'];
  readonly show: Show;
  readonly row: 18 | 23;
}

function UnitNames({ units, show, row }: UnitNamesProps) {
  return (
    <div style={{ paddingTop: HEAD }}>
      {units.map(({ unitId }) => {
        const index = show.units.findIndex((u) => u.id === unitId);
        return (
          <span key={unitId} style={{ display: 'grid', alignContent: 'center', height: row }}>
            <UnitBadge monogram={show.units[index]?.monogram ?? ''} index={index} size={row - 4} />
          </span>
        );
      })}
    </div>
  );
}

interface WrongMarksProps {
  readonly wrong: (readonly { from: Micros; to: Micros }[])[];
  readonly x: (at: Micros) => number;
  readonly row: 18 | 23;
  readonly landings: readonly Verdict[];
  readonly width: number;
  readonly rowOf: Map<string, number>;
}

/** What is on something else than is wanted, and changes that do not land. */
function WrongMarks({ wrong, x, row, landings, width, rowOf }: WrongMarksProps) {
  return (
    <>
      <path
        fill={desk.rust}
        d={wrong
          .flatMap((spans, i) =>
            spans.map(({ from, to }) => box(x(from), HEAD + i * row + row - 5, Math.max(2.5, x(to) - x(from)), 4)),
          )
          .join('')}
      />
      <path
        fill={desk.rust}
        stroke={desk.field}
        strokeWidth={1.5}
        d={landings
          .filter((v) => v.outcome !== 'on-time')
          .map((v) => {
            const cx = Math.max(6, Math.min(width - 6, x(v.due)));
            return `M${cx} ${HEAD + (rowOf.get(v.unitId) ?? 0) * row + row / 2 - 8}l7 8-7 8-7-8z`;
          })
          .join('')}
      />
    </>
  );
}

interface ChosenLineProps {
  readonly x: (at: Micros) => number;
  readonly chosen: Verdict;
  readonly height: number;
  readonly song: Song;
}

/** Where the chosen change is. */
function ChosenLine({ x, chosen, height, song }: ChosenLineProps) {
  return (
    <g>
      <line x1={x(chosen.due)} x2={x(chosen.due)} y1={HEAD - 4} y2={height} stroke={desk.lampDeep} strokeWidth={2.5} />
      <title>{placeOf(song, chosen.due)}</title>
    </g>
  );
}

interface UnitLinesProps {
  readonly units: SongPicture['units'];
  readonly show: Show;
  readonly row: 18 | 23;
  readonly x: (at: Micros) => number;
}

/** What each unit is on, with its presets’ names where there is room. */
function UnitLines({ units, show, row, x }: UnitLinesProps) {
  return (
    <>
      {units.map(({ unitId, heard }, i) => {
        const unit = indexShow(show).units.get(unitId);
        const colour = unitColour(show.units.findIndex((u) => u.id === unitId));
        const top = HEAD + i * row + 2;
        const wideOf = (s: (typeof heard)[number]): number => Math.max(s.gap ? 2.5 : 1, x(s.to) - x(s.from));
        const boxes = (gaps: boolean): string =>
          heard
            .filter((s) => s.gap === gaps)
            .map((s) => box(x(s.from), top, wideOf(s), row - 5))
            .join('');
        return (
          <g key={unitId}>
            <path d={boxes(false)} fill={desk.field} stroke={colour} strokeWidth={1} />
            <path d={boxes(true)} fill={desk.ink} />
            {heard.map((s) => {
              const text = unit && !s.gap ? spanText(unit.profile, s) : '';
              if (text === '' || wideOf(s) <= text.length * 6 + 6) return null;
              return (
                <text
                  key={s.from}
                  x={x(s.from) + 5}
                  y={HEAD + i * row + row / 2 + 4}
                  fontSize={11.5}
                  fontWeight={600}
                  fill={colour}
                  fontFamily={font.text}
                >
                  {text}
                </text>
              );
            })}
          </g>
        );
      })}
    </>
  );
}

interface SectionLinesProps {
  readonly names: Section[];
  readonly sectionAt: (bar: number) => number;
  readonly width: number;
  readonly height: number;
}

/** Where sections begin, with their names where there is room. */
function SectionLines({ names, sectionAt, width, height }: SectionLinesProps) {
  return (
    <>
      {names.map((s, i) => {
        const next = names[i + 1];
        const room = (next ? sectionAt(next.bar) : width) - sectionAt(s.bar);
        return (
          <g key={s.id}>
            <line x1={sectionAt(s.bar)} x2={sectionAt(s.bar)} y1={0} y2={height} stroke={desk.lineStrong} />
            {room > 24 && (
              <text
                x={sectionAt(s.bar) + 4}
                y={13}
                fontSize={12}
                fontWeight={700}
                fill={desk.ink}
                fontFamily={font.display}
              >
                {s.name.slice(0, Math.max(2, Math.floor((room - 8) / 6.4)))}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}
