import type { Song } from '../../core/show';
import type { Density } from './density';
import { isQuiet, type Lane } from './lanes';
import type { ChartLine } from './layout';

/** The left margin of a line: monograms and patterns of its lanes. */
export const GUTTER = 54;

/** Where the parts of a line stand, in pixels from its top. */
export interface LineShape {
  /** The first rule: above it names and numbers. */
  readonly head: number;
  /** Below the flags. */
  readonly lanesTop: number;
  readonly active: readonly Lane[];
  /** Lanes in which nothing happens; they share one thin row. */
  readonly quiet: readonly Lane[];
  readonly quietTop: number;
  readonly bottom: number;
  /** Below the last rule: the row of remarks, where the line has any. */
  readonly remarksTop: number;
  readonly height: number;
}

/** Rows of flags on a line; 0 where it has none. */
const rowCount = (rows: readonly number[], opening: boolean): number =>
  Math.max(rows.length > 0 || opening ? 1 : 0, ...rows.map((r) => r + 1));

export function lineShape(
  line: ChartLine,
  lanes: readonly Lane[],
  rows: readonly number[],
  tempos: Song['tempo'],
  opening: boolean,
  d: Density,
  remarks = false,
): LineShape {
  const named = line.bars.some((b) => b.section) || tempos.some((t) => t.at >= line.tick && t.at < line.end);
  // Names of sections and tempos take a row of their own, on lines that have one.
  const head = d.numbers + (named ? d.names : 2);
  const flags = rowCount(rows, opening);
  const lanesTop = head + (flags === 0 ? d.noFlags : flags * d.flag);
  const active = lanes.filter((l) => !isQuiet(l));
  const quiet = lanes.filter(isQuiet);
  const quietTop = lanesTop + active.length * d.lane;
  const bottom = quietTop + (quiet.length > 0 ? d.thin : 0);
  const remarksTop = bottom + 2;
  const foot = remarks ? d.thin + 4 : 0;
  return { head, lanesTop, active, quiet, quietTop, bottom, remarksTop, height: bottom + foot + d.foot };
}
