import type { UnitAim } from '../rig';
import { toneAims } from './aims';
import type { Show, Tone } from '../show';

/** One thing that two tones want otherwise of a unit. Undefined is: leaves it as it is. */
export type ToneDifference = { readonly unitId: string } & (
  | { readonly what: 'slot' | 'variant'; readonly first: number | undefined; readonly second: number | undefined }
  | {
      readonly what: 'control';
      readonly controlId: string;
      readonly first: number | undefined;
      readonly second: number | undefined;
    }
);

const NOTHING: UnitAim = { controls: {} };

/** All that is different between two tones as they sound, what relay rules bring along included; unit by unit in the order of the rig. */
export function compareTones(show: Show, first: Tone, second: Tone): ToneDifference[] {
  const [a, b] = [toneAims(show, first), toneAims(show, second)];
  return show.units.flatMap(({ id: unitId, profile }): ToneDifference[] => {
    const [x, y] = [a.get(unitId) ?? NOTHING, b.get(unitId) ?? NOTHING];
    const found: ToneDifference[] = [];
    if (x.slot !== y.slot) found.push({ unitId, what: 'slot', first: x.slot, second: y.slot });
    if (x.variant !== y.variant) found.push({ unitId, what: 'variant', first: x.variant, second: y.variant });
    for (const { id } of profile.controls) {
      const [v, w] = [x.controls[id], y.controls[id]];
      if (v !== w) found.push({ unitId, what: 'control', controlId: id, first: v, second: w });
    }
    return found;
  });
}
