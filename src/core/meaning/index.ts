export { songWants, toneAims } from './aims';
export { aimOf, partAims } from './partAims';
export {
  changesTo,
  relayOrder,
  takeMessage,
  variantBehindRecall,
  type Change,
  type Told,
  type SetOff,
  type Taken,
  type Thrift,
} from './changes';
export { compareShows, type ShowDifference } from './compareShows';
export { FIRST_STEPS, firstSteps, type FirstStep } from './firstSteps';
export { compareTones, type ToneDifference } from './compareTones';
export { contextOf, passMoment, type Doing, type RigContext } from './context';
export { Course, leadsTo } from './course';
export { leftovers, type Leftover } from './leftovers';
export { MessageReader, type Direction, type Meaning } from './messageReader';
export { OPENING_CUE, moments, tapRuns, type Moment, type MomentAction, type TapRun } from './moments';
export { durationOf, latencyOf, thruGap, type Path } from './path';
export {
  NOT_REACTED,
  along,
  heardOf,
  newTone,
  react,
  reactLater,
  type Act,
  type Around,
  type Heard,
  type Miss,
  type Reacted,
  type Reacting,
  type ReactionStep,
} from './reactions';
export { rigSpec, routeTo, type Route } from './rigOf';
export { selectorRuns, type SelectorStep } from './selectorRuns';
export { StateFold } from './stateFold';
export { relayCycles, storingSteps, type StoringStep } from './storingSteps';
export { sameSurroundings, sameToWires, surroundingsOf, type Surroundings } from './surroundings';
export { linePoints, reshaped, sweptOn, type SweepForm } from './sweepShapes';
export { playedSweeps, sweepPoints, sweepValue, type PlayedSweep, type SweepPoint } from './sweeps';
export { hearers, patchSheet, returnsTo, wireLoops, type PatchRow, type WirePoint } from './wiring';
