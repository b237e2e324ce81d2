export { SimulatedRig, type IgnoredWhy, type TraceEntry } from './rig';
export {
  DEFAULT_TOLERANCE,
  dryRun,
  type DryRun,
  type Outcome,
  type Reason,
  type Tolerance,
  type Verdict,
} from './verdict';
export { lanternOf, sumLanterns, type Lantern } from './lantern';
export { compareRuns, worstFirst, worstOfEach, type RunDifference } from './compareRuns';
