import { TICKS_PER_QUARTER, type Ticks } from '../time';

/** So many options of a selector, one after the other and no further apart than this, are a ramp drawn through it. */
const OPTIONS = 3;
const GAP: Ticks = TICKS_PER_QUARTER / 4;

/** A step of a selector: the option that it goes to. */
export interface SelectorStep {
  readonly at: Ticks;
  readonly value: number;
}

/**
 * Ramps that are drawn through a selector, by its steps in order: runs up or down, with steps
 * left out or said twice, and what goes up and down again without a pause as one.
 */
export function selectorRuns<T extends SelectorStep>(steps: readonly T[]): readonly (readonly T[])[] {
  const climbs: T[][] = [];
  let way = 0;
  for (const step of steps) {
    const run = climbs.at(-1);
    const before = run?.at(-1);
    const by = before ? Math.sign(step.value - before.value) : 0;
    if (run && before && step.at - before.at <= GAP && (by === 0 || way === 0 || by === way)) {
      run.push(step);
      way = by === 0 ? way : by;
      continue;
    }
    // The turning point belongs to the way back as well.
    const turns = before && step.at - before.at <= GAP;
    climbs.push(turns ? [before, step] : [step]);
    way = turns ? by : 0;
  }
  const ramps = climbs.filter(isRamp);
  const joined: T[][] = [];
  for (const run of ramps) {
    const last = joined.at(-1);
    if (last && run[0]!.at - last.at(-1)!.at <= GAP) last.push(...run.filter((s) => !last.includes(s)));
    else joined.push([...run]);
  }
  return joined;
}

/** Leaps are meant; a ramp goes by neighbours, if not everywhere. */
function isRamp(run: readonly SelectorStep[]): boolean {
  const neighbours = run.filter((s, i) => i > 0 && Math.abs(s.value - run[i - 1]!.value) === 1).length;
  return neighbours >= OPTIONS - 1 && new Set(run.map((s) => s.value)).size >= OPTIONS;
}
