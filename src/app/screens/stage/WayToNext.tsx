import styled from 'styled-components';
import { songTime, type Song } from '../../../core/show';
import { barOfTick, type Ticks } from '../../../core/time';
import { stage } from '../../theme/tokens';

const Gauge = styled.figure`
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  margin: 0;
  padding-bottom: 8px;
  min-height: 0;
  @media (max-width: 700px) {
    flex-direction: row;
    align-items: center;
    justify-content: flex-start;
    gap: 16px;
  }
`;

const Standing = styled.svg`
  flex: 1;
  min-height: 0;
  @media (max-width: 700px) {
    display: none;
  }
`;

const Lying = styled.svg`
  display: none;
  @media (max-width: 700px) {
    display: block;
    flex: 1;
    min-width: 0;
    height: 62px;
  }
`;

/** So many bars are drawn; more are said in figures alone. */
const MARKS = 12;

interface Props {
  readonly song: Song;
  readonly tick: Ticks;
  /** Where the next change lies; null for none. */
  readonly next: Ticks | null;
}

/**
 * The way to the next change as a tide gauge: a mark for each bar that is still to come, sinking to
 * the line. The last bar is a block over the whole width, beats and all.
 */
export function WayToNext({ song, tick, next }: Props) {
  const { bars } = songTime(song);
  const here = barOfTick(bars, tick);
  const left = next === null ? 0 : Math.max(1, barOfTick(bars, next - 1).bar - here.bar + 1);
  const beatsLeft = next === null ? 0 : Math.max(1, Math.round((next - tick) / here.beatTicks));
  const last = next !== null && left === 1;
  const words = next === null ? '' : last ? `${beatsLeft} ${beatsLeft === 1 ? 'beat' : 'beats'}` : `${left} bars`;
  return (
    <Gauge aria-label="Way to the next change">
      <Standing viewBox="0 0 120 360" preserveAspectRatio="xMidYMax meet" aria-hidden>
        <Marks left={next === null ? 0 : left} beats={last ? beatsLeft : 0} />
      </Standing>
      {/* The same lying on its side, where the screen is narrow: the line at the left. */}
      <Lying viewBox="0 0 360 120" preserveAspectRatio="xMinYMid meet" aria-hidden>
        <g transform="translate(360 0) rotate(90)">
          <Marks left={next === null ? 0 : left} beats={last ? beatsLeft : 0} />
        </g>
      </Lying>
      <figcaption
        role="status"
        style={{ textAlign: 'center', fontSize: 30, fontWeight: 700, fontVariantNumeric: 'tabular-nums' }}
      >
        {words}
      </figcaption>
    </Gauge>
  );
}

/** Bars to come, or in the last of them its beats, above the line. */
function Marks({ left, beats }: { readonly left: number; readonly beats: number }) {
  return (
    <>
      {beats === 0 &&
        Array.from({ length: Math.min(MARKS, left) }, (_, i) => (
          <path
            key={i}
            d={`M${i % 4 === 0 ? 20 : 44} ${330 - i * 27}H100`}
            stroke={stage.text}
            strokeWidth={i % 4 === 0 ? 8 : 5}
          />
        ))}
      {beats > 0 && (
        <rect
          x={12}
          y={330 - Math.min(beats, 12) * 25}
          width={96}
          height={Math.min(beats, 12) * 25}
          fill={stage.lamp}
        />
      )}
      <path d="M0 348H120" stroke={stage.soft} strokeWidth={5} strokeDasharray="14 8" />
    </>
  );
}
