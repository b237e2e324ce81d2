export { dryRun } from './dryRun';
export { lastAtOrBefore } from './unitLine';
export { SimulatedRig } from './rig';
export type { IgnoredWhy, TraceEntry } from './trace';
export { type DryRun, type Reason, type Verdict } from './verdict';
export { lanternOf, sumLanterns, type Lantern } from './lantern';
export { compareRuns, worstFirst, worstOfEach } from './compareRuns';
