export { dryRun } from './dryRun';
export { SimulatedRig } from './rig';
export type { IgnoredWhy, TraceEntry } from './trace';
export { DEFAULT_TOLERANCE, type DryRun, type Outcome, type Reason, type Tolerance, type Verdict } from './verdict';
export { lanternOf, sumLanterns, type Lantern } from './lantern';
export { compareRuns, worstFirst, worstOfEach, type RunDifference } from './compareRuns';
