import { callText } from '../../core/sheets';
import type { Call } from '../../core/show';
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
        {bar.call && <CallMark x={bar.x} y={head - 8} call={bar.call} />}
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

/** What is heard ahead of a bar: two arcs that come to its line, and a point under them where it is counted. */
function CallMark({ x, y, call }: { readonly x: number; readonly y: number; readonly call: Call }) {
  const counted = call.how === 'count' || call.count > 0;
  return (
    <g stroke={desk.tide} strokeWidth={1.7} fill="none">
      <title>{callText(call)}</title>
      <path d={`M${x - 4} ${y - 4}a5 5 0 0 1 0 8M${x - 8} ${y - 6}a8 8 0 0 1 0 12`} />
      {counted && <circle cx={x - 10} cy={y} r={1.6} fill={desk.tide} stroke="none" />}
    </g>
  );
}
