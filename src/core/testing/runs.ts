/** What the larger random run sets: so many times as many cases, and seeds of its own. */
const factor = Number(process.env.LANTERN_RUNS ?? 1);
const shift = Number(process.env.LANTERN_SEED ?? 0);

/** How often a property is tried, from which seed: fixed, so that every run of the suite tries the same. */
export const runs = (seed: number, numRuns: number): { seed: number; numRuns: number } => ({
  seed: seed + shift,
  numRuns: Math.ceil(numRuns * factor),
});
