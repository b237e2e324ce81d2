import { desk, font } from '../theme/tokens';
import type { ChartLine } from './layout';
import { gridOf } from './lineParts';

interface Props {
  readonly line: ChartLine;
  /** Where, from above: the line under the numbers, the first lane, the foot. */
  readonly head: number;
  readonly lanesTop: number;
  readonly bottom: number;
  /** Of the numbers, in pixels. */
  readonly size: number;
}

/** Bar lines with their numbers and metres, and the beats between them. */
export const LineBars = ({ line, head, lanesTop, bottom, size }: Props) => (
  <>
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
        <text x={bar.x + 5} y={head - 5} fontSize={size} fontWeight={700} fill={desk.inkSoft}>
          {bar.label}
        </text>
        {bar.newMetre && bar.width > 40 + bar.label.length * size * 0.64 && (
          <text
            x={bar.x + 9 + bar.label.length * size * 0.64}
            y={head - 5}
            fontSize={size}
            fontWeight={700}
            fontFamily={font.display}
            fill={desk.lampDeep}
          >
            {bar.beats}/{bar.unit}
          </text>
        )}
      </g>
    ))}
  </>
);
