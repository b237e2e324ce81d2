import { useId } from 'react';
import { desk, unitColour } from '../theme/tokens';

/** Line patterns by which units are told apart before colour: each a tile of 8 by 8. */
const PATTERNS: readonly string[] = [
  'M0 2h8M0 6h8',
  'M-2 6l8-8M2 10l8-8',
  'M2 0v8M6 0v8',
  'M0 4h8M4 0v8',
  'M-1 3l3 3 4-4 3 3',
  'M2 2h.1M6 6h.1',
  'M0 8l8-8M0 0l8 8',
  'M0 4h3M5 4h3M1.500 0h5M1.500 8h5',
];

export const unitPattern = (index: number): string => PATTERNS[index % PATTERNS.length]!;

interface PatternProps {
  readonly id: string;
  readonly index: number;
  readonly opacity?: number;
}

/** A pattern to fill with, as `url(#id)`. */
export function UnitPattern({ id, index, opacity = 1 }: PatternProps) {
  return (
    <pattern id={id} width={8} height={8} patternUnits="userSpaceOnUse">
      <path
        d={unitPattern(index)}
        stroke={unitColour(index)}
        strokeWidth={index % PATTERNS.length === 5 ? 2.4 : 1.3}
        strokeLinecap="round"
        fill="none"
        opacity={opacity}
      />
    </pattern>
  );
}

interface BadgeProps {
  readonly monogram: string;
  readonly index: number;
  readonly size?: number;
}

/** A unit's monogram over its line pattern. */
export function UnitBadge({ monogram, index, size = 28 }: BadgeProps) {
  const id = useId();
  const colour = unitColour(index);
  return (
    <svg width={size * 1.25} height={size} viewBox="0 0 35 28" aria-hidden style={{ flex: 'none', display: 'block' }}>
      <defs>
        <UnitPattern id={id} index={index} opacity={0.75} />
      </defs>
      <rect x={0.75} y={0.75} width={33.5} height={26.5} rx={4} fill={desk.field} stroke={colour} strokeWidth={1.5} />
      <rect x={1.5} y={20} width={32} height={6.8} fill={`url(#${id})`} />
      <text
        x={17.5}
        y={15.8}
        textAnchor="middle"
        fontFamily="'Bricolage Grotesque Variable', sans-serif"
        fontWeight={800}
        fontSize={14}
        fill={colour}
      >
        {monogram}
      </text>
    </svg>
  );
}
