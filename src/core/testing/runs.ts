/** What the larger random run sets: so many times as many cases, and seeds of its own. */
const factor = Number(process.env.LANTERN_RUNS ?? 0);
const shift = Number(process.env.LANTERN_SEED ?? 0);

/** How long the usual run tries one property, in ms: a slow or busy machine tries fewer cases, and none fails for it. */
const BUDGET = 2500;

/**
 * How often a property is tried, from which seed: fixed, so that every run of the suite tries the same cases as
 * far as its time goes. The larger random run tries them all, however long that takes.
 */
export const runs = (
  seed: number,
  numRuns: number,
): { seed: number; numRuns: number; interruptAfterTimeLimit?: number } =>
  factor > 0
    ? { seed: seed + shift, numRuns: Math.ceil(numRuns * factor) }
    : { seed, numRuns, interruptAfterTimeLimit: BUDGET };
