import { DENSITIES, type Density } from './density';
import { SCALES } from './layout';

/** Scales that the whole song may be drawn at; closer ones would take more room than the usual. */
const WHOLE_SCALES = SCALES.filter((s) => s <= 28).toReversed();

interface Drawn {
  readonly heights: readonly number[];
}

export const heightOf = ({ heights }: Drawn): number => heights.reduce((sum, h) => sum + h, 0);

/** The largest type, and then the widest bars, that let all lines be seen in a height; where none do, what is lowest. */
export function fitWhole<T extends Drawn>(draw: (scale: number, density: Density) => T, height: number): T {
  let lowest: T | undefined;
  for (const density of DENSITIES) {
    for (const scale of WHOLE_SCALES) {
      const drawn = draw(scale, density);
      if (heightOf(drawn) <= height) return drawn;
      if (!lowest || heightOf(drawn) < heightOf(lowest)) lowest = drawn;
    }
  }
  return lowest!;
}
